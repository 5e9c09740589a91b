/** What the dials of a tool say: every set-point that a person reads or turns is in the tool's own numbers. */
import { z } from 'zod';
import { formatTemperature, toCelsius, type UnitSettings } from '../ground/index.ts';

/** Flow of an unmarked dial at full scale: log-normal, its median, L/min, and what 19 of 20 stay within, as a factor (estimate over hot-air stations). */
export const UNMARKED_DIAL = { full_L_min: 60, within: 2 } as const;

const rising = (list: readonly number[]) => list.every((v, i) => i === 0 || v > list[i - 1]);

/** A temperature dial: so many K beside what it sets, or numbers of its own, each with what it sets, °C. */
const heatDialSchema = z.union([
  z.strictObject({ offset_K: z.number().min(-150).max(150) }),
  z.strictObject({
    table: z
      .array(z.tuple([z.number().min(0).max(1000), z.number().min(20).max(600)]))
      .min(2)
      .max(20)
      .refine((rows) => rising(rows.map(([n]) => n)) && rising(rows.map(([, C]) => C)), {
        error: 'numbers and degrees both from low to high',
      }),
  }),
]);
export type HeatDial = z.infer<typeof heatDialSchema>;

/** Tools whose temperature is dialled. */
const DIALLED = ['air', 'iron', 'iron2', 'tweezers', 'vacuum'] as const;
export type Dialled = (typeof DIALLED)[number];

/** The dials of a station and its irons; what is not said is in °C and L/min. */
export const dialsShape = {
  /** The air dial bears no L/min: in percent of a full scale, L/min, or of one that nobody knows. */
  air: z.union([z.literal('unmarked'), z.number().min(5).max(300)]).optional(),
  dials: z.partialRecord(z.enum(DIALLED), heatDialSchema).optional(),
};
export type Dials = z.infer<z.ZodObject<typeof dialsShape>>;

/** What numbers are shown in: the user's units, and the dials at hand. */
export type Panel = UnitSettings & Dials;

/** Flow of a dial in percent at its end, L/min; undefined where it bears L/min itself. */
export const fullScale = ({ air }: Pick<Dials, 'air'>): number | undefined =>
  air === 'unmarked' ? UNMARKED_DIAL.full_L_min : air;

/** An air flow as the station's dial says it: in L/min, or in percent of a dial that bears none. */
export function dialOf(flow_L_min: number, dials: Pick<Dials, 'air'>): { value: number; unit: 'L/min' | '%' } {
  const full = fullScale(dials);
  if (full === undefined) return { value: flow_L_min, unit: 'L/min' };
  return { value: Math.round((100 * flow_L_min) / full), unit: '%' };
}

/** An air flow as it is read off: "45 L/min", "dial at 75 %". */
export function flowText(flow_L_min: number, dials: Pick<Dials, 'air'>): string {
  const { value, unit } = dialOf(flow_L_min, dials);
  return unit === '%' ? `dial at ${value} %` : `${value} ${unit}`;
}

/** The flow that a dial set to a value gives, L/min. */
export const flowAt = (value: number, dials: Pick<Dials, 'air'>): number => (value * (fullScale(dials) ?? 100)) / 100;

/** Along a table from one column to the other, straight between its rows and on beyond its ends. */
function along(rows: readonly (readonly [number, number])[], x: number): number {
  const above = rows.findIndex(([from], i) => i > 0 && from >= x);
  const i = above < 0 ? rows.length - 1 : above;
  const [[x0, y0], [x1, y1]] = [rows[i - 1], rows[i]];
  return y0 + ((x - x0) * (y1 - y0)) / (x1 - x0);
}

const dialled = (tool: Dialled | undefined, { dials }: Dials): HeatDial | undefined => tool && dials?.[tool];

/** A temperature as a tool's dial says it, with its unit; without a dial of its own in the user's degrees. */
export function heatOnDial(C: number, tool: Dialled | undefined, panel: Panel): { value: number; unit: string } {
  const dial = dialled(tool, panel);
  if (dial && 'table' in dial) {
    const turned = dial.table.map(([n, set]) => [set, n] as const);
    return { value: Math.round(10 * along(turned, C)) / 10, unit: 'of its dial' };
  }
  const [value, unit] = formatTemperature(C + (dial?.offset_K ?? 0), panel).split(' ');
  return { value: Number(value), unit };
}

/** The temperature that a dial set to a value gives, °C. */
export function heatAt(value: number, tool: Dialled | undefined, panel: Panel): number {
  const dial = dialled(tool, panel);
  if (dial && 'table' in dial) return along(dial.table, value);
  return toCelsius(value, panel) - (dial?.offset_K ?? 0);
}

/** What a tool is set to, as hands read it: "390 °C", "734 °F", "dial 6.5". */
export function setText(C: number, tool: Dialled, panel: Panel): string {
  const { value, unit } = heatOnDial(C, tool, panel);
  return unit.startsWith('°') ? `${value} ${unit}` : `dial ${value}`;
}

const ROW = /^(\d+(?:[.,]\d+)?)\s*=\s*(\d+(?:[.,]\d+)?)$/;
const number = (text: string) => Number(text.replace(',', '.'));

/** A dial as it is typed: "+10" or "-10", K beside the truth, "1=200 5=350 10=480", or nothing for one that tells the truth. Null where it cannot be read. */
export function readHeatDial(text: string): HeatDial | undefined | null {
  const typed = text.trim().replace(/^−/, '-');
  if (typed === '') return undefined;
  const parts = typed
    .replaceAll(/\s*=\s*/g, '=')
    .split(/[\s;]+/)
    .filter(Boolean);
  const rows = parts.map((p) => ROW.exec(p));
  const dial = /^[+-]?\d+(?:[.,]\d+)?$/.test(typed)
    ? { offset_K: number(typed) }
    : { table: rows.map((r) => (r ? [number(r[1]), number(r[2])] : [NaN, NaN])) };
  const read = heatDialSchema.safeParse(dial);
  if (!read.success) return null;
  return 'offset_K' in read.data && read.data.offset_K === 0 ? undefined : read.data;
}

/** A dial as it is typed. */
export function writeHeatDial(dial: HeatDial | undefined): string {
  if (!dial) return '';
  if ('table' in dial) return dial.table.map(([n, C]) => `${n}=${C}`).join(' ');
  return `${dial.offset_K > 0 ? '+' : ''}${dial.offset_K}`;
}
