export { agrees, asClass, BLOCK_FIGURE, BLOCK_NAMES, rolesOf, worksAs } from './becomes.ts';
export {
  type CircuitReading,
  circuitReadingSchema,
  circuitSolveInput,
  circuitSolveOutput,
  looseNets,
  readCircuit,
  solveCircuit,
} from './circuitSolve.ts';
export { classOf } from './classOf.ts';
export { blockPins } from './devices.ts';
export type { Stimulus } from './equations.ts';
export { circuitPartFrom, groundOf, tidied, withinNets, withTemplate, writtenValue } from './fromBoard.ts';
export { DIODE_MODELS } from './junction.ts';
export {
  beyondMeter,
  diodeStimulus,
  isPowered,
  METER_TYPES,
  type MeterType,
  OHM_RANGES,
  ohmsAt,
  ohmStimulus,
  probeNode,
  rangeOf,
  readOhms,
  voltStimulus,
} from './meters.ts';
export {
  type Block,
  type CircuitPart,
  circuitPartSchema,
  type Fault,
  faultSchema,
  KIND_PINS,
  modelNet,
  type Netlist,
  NetlistError,
  netlistSchema,
  netsOf,
  type PartOf,
  pinOf,
  statesOf,
} from './netlist.ts';
export { asChange, assemble, type Change, FAULT_OHMS, IC_FAULT_OHMS, type Network } from './network.ts';
export { boardPartOf, netAt, placeOn, placesOfNet, probePoints } from './onBoard.ts';
export { circuitOfRail } from './railCircuit.ts';
export { railsOf, sourcesOf } from './rails.ts';
export { type Base, NetworkSolver, type Solution } from './solver.ts';
export { STARTED_S, startState, suppliedAt, supplyShows } from './supplyShows.ts';
export { type Template, templateById, TEMPLATES } from './templates.ts';
export { withTyped } from './typedParts.ts';
