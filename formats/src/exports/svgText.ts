/** Text and numbers as an SVG file takes them. */
export const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
/** To a thousandth. */
export const n = (v: number): string => String(Math.round(v * 1000) / 1000);
