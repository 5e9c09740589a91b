<script lang="ts">
  // A figure by dragging or arrow keys.
  import { Slider } from 'bits-ui';

  interface Props {
    value: number;
    /** Once it is let go. */
    onchange?: (value: number) => void;
    min?: number;
    max?: number;
    step?: number;
    'aria-label': string;
    class?: string;
  }
  let { value = $bindable(), onchange, min = 0, max = 100, step = 1, class: size = '', ...named }: Props = $props();
</script>

<Slider.Root
  type="single"
  class="relative flex h-10 touch-none items-center {size}"
  {min}
  {max}
  {step}
  bind:value
  onValueCommit={(next) => onchange?.(next)}
>
  <span class="relative h-1 w-full bg-line"><Slider.Range class="absolute h-full bg-evidence" /></span>
  <Slider.Thumb
    index={0}
    aria-label={named['aria-label']}
    class="block h-5 w-2.5 cursor-ew-resize rounded-sm border border-sheet bg-evidence"
  />
</Slider.Root>
