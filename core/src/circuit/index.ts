export { circuitReadingSchema, looseNets, readCircuit, solveCircuit, type CircuitReading } from './circuitSolve.ts';
export { beyondMeter, METER_TYPES, isPowered, OHM_RANGES, rangeOf, type MeterType } from './meters.ts';
export {
  circuitPartSchema,
  faultSchema,
  KIND_PINS,
  NetlistError,
  netlistSchema,
  netsOf,
  statesOf,
  type CircuitPart,
  type Fault,
  type Netlist,
  type Block,
  type PartOf,
} from './netlist.ts';
export { circuitPartFrom, groundOf, tidied, withinNets, withTemplate, writtenValue } from './fromBoard.ts';
export { boardPartOf, netAt, placeOn, placesOfNet, probePoints } from './onBoard.ts';
export { templateById, TEMPLATES, type Template } from './templates.ts';
export { circuitOfRail } from './railCircuit.ts';
export { agrees, asClass, BLOCK_FIGURE, BLOCK_NAMES, rolesOf, worksAs } from './becomes.ts';
export { withTyped } from './typedParts.ts';
export { DIODE_MODELS } from './junction.ts';
export { STARTED_S, startState, suppliedAt, supplyShows } from './supplyShows.ts';
