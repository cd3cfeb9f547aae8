<script lang="ts">
  import FieldRow from '../../ui/FieldRow.svelte'
  import { fieldOf } from '../../domain/fields'
  import type { BoardState } from '../../domain/board.svelte'
  import { optionWords, type PlateKind, type Row } from '../../domain/plates'
  import { preferences } from '../../domain/preferences.svelte'
  import PartBox from './PartBox.svelte'
  import PartList from './PartList.svelte'
  import Practice from './Practice.svelte'
  import PumpModel from './PumpModel.svelte'

  let {
    plate,
    board,
    focus = '',
    onclose,
  }: { plate: PlateKind; board: BoardState; focus?: string; onclose: () => void } = $props()
  let dialog: HTMLDialogElement

  $effect(() => {
    dialog.showModal()
    const id = 'field-' + focus.replaceAll('.', '-')
    if (focus) document.getElementById(id)?.focus()
  })
  const faults = $derived(board.faultsUnder(...plate.under))
</script>

{#snippet row(at: Row)}
  {@const field = fieldOf(at.owner, at.name)}
  <FieldRow
    {field}
    path={at.path}
    value={board.value(at.path)}
    entered={board.entered(at.path)}
    faults={board.faultsAt(at.path)}
    options={optionWords(at.name, preferences.units)}
    ontype={(text) => board.type(at.path, text, field.dimension)}
    onput={(value) => board.put(at.path, value)}
    usual={board.usualUnder(at.path) > 0}
    onconfirm={() => board.confirm(at.path)}
  />
{/snippet}

<dialog
  bind:this={dialog}
  class="modal max-sm:modal-bottom"
  aria-labelledby="plate-title"
  {onclose}
>
  <div class="modal-box max-h-[92dvh]">
    <h2 id="plate-title" class="mb-3 text-lg font-bold">{plate.title}</h2>
    <div class="grid gap-4">
      {#each plate.sections(board.file!) as section, at (at)}
        {#if section.kind === 'rows'}
          {#each section.rows as line (line.path)}{@render row(line)}{/each}
        {:else if section.kind === 'list'}
          <PartList {board} {section} {row} />
        {:else if section.kind === 'part'}
          <PartBox {board} {section} {row} />
        {:else if section.kind === 'pump'}
          <PumpModel {board} />
        {:else}
          <Practice {board} {row} names={section.names} />
        {/if}
      {/each}
    </div>
    <form
      method="dialog"
      class="sticky -bottom-6 z-10 -mb-6 mt-5 border-t border-base-300 flex items-center justify-end gap-3 bg-base-100 py-2"
    >
      {#if faults.length}<p class="text-sm text-error">
          {faults.length} to correct; nothing is lost meanwhile.
        </p>{/if}
      <button class="btn btn-lg btn-primary">Done</button>
    </form>
  </div>
  <form method="dialog" class="modal-backdrop"><button aria-label="Close"></button></form>
</dialog>
