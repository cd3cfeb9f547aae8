<script lang="ts">
  import type { Fault } from '../api/client'

  /** The faults of one field. */
  let { faults, path }: { faults: Fault[]; path: string } = $props()
</script>

{#each faults.filter((fault) => fault.path === path) as fault (fault.message)}
  <p class="text-sm text-error">{fault.message}</p>
{/each}
