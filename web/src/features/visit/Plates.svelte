<script lang="ts">
  import { kindOf, platesFor, type PlateKind } from '../../lib/plates'
  import { DecideState } from '../decide/decide.svelte'
  import Plate from '../decide/Plate.svelte'
  import PlateEditor from '../decide/PlateEditor.svelte'

  /** The plates to read on site, kept as each is left. Settings changed on the way lie on the table until Decide. */
  let { system }: { system: string } = $props()
  const table = $derived(new DecideState(system))
  let open = $state<PlateKind | undefined>()
  function close() {
    open = undefined
    void table.keepPlates()
  }
  $effect(() => {
    void table.load()
  })
</script>

{#if table.file}
  <div class="grid grid-cols-2 gap-2 sm:grid-cols-3">
    {#each platesFor(kindOf(table.file)) as plate (plate.id)}
      <Plate {plate} {table} onopen={() => (open = plate)} />
    {/each}
  </div>
  {#if table.dirty}
    <p role="status" class="text-sm">
      {table.faults[0]?.message ?? 'Changed settings lie on the table, on this device, until they are kept in Decide.'}
    </p>
  {/if}
  {#if open}<PlateEditor plate={open} {table} onclose={close} />{/if}
{/if}
