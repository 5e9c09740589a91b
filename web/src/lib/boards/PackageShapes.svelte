<script lang="ts" module>
  import { blankBoard } from '@orthos/core/board';
  import { extentOf, packageById } from '@orthos/core/packages';
  import { boardScene } from '@orthos/core/scene';

  /** Room that a package and its lands take, mm. */
  export const roomOf = (id: string) => extentOf(packageById(id));

  const FILL: Record<string, string> = {
    land: 'var(--copper)',
    lead: 'var(--lead)',
    mould: 'var(--part)',
    ceramic: 'var(--part)',
    metal: 'var(--metal)',
    plastic: 'var(--plastic)',
    glass: 'var(--sheet)',
    mark: 'var(--drawn)',
  };
</script>

<script lang="ts">
  // Lands, leads and body of a package inside a drawing that is in millimetres.
  interface Props {
    id: string;
    /** Width of its lines, mm. */
    line: number;
  }
  let { id, line }: Props = $props();
  const shapes = $derived(
    boardScene(
      {
        ...blankBoard('one', 1, 1, 1, 1.6),
        parts: [{ partId: 'p', ref: ' ', package: id, x_mm: 0, y_mm: 0, rotation_deg: 0, side: 'top' }],
      },
      'top',
    ).shapes.filter((s) => s.partId),
  );
</script>

{#each shapes as s, i (i)}
  {#if s.r !== undefined}
    <circle
      cx={s.points[0][0]}
      cy={s.points[0][1]}
      r={s.r}
      fill={FILL[s.style]}
      stroke="var(--drawn)"
      stroke-width={line}
      fill-opacity="0.85"
    />
  {:else}
    <polygon
      points={s.points.map((p) => p.join(',')).join(' ')}
      fill={FILL[s.style]}
      fill-opacity={s.style === 'land' ? 1 : 0.85}
      stroke={s.style === 'land' || s.style === 'mark' ? 'none' : 'var(--drawn)'}
      stroke-width={line}
    />
  {/if}
{/each}
