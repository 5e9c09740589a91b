export { JOINT_CRITERIA, JOINT_FINDINGS, type JointFinding, jointMatters, legsToPush } from './joints.ts';
export { isSymptom, nextTries, type NextTry, type Proofs, type Symptom, SYMPTOMS } from './nextTry.ts';
export { pinsFor, pinsOf } from './pinsFor.ts';
export { proofKey, type ProofReading } from './proofKey.ts';
export { judgeProof, type Proof, proofsOf, proofWords } from './proofs.ts';
