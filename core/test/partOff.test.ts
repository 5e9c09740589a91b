// The part that comes off: held clear until its solder has frozen, into a named place, with what it went through.
import { describe, expect, it } from 'vitest';
import { keptFor, operationFor } from '../src/hands/index.ts';
import type { Work } from '../src/hands/work.ts';
import { expressBoard, methodsFor, partOffSchema } from '../src/rework/index.ts';

function workOn(packageId: string, id: string, more: Partial<Work> = {}): Work {
  const board = expressBoard({ package: packageId, boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
  const target = board.parts.find((p) => p.partId === 'target');
  const method = methodsFor(packageId).find((m) => m.method.id === id)?.method;
  if (!target || !method) throw new Error(`no ${id}`);
  return { board, target, method, guide: null, nearest: null, panel: { temperature: 'C', length: 'mm' }, ...more };
}
const putAway = (work: Work) => {
  const list = operationFor('remove', work);
  const at = list.findIndex((i) => i.id === 'put-away');
  return { ...list[at], before: list[at - 1], after: list.at(at + 1) };
};

describe('the part that comes off', () => {
  it('goes into its named place once the tools are away, before anything is counted', () => {
    const it_ = putAway(workOn('SOIC-8', 'air-slow', { place: 'tray No. 7 U2' }));
    expect(it_.say).toBe('Hold it clear until dull. Then into tray No. 7 U2.');
    expect(it_.before.mark).toBe('heat-off');
    expect(it_.after?.id).toBe('count');
    expect(putAway(workOn('SOIC-8', 'air-slow')).say).toContain('its own marked tray');
  });

  it('tells what is on its legs and when that is solid: low-melt alloy stays liquid long after it looks cold', () => {
    const air = putAway(workOn('SOIC-8', 'air-slow'));
    expect(air.watch).toContain('Liquid down to 217 °C');
    const bead = putAway(workOn('SOIC-8', 'bead'));
    expect(bead.watch).toContain('Liquid down to 96 °C');
    expect(bead.event).toMatchObject({ legs: [expect.stringContaining('Sn'), expect.stringContaining('Bi52.5')] });
    const spiked = putAway(
      workOn('SOIC-8', 'air-slow', { joints: [{ with: [{ alloy: { Sn: 63, Pb: 37 }, ratio: 1 }] }] }),
    );
    expect(spiked.event).toMatchObject({ legs: [expect.anything(), 'Sn63Pb37'] });
  });

  it('is scrap where its way off breaks it, lives where it goes on again, and is tested else', () => {
    const of = (id: string, reused?: boolean) => {
      const { method } = workOn('SOIC-8', id);
      return keptFor({ method, surroundings: reused ? { reused } : {} });
    };
    expect(of('cut-legs')).toBe('scrap');
    expect(of('cut-legs', true)).toBe('scrap');
    expect(of('air-slow')).toBe('to be tested');
    expect(of('air-slow', true)).toBe('must live');
    expect(putAway(workOn('SOIC-8', 'cut-legs')).say).toBe('The part goes into the scrap.');
  });

  it('carries how hot it got, in the form the log takes', () => {
    const { event } = putAway(workOn('SOIC-8', 'bead', { place: 'tray', heat: { peak_C: 171, dose: 0.02 } }));
    expect(partOffSchema.parse(event)).toMatchObject({ partId: 'target', heat: { peak_C: 171, dose: 0.02 } });
  });
});
