<script lang="ts">
  // A form that is posted: busy on its way, what is wrong said at its fields, and asked about before it is left unsaved.
  import { enhance } from '$app/forms';
  import type { ActionResult } from '@sveltejs/kit';
  import type { Snippet } from 'svelte';
  import { type Answer, tellFields } from './form';
  import { guarded, markSaved, markTyped } from './unsaved.svelte';

  interface Props {
    /** The page's answer to the last post. */
    answer: Answer | null | undefined;
    action?: string;
    /** Where a page has several: whose answer is meant. */
    id?: string;
    class?: string;
    'aria-label'?: string;
    ondone?: (result: ActionResult) => void;
    children: Snippet<[{ busy: boolean; saved: boolean }]>;
  }
  let { answer, id, ondone, children, ...form }: Props = $props();
  let busy = $state(false);
  const mine = $derived(answer && (id === undefined || answer.id === id) ? answer : undefined);

  tellFields({
    value: (name, start = '') => String(mine?.values?.[name] ?? start),
    issue: (name) => mine?.issues?.[name],
  });
</script>

<form
  method="POST"
  {...form}
  {@attach guarded}
  use:enhance={({ formElement }) => {
    busy = true;
    // on its way, it may lead to another page
    markSaved(formElement);
    return async ({ result, update }) => {
      await update({ reset: false });
      busy = false;
      // refused: it is still to be saved
      if (result.type === 'failure' || result.type === 'error') markTyped(formElement);
      ondone?.(result);
    };
  }}
>
  {@render children({ busy, saved: mine?.saved === true })}
</form>
