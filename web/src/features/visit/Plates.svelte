<script lang="ts">
  import { kindOf, platesFor, type PlateKind } from '../../domain/plates'
  import { BoardState } from '../../domain/board.svelte'
  import PlateButton from '../decide/PlateButton.svelte'
  import PlateEditor from '../decide/PlateEditor.svelte'

  /** The plates to read on site, kept as each is left. Settings changed on the way lie on the table until Decide. */
  let { system, onkept }: { system: string; onkept?: () => void } = $props()
  const board = $derived(new BoardState(system))
  let open = $state<PlateKind | undefined>()
  async function close() {
    open = undefined
    await board.keepPlates()
    onkept?.()
  }
  $effect(() => {
    void board.load()
  })
</script>

{#if board.file}
  <div class="grid grid-cols-2 gap-2 sm:grid-cols-3">
    {#each platesFor(kindOf(board.file)) as plate (plate.id)}
      <PlateButton {plate} {board} onopen={() => (open = plate)} />
    {/each}
  </div>
  {#if board.dirty}
    <p role="status" class="text-sm">
      {board.faults[0]?.message ??
        'Changed settings are on this phone only, until you save them in Decide.'}
    </p>
  {/if}
  {#if open}<PlateEditor plate={open} {board} onclose={close} />{/if}
{/if}
