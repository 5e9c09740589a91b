/** A circuit of 60 nodes and 120 parts made of templates side by side, for the dictionary's yardstick. */
import { netlistSchema, type Netlist } from '../src/circuit/netlist.ts';
import { TEMPLATES } from '../src/circuit/templates.ts';

/** 60 nets, 120 parts, one supply. */
export function bigCircuit(): Netlist {
  const used = ['feed', 'buck', 'ldo', 'can', 'sensor', 'data-pair', 'relay'];
  // outputs feed the next circuit's input
  const joined: Record<string, string> = {
    'feed.VBAT': 'VBAT',
    'feed.V12': 'V12',
    'buck.VIN': 'V12',
    'buck.3V3': '3V3',
    'relay.12V': 'V12',
    'ldo.5V': '5V',
    'can.5V': '5V',
    'sensor.5V': '5V',
    'relay.5V': '5V',
    'data-pair.VBUS': '5V',
  };
  const parts: unknown[] = [];
  for (const id of used) {
    const t = TEMPLATES.find((x) => x.id === id);
    if (!t) throw new Error(id);
    for (const part of t.netlist.parts) {
      const pins = Object.fromEntries(
        Object.entries(part.pins).map(([pin, net]) => [
          pin,
          net === 'GND' ? 'GND' : (joined[`${id}.${net}`] ?? `${id}.${net}`),
        ]),
      );
      if (part.kind !== 'J') parts.push({ ...part, ref: `${id}.${part.ref}`, pins });
    }
  }
  parts.push({ kind: 'R', ref: 'link', pins: { 1: 'V12', 2: '5V' }, value: 47 });
  parts.push({ kind: 'Z', ref: 'link clamp', pins: { A: 'GND', K: '5V' }, bv: 5.1, model: 'si' });
  const nets = () => new Set(parts.flatMap((p) => Object.values((p as { pins: Record<string, string> }).pins))).size;
  for (let i = 0; nets() < 61; i++)
    parts.push({ kind: 'R', ref: `chain ${i}`, pins: { 1: i === 0 ? '3V3' : `N${i - 1}`, 2: `N${i}` }, value: 1000 });
  for (let i = 0; parts.length < 120; i++)
    parts.push({ kind: 'C', ref: `fill ${i}`, pins: { 1: ['V12', '3V3', '5V'][i % 3], 2: 'GND' }, value: 1e-7 });
  return netlistSchema.parse({
    ground: 'GND',
    parts: parts.slice(0, 120),
    power: { states: { awake: { sources: [{ p: 'VBAT', v: 12, ilim: 1.5 }] } } },
  });
}
