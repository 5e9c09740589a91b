export { JOINT_CRITERIA, JOINT_FINDINGS, type JointFinding, jointMatters, legsToPush } from './joints.ts';
export { isSymptom, nextTries, type NextTry, pinsFor, type Proofs, type Symptom, SYMPTOMS } from './nextTry.ts';
export { judgeProof, type Proof, proofKey, type ProofReading, proofsOf, proofWords } from './proofs.ts';
