export { compareMethods, listMethods } from './compare.ts';
export { inTheEnd, weighed } from './order.ts';
export { type Planned, plannedInput, plannedSchema, planWay } from './planned.ts';
export {
  compareInput,
  compareOutput,
  type CompareInput,
  type Comparison,
  EVEN,
  methodsInput,
  methodsOutput,
  type Row,
  type Spread,
  type Weights,
  weightsSchema,
} from './forms.ts';
