<script lang="ts">
  // Cold to hot in one bar: frozen, mushy, fluid, with the temperatures that part them.
  import type { AlloyProperties } from '@orthos/core/alloys';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { scaleLinear } from 'd3';

  let { alloy, units }: { alloy: AlloyProperties; units: UnitSettings } = $props();
  const W = 560;
  const solid = $derived(Math.min(alloy.solidus_C, alloy.scheilEnd_C ?? alloy.solidus_C));
  const from = $derived(Math.min(20, solid - 20));
  const to = $derived(Math.max(alloy.trueLiquidus_C, alloy.matrixLiquidus_C) + 30);
  const x = $derived(scaleLinear([from, to], [0, W]));
  const marks = $derived(
    [
      ...(alloy.scheilEnd_C !== null && alloy.scheilEnd_C < alloy.solidus_C - 2
        ? [{ T: alloy.scheilEnd_C, name: 'last liquid' }]
        : []),
      { T: alloy.solidus_C, name: 'solidus' },
      { T: alloy.matrixLiquidus_C, name: 'can be moved' },
      ...(alloy.trueLiquidus_C > alloy.matrixLiquidus_C + 5 ? [{ T: alloy.trueLiquidus_C, name: 'last grain' }] : []),
    ].map((m, n) => ({ ...m, up: n % 2 === 0 })),
  );
  const told = $derived(marks.map((m) => `${m.name} ${formatTemperature(m.T, units)}`).join(', '));
  const anchor = (px: number) => (px > W - 70 ? 'end' : px < 70 ? 'start' : 'middle');
</script>

<svg class="w-full" viewBox="0 0 {W} 108" role="img" aria-label="From cold to hot: {told}">
  <defs>
    <pattern id="mush" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <rect width="7" height="7" fill="var(--hot-soft)" /><rect width="3" height="7" fill="var(--metal)" />
    </pattern>
  </defs>
  <rect x="0" y="42" width={x(solid)} height="26" fill="var(--metal)" />
  <rect x={x(solid)} y="42" width={Math.max(0, x(alloy.matrixLiquidus_C) - x(solid))} height="26" fill="url(#mush)" />
  <rect
    x={x(alloy.matrixLiquidus_C)}
    y="42"
    width={Math.max(0, W - x(alloy.matrixLiquidus_C))}
    height="26"
    fill="var(--hot)"
    fill-opacity="0.75"
  />
  <text x="6" y="60" class="fill-ink text-[13px] font-semibold">frozen</text>
  <text x={W - 6} y="60" text-anchor="end" class="fill-sheet text-[13px] font-semibold">fluid</text>
  {#each marks as m (m.name)}
    {@const px = x(m.T)}
    <line x1={px} x2={px} y1={m.up ? 34 : 42} y2={m.up ? 68 : 76} stroke="var(--ink)" stroke-width="1.5" />
    <text x={px} y={m.up ? 14 : 90} text-anchor={anchor(px)} class="fill-ink text-[15px] font-bold"
      >{formatTemperature(m.T, units)}</text
    >
    <text x={px} y={m.up ? 30 : 105} text-anchor={anchor(px)} class="fill-ink2 text-[12px]">{m.name}</text>
  {/each}
</svg>
