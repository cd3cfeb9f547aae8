<script lang="ts">
  import TopBar from '../../lib/controls/TopBar.svelte'
  import { route } from '../../router'
  import Board from './Board.svelte'
  import { DecideState } from './decide.svelte'

  const table = $derived(new DecideState((route.params as { id: string }).id))
</script>

<svelte:head><title>{table.system?.name ?? 'Decide'} · Zero Dip</title></svelte:head>
<div class="flex min-h-dvh flex-col lg:h-dvh">
  <TopBar onunits={(units) => table.setUnits(units)}>
    {#snippet crumbs()}
      {#if table.system}
        {table.system.site.name} ›
        <a class="font-bold underline-offset-4 hover:underline" href="/systems/{table.id}">{table.system.name}</a>
      {/if}
    {/snippet}
  </TopBar>
  <Board {table} />
</div>
