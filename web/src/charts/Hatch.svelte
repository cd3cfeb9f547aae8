<script lang="ts">
  /** The hatch of what must not be: a dip, or no window. */
  let { id }: { id: string } = $props()
</script>

<pattern {id} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
  <rect width="8" height="8" fill="var(--zd-dip)" />
  <path d="M0 0v8" stroke="var(--color-error)" stroke-width="3" />
</pattern>
