/** Which pins of a part speak of a function of the device, by the names of their nets. */
import { isGroundNet } from '../board/index.ts';

export interface NamedPin {
  terminal: string;
  net?: string;
}

/** Words of functions and of nets that speak of the same. */
const SPEAK: [RegExp, RegExp][] = [
  [
    /start|switch|wake|dead|charg|standby|starts|power/i,
    /^(v(dd|cc|in|bat|bus|sys)|en(able)?|pwr|on|wake|\+?\d+v\d*)/i,
  ],
  [/output voltage|voltage|limit/i, /(fb|sense|vout|vo\b|comp|out)/i],
  [/bus|data|link|network|radio|port|program/i, /(sda|scl|can|lin|tx|rx|d[+-]|dp|dm|mosi|miso|sck|clk|bus|ant)/i],
  [/backlight|display|picture|lamp/i, /(bl|led|lcd|disp|com\d|seg)/i],
  [/run|motor|forward|backward|brake|actuator|relay|output/i, /(out|mot|ph|gate|hs|ls|rel|drv)/i],
  [/sensor|current|temperature|reads/i, /(sens|ntc|temp|cs|shunt|adc|ain|hall)/i],
  [/button|key|touch|input/i, /(key|btn|sw|col|row|in\d)/i],
  [/sound|channel|headphone|microphone|audio/i, /(spk|aud|hp|mic|out_?[lr]|in_?[lr])/i],
  [/clock|time|memory|stored|position/i, /(osc|xt|x(in|out)|bat|sda|scl|cs|so|si)/i],
];

/** Pins whose net speaks of a function. */
export function pinsOf(fn: string | undefined, pins: readonly NamedPin[]): { terminal: string; net: string }[] {
  const named = pins.flatMap(({ terminal, net }) => (net === undefined ? [] : [{ terminal, net }]));
  const nets = SPEAK.filter(([f]) => fn !== undefined && f.test(fn)).map(([, n]) => n);
  const words = (fn ?? '')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((w) => w.length > 2);
  return named.filter(({ net }) => nets.some((n) => n.test(net)) || words.some((w) => net.toLowerCase().includes(w)));
}

/** Pins to look at first: those whose net speaks of what does not work; else supplies and ground. */
export function pinsFor(fn: string | undefined, pins: readonly NamedPin[]): { terminal: string; net: string }[] {
  const spoken = pinsOf(fn, pins);
  if (spoken.length > 0) return spoken;
  return pins.flatMap(({ terminal, net }) =>
    net !== undefined && (isGroundNet(net) || SPEAK[0][1].test(net)) ? [{ terminal, net }] : [],
  );
}
