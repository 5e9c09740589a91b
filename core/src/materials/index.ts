export { Exposure, exposureRecordSchema, type Harm, harmBy, judge, type Judgement, type Law, rate } from './dose.ts';
export { hole_mm3, printed_mm3, USUAL_PRINT } from './jointVolume.ts';
export {
  COPPER,
  type Laminate,
  LAMINATE,
  LAMINATE_KINDS,
  LAMINATE_SPREAD,
  LAMINATES,
  PLANE_FROM,
  planeEfficiency,
} from './laminate.ts';
export { currentLimit, flatCan, isLimit, type Mount, OLD_LIMITS } from './limitAliases.ts';
export {
  bodyClass_C,
  lawWords,
  type LimitRow,
  LIMITS,
  mouldLaw,
  type OwnLimit,
  ownLimitSchema,
  solidusLaw,
  takesNoFlux,
} from './limits.ts';
export { property, type Property } from './property.ts';
