<script lang="ts">
  import TopBar from '../../ui/TopBar.svelte'
  import { route } from '../../router'
  import Board from './Board.svelte'
  import { BoardState } from '../../domain/board.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { lastSeen } from '../../domain/visits'

  const board = $derived(new BoardState((route.params as { id: string }).id))
  /** What was seen on the last visit counts here as it does on the visit. */
  let last = $state.raw<Awaited<ReturnType<typeof lastSeen>> | undefined>()
  $effect(() => {
    const [id, units] = [board.id, preferences.units]
    last = undefined // another system's, or in other units
    void lastSeen(id, units).then((found) => {
      if (id === board.id && units === preferences.units) last = found
    })
  })
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
  <Board {board} seen={last?.seen} when={last?.when} />
</div>
