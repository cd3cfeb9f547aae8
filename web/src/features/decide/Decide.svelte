<script lang="ts">
  import TopBar from '../../ui/TopBar.svelte'
  import { route } from '../../router'
  import Board from './Board.svelte'
  import { BoardState } from '../../domain/board.svelte'

  const board = $derived(new BoardState((route.params as { id: string }).id))
</script>

<svelte:head><title>{board.system?.name ?? 'Decide'} · Zero Dip</title></svelte:head>
<div class="flex min-h-dvh flex-col lg:h-dvh">
  <TopBar onunits={(units) => board.setUnits(units)}>
    {#snippet crumbs()}
      {#if board.system}
        {board.system.site.name} ›
        <a class="font-bold underline-offset-4 hover:underline" href="/systems/{board.id}"
          >{board.system.name}</a
        >
      {/if}
    {/snippet}
  </TopBar>
  <Board {board} />
</div>
