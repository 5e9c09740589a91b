/** Power packages with a soldered tab: legs at the bottom, tab on top. */
import { choice, count, defineFamily, mm } from '../family.ts';
import type { PackageShape, Terminal } from '../packageModel.ts';
import { mouldCapacity, onLand, underBody } from './figures.ts';

export const tabbed = defineFamily({
  id: 'tabbed',
  title: 'Tab and legs soldered flat (DPAK, D2PAK, SOT-223, SOT-89)',
  params: {
    legs: count('Places for legs', 3, 2, 9),
    centre: choice('Middle leg', ['cut', 'there'], 'cut'),
    pitch: mm('Pitch', 2.28, 0.5, 6),
    l: mm('Body width', 6.6, 1, 25),
    w: mm('Body length', 6.1, 1, 25),
    h: mm('Height', 2.3, 0.5, 8),
    legWidth: mm('Leg width', 0.8, 0.2, 3),
    reach: mm('Legs reach out', 2.4, 0.2, 8),
    tabOut: mm('Tab reaches out', 1.2, 0, 6),
    beyond: mm('Lands go beyond the metal', 0, 0, 2),
    tabW: mm('Tab land width', 5.6, 0.5, 25),
    tabH: mm('Tab land length', 6, 0.5, 25),
  },
  build(p, f): PackageShape {
    const legY = p.w / 2 + p.reach / 2;
    const middle = p.centre === 'cut' ? (p.legs + 1) / 2 : 0;
    const land = { w: p.legWidth * 1.4, h: p.reach * 0.9 };
    const legs = Array.from({ length: p.legs }, (_, n) => n + 1)
      .filter((n) => n !== middle)
      .map((n): Terminal => {
        const x = (n - (p.legs + 1) / 2) * p.pitch;
        return {
          id: String(n),
          kind: 'leg',
          lead: { x, y: legY, w: p.legWidth, h: p.reach },
          land: { x, y: legY + p.reach * 0.15 + p.beyond * 0.4, ...land },
          volume_mm3: onLand(land),
          G_W_K: f.G ?? 0.015 * p.legWidth,
          C_add_J_K: f.C_add ?? p.legWidth * 0.45 * p.reach * 3.4e-3 * 0.5,
        };
      });
    const area = p.tabW * p.tabH;
    return {
      shape: 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: 0.05 },
      texture: 'mould',
      polarity: 'pin1',
      C_J_K: f.C ?? mouldCapacity(p.l, p.w, p.h),
      limit: 'ic',
      terminals: [
        ...legs,
        {
          id: 'TAB',
          kind: 'tab',
          ...(p.tabOut > 0 ? { lead: { x: 0, y: -p.w / 2 - p.tabOut / 2, w: p.tabW * 0.9, h: p.tabOut } } : {}),
          land: { x: 0, y: -p.w / 2 - p.tabOut - p.beyond + p.tabH / 2, w: p.tabW, h: p.tabH },
          volume_mm3: underBody({ w: p.tabW, h: p.tabH }),
          G_W_K: f.pad?.G ?? 0.009 * area,
          C_add_J_K: f.pad?.C ?? area * 0.5 * 3.4e-3,
        },
      ],
    };
  },
});
