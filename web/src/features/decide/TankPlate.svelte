<script lang="ts">
  import type { Snippet } from 'svelte'
  import { withoutEntered, withValue } from '../../lib/file'
  import type { DecideState } from './decide.svelte'
  import type { Row } from '../../lib/plates'

  let { table, row }: { table: DecideState; row: Snippet<[Row]> } = $props()
  const NAMES = ['volume_m3', 'max_gauge_pa', 'acceptance_m3']
  const PATH = 'system.tanks'
  const tanks = $derived(table.value(PATH) as Record<string, unknown>[])
  const names = $derived(tanks.length > 1 ? [...NAMES, 'pre_charge_gauge_pa'] : NAMES)

  function add() {
    const last = tanks.at(-1)!
    table.put(PATH, [...tanks, { ...last, pre_charge_gauge_pa: null }])
  }
  function takeOut(index: number) {
    // What was typed for the tanks goes with the list's order; the values themselves stay.
    const rest = tanks.filter((_, at) => at !== index)
    table.change(withValue(withoutEntered(table.file!, PATH), PATH, rest))
  }
</script>

{#each tanks, index (index)}
  <fieldset class="grid gap-3 rounded-box border border-base-300 p-3">
    <legend class="px-1 text-sm font-bold">Tank {index + 1}</legend>
    {#each names as name (name)}{@render row({ owner: 'Tank', name, path: `${PATH}.${index}.${name}` })}{/each}
    {#if tanks.length > 1}
      <button type="button" class="btn min-h-12" onclick={() => takeOut(index)}>Take this tank out</button>
    {/if}
  </fieldset>
{/each}
<button type="button" class="btn min-h-12" onclick={add}>Add a tank beside it</button>
