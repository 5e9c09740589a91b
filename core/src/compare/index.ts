export { compareMethods, inTheEnd, listMethods } from './compare.ts';
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
