<script lang="ts">
  import FieldRow from '../../lib/controls/FieldRow.svelte'
  import { fieldOf } from '../../lib/fields'
  import type { DecideState } from './decide.svelte'
  import { OPTION_WORDS, type PlateKind, type Row } from '../../lib/plates'
  import PartBox from './PartBox.svelte'
  import PartList from './PartList.svelte'
  import Practice from './Practice.svelte'
  import PumpModel from './PumpModel.svelte'

  let {
    plate,
    table,
    focus = '',
    onclose,
  }: { plate: PlateKind; table: DecideState; focus?: string; onclose: () => void } = $props()
  let dialog: HTMLDialogElement

  $effect(() => {
    dialog.showModal()
    const id = 'field-' + focus.replaceAll('.', '-')
    if (focus) document.getElementById(id)?.focus()
  })
  const faults = $derived(table.faultsUnder(...plate.under))
</script>

{#snippet row(at: Row)}
  {@const field = fieldOf(at.owner, at.name)}
  <FieldRow
    {field}
    path={at.path}
    text={table.shown(at.path, field.dimension)}
    value={table.value(at.path)}
    faults={table.faultsAt(at.path)}
    options={OPTION_WORDS}
    ontype={(text) => table.type(at.path, text, field.dimension)}
    onput={(value) => table.put(at.path, value)}
  />
{/snippet}

<dialog bind:this={dialog} class="modal max-sm:modal-bottom" aria-labelledby="plate-title" {onclose}>
  <div class="modal-box max-h-[92dvh]">
    <h2 id="plate-title" class="mb-3 text-lg font-bold">{plate.title}</h2>
    <div class="grid gap-4">
      {#each plate.sections(table.file!) as section, at (at)}
        {#if section.kind === 'rows'}
          {#each section.rows as line (line.path)}{@render row(line)}{/each}
        {:else if section.kind === 'list'}
          <PartList {table} {section} {row} />
        {:else if section.kind === 'part'}
          <PartBox {table} {section} {row} />
        {:else if section.kind === 'pump'}
          <PumpModel {table} />
        {:else}
          <Practice {table} {row} names={section.names} />
        {/if}
      {/each}
    </div>
    <form
      method="dialog"
      class="sticky -bottom-6 z-10 -mb-6 mt-5 border-t border-base-300 flex items-center justify-end gap-3 bg-base-100 py-2"
    >
      {#if faults.length}<p class="text-sm text-error">{faults.length} to correct; nothing is lost meanwhile.</p>{/if}
      <button class="btn btn-lg btn-primary">Done</button>
    </form>
  </div>
  <form method="dialog" class="modal-backdrop"><button aria-label="Close"></button></form>
</dialog>
