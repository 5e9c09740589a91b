<script lang="ts">
  // A pen on a photo; strokes in fractions of its width and height.
  import type { JobState } from '@orthos/core/job';

  type Stroke = [number, number][];
  interface Props {
    photo: { id: string; width: number; height: number };
    /** Damage already marked on it. */
    before: JobState['intake']['damage'];
    strokes: Stroke[];
  }
  let { photo, before, strokes = $bindable() }: Props = $props();
  let drawing = false;

  function at(e: PointerEvent): [number, number] {
    const box = (e.currentTarget as Element).getBoundingClientRect();
    const part = (v: number, size: number) => Math.round(Math.min(1, Math.max(0, v / size)) * 1e4) / 1e4;
    return [part(e.clientX - box.left, box.width), part(e.clientY - box.top, box.height)];
  }
  function down(e: PointerEvent) {
    drawing = true;
    (e.currentTarget as Element).setPointerCapture(e.pointerId);
    strokes = [...strokes, [at(e)]];
  }
  function move(e: PointerEvent) {
    const last = strokes[strokes.length - 1];
    if (!drawing || last.length >= 400) return;
    strokes = [...strokes.slice(0, -1), [...last, at(e)]];
  }
  function up() {
    drawing = false;
    strokes = strokes.filter((s) => s.length > 1);
  }
  const line = (s: readonly (readonly [number, number])[]) =>
    s.map(([x, y]) => `${x * photo.width},${y * photo.height}`).join(' ');
  const width = $derived(photo.width / 140);
</script>

<div class="relative border border-line">
  <img class="block w-full" src="/api/photos/{photo.id}" alt="to be marked" width={photo.width} height={photo.height} />
  <svg
    class="absolute inset-0 h-full w-full cursor-crosshair touch-none"
    viewBox="0 0 {photo.width} {photo.height}"
    role="img"
    aria-label="Draw round the damage"
    onpointerdown={down}
    onpointermove={move}
    onpointerup={up}
  >
    {#each before as d (d.id)}
      {#each d.pen?.strokes ?? [] as s, i (i)}
        <polyline
          points={line(s)}
          fill="none"
          stroke={d.whose === 'ours' ? 'var(--stop)' : 'var(--sheet)'}
          stroke-width={width}
          stroke-dasharray={d.whose === 'found' ? `${width / 10} ${2 * width}` : undefined}
          stroke-linecap="round"
        />
      {/each}
    {/each}
    {#each strokes as s, i (i)}
      <polyline points={line(s)} fill="none" stroke="var(--hot)" stroke-width={width} stroke-linecap="round" />
    {/each}
  </svg>
</div>
<p class="mt-1 text-[13px] text-ink2">Draw on the photo.</p>
