<script lang="ts">
  // A package in a list: how it looks, its name, its size.
  import { packageById } from '@orthos/core/packages';
  import PackageShapes, { roomOf } from './PackageShapes.svelte';

  interface Props {
    id: string;
    /** Its name in this shop, else the library's. */
    label?: string;
  }
  let { id, label }: Props = $props();
  const pkg = $derived(packageById(id));
  const e = $derived(roomOf(id));
  const [w, h] = $derived([e.x1 - e.x0, e.y1 - e.y0]);
</script>

<svg viewBox="{e.x0} {e.y0} {w} {h}" class="h-8 w-11 shrink-0" aria-hidden="true">
  <PackageShapes {id} line={Math.max(w / 44, h / 32)} />
</svg>
<span class="min-w-0 truncate font-semibold">{label ?? pkg.label}</span>
<span class="ml-auto shrink-0 text-[13px] font-normal text-ink2"
  >{pkg.body.l} × {pkg.body.w} × {pkg.body.h}{pkg.terminals.length > 2 ? `, ${pkg.terminals.length} joints` : ''}{label
    ? ', own'
    : ''}</span
>
