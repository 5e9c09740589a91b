/** Writes photoplot and drill files, for tests. Board frame in (y down), file frame out (y up). */
const c = (v: number) => String(Math.round(v * 1e6));
const xy = (x: number, y: number) => `X${c(x)}Y${c(-y)}`;

export interface PlotPad {
  x: number;
  y: number;
  w: number;
  h: number;
  shape?: 'C' | 'R' | 'O';
  ref?: string;
  pin?: string;
  net?: string;
  through?: boolean;
}

export interface Plot {
  function: string;
  pads?: PlotPad[];
  tracks?: { w: number; points: [number, number][]; net?: string }[];
  regions?: { points: [number, number][]; net?: string; clear?: boolean }[];
  more?: string;
}

export function gerberText(p: Plot): string {
  const lines = [`%TF.FileFunction,${p.function}*%`, '%FSLAX46Y46*%', '%MOMM*%', 'G75*', 'G01*'];
  let code = 10;
  for (const r of p.regions ?? []) {
    if (r.net) lines.push(`%TO.N,${r.net}*%`);
    if (r.clear) lines.push('%LPC*%');
    const [first, ...rest] = r.points;
    lines.push('G36*', `${xy(...first)}D02*`, ...rest.map((q) => `${xy(...q)}D01*`), `${xy(...first)}D01*`, 'G37*');
    if (r.clear) lines.push('%LPD*%');
    lines.push('%TD*%');
  }
  for (const t of p.tracks ?? []) {
    lines.push(`%ADD${code}C,${t.w}*%`, `D${code}*`);
    code++;
    if (t.net) lines.push(`%TO.N,${t.net}*%`);
    const [first, ...rest] = t.points;
    lines.push(`${xy(...first)}D02*`, ...rest.map((q) => `${xy(...q)}D01*`), '%TD*%');
  }
  for (const pad of p.pads ?? []) {
    const sizes = pad.shape === 'C' ? `C,${pad.w}` : `${pad.shape ?? 'R'},${pad.w}X${pad.h}`;
    lines.push(
      `%TA.AperFunction,${pad.through ? 'ComponentPad' : 'SMDPad,CuDef'}*%`,
      `%ADD${code}${sizes}*%`,
      '%TD*%',
      `D${code}*`,
    );
    code++;
    if (pad.ref) lines.push(`%TO.P,${pad.ref},${pad.pin ?? '1'}*%`);
    if (pad.net) lines.push(`%TO.N,${pad.net}*%`);
    lines.push(`${xy(pad.x, pad.y)}D03*`, '%TD*%');
  }
  if (p.more) lines.push(p.more);
  lines.push('M02*');
  return `${lines.join('\n')}\n`;
}

export const drillText = (holes: { x: number; y: number; d: number }[], plated = true): string => {
  const sizes = [...new Set(holes.map((h) => h.d))];
  return [
    'M48',
    `; #@! TF.FileFunction,${plated ? 'Plated,1,2,PTH' : 'NonPlated,1,2,NPTH'}`,
    'METRIC',
    ...sizes.map((d, i) => `T${i + 1}C${d.toFixed(3)}`),
    '%',
    'G90',
    'G05',
    ...sizes.flatMap((d, i) => [
      `T${i + 1}`,
      ...holes.filter((h) => h.d === d).map((h) => `X${h.x.toFixed(3)}Y${(-h.y).toFixed(3)}`),
    ]),
    'M30',
    '',
  ].join('\n');
};

export const bytesOf = (text: string) => new TextEncoder().encode(text);
