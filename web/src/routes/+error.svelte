<script lang="ts">
  import { page } from '$app/state';
</script>

<div class="p-10">
  <h1 class="text-2xl">{page.status === 404 ? 'Not here' : 'That did not work'}</h1>
  <p class="mt-2 mb-6 max-w-prose text-ink2">{page.error?.message}</p>
  <a class="button" href="/jobs">Back to the jobs</a>
</div>
