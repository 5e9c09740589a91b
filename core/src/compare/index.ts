export { compareMethods, listMethods } from './compare.ts';
export { EVEN, inTheEnd, weighed } from './order.ts';
export { type Free, freeOn } from './free.ts';
export {
  searchInput,
  searchOutput,
  searchSettings,
  type Tuned,
  tuneInput,
  tuneOutput,
  tuneSettings,
} from './search.ts';
export { type Planned, plannedInput, plannedSchema, planWay } from './planned.ts';
export {
  compareInput,
  compareOutput,
  type CompareInput,
  type Comparison,
  methodsInput,
  methodsOutput,
  type Row,
  type Spread,
  type Weights,
  weightsSchema,
} from './forms.ts';
