/** Every public computation: core's and the file formats'. All hosts (workers, threads, command line, HTTP) use this. */
import { CALCS as CORE_CALCS, createRegistry } from '@orthos/core/calc';
import type { Calc } from '@orthos/core/ground';
import { boardImportCalc } from './boardCalc.ts';
import { coverCalc, foilCalc } from './foilCalc.ts';

// each entry checks its own input at run time, so the list may forget the types
export const { CALCS, runCalc } = createRegistry([
  ...CORE_CALCS.values(),
  boardImportCalc as unknown as Calc,
  foilCalc as unknown as Calc,
  coverCalc as unknown as Calc,
]);
