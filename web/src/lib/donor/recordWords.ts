/** What a part brings with it from another board, line by line. */
import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
import { type PartRecord, shortSum } from '@orthos/core/job';
import { methodName } from '@orthos/core/rework';

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** `number`: of the job whose board it comes from; `cleaned`: its legs were, since. */
export function recordWords(record: PartRecord, number: number, units: UnitSettings, cleaned: boolean): string[] {
  const { donor, provenBy, times, dose, peak_C, legs, legsClean, tested, holds, copy, place, methodId } = record;
  const heat = [
    `hot ${times === 1 ? 'once' : `${times} times`}`,
    methodId && methodName(methodId).toLowerCase(),
    peak_C === null ? '' : `its body up to ${formatTemperature(peak_C, units)} by the plan`,
    dose === null ? '' : `${percent(dose)} of what it may take`,
  ].filter(Boolean);
  const held = [
    copy === null ? (holds.includes('data') ? 'no copy of its data' : '') : `copy ${shortSum(copy)}`,
    record.firmware ? `firmware ${record.firmware}` : holds.includes('firmware') ? 'firmware to load' : '',
    record.settings ?? (holds.includes('settings') ? 'settings to set again' : ''),
  ].filter(Boolean);
  return [
    `${record.name} of No. ${number}: ${donor === 'not known' ? 'nobody saw its board work' : `its board ${donor}`}${provenBy.length > 0 ? `; there worked ${provenBy.join(', ')}` : ''}`,
    times > 0 ? `Heat: ${heat.join(', ')}` : 'No heat on record',
    legs.length > 0 || legsClean !== null || cleaned
      ? `Legs: ${legs.length > 0 ? legs.join(' and ') : 'as they came off'}${legsClean === true || cleaned ? ', cleaned one by one' : ', not cleaned yet'}`
      : '',
    tested
      ? `Tested off the board: ${tested.result}${tested.recipe ? `, ${tested.recipe}` : ''}`
      : 'Not tested off the board',
    holds.length > 0 ? `Holds ${holds.join(', ')}: ${held.join('; ') || 'to be brought along'}` : '',
    place ? `Lies in ${place}` : '',
  ].filter(Boolean);
}
