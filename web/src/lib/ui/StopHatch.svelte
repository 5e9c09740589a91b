<script lang="ts">
  // the id must be the page's own: two SVGs may carry the pattern at once
  let { id }: { id: string } = $props();
</script>

<defs>
  <pattern {id} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <line x1="0" x2="0" y1="0" y2="7" stroke="var(--stop)" stroke-width="1.6" />
  </pattern>
</defs>
