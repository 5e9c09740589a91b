/** What the name of a net says: that it is the common return, its volts. */

/** Names of nets that are the common return. */
const GROUND = /^(gnd|vss|agnd|pgnd|dgnd|ground|0v|masse)\d*$/i;
export const isGroundNet = (net: string): boolean => GROUND.test(net);

/** Volts of a rail by how it is called: "3.3 V", "3V3", "12V harness". */
export function voltsOf(rail: string): number | null {
  const split = /(?:^|[^\w.])\+?(\d{1,3})V(\d)(?!\d)/i.exec(rail);
  if (split) return Number(`${split[1]}.${split[2]}`);
  const plain = /(?:^|[^\w.])\+?(\d{1,3}(?:[.,]\d+)?)\s?V(?![a-z])/i.exec(rail);
  return plain ? Number(plain[1].replace(',', '.')) : null;
}
