<script lang="ts">
  import type { Snippet } from 'svelte'
  import { withoutEntered, withValue } from '../../lib/file'
  import type { Row, Section } from '../../lib/plates'
  import type { DecideState } from './decide.svelte'

  /** A list of like parts: tanks, receivers, outlets, the points of a curve. */
  let {
    table,
    section,
    row,
  }: { table: DecideState; section: Extract<Section, { kind: 'list' }>; row: Snippet<[Row]> } = $props()
  const parts = $derived((table.value(section.path) ?? []) as Record<string, unknown>[])

  function add() {
    const like = section.path === 'system.tanks' ? { ...parts.at(-1), pre_charge_gauge_pa: null } : section.blank
    table.change(withValue(table.file!, section.path, [...parts, { ...like }]))
  }
  function takeOut(index: number) {
    // What was typed goes with the list's order; the values themselves stay.
    const rest = parts.filter((_, at) => at !== index)
    table.change(withValue(withoutEntered(table.file!, section.path), section.path, rest))
  }
</script>

{#each { length: parts.length }, index (index)}
  <fieldset class="grid gap-3 rounded-box border border-base-300 p-3">
    <legend class="px-1 text-sm font-bold">{section.title} {index + 1}</legend>
    <div class="grid gap-3 {section.names.length === 2 ? 'grid-cols-2' : ''}">
      {#each section.names as name (name)}
        {@render row({ owner: section.owner, name, path: `${section.path}.${index}.${name}` })}
      {/each}
    </div>
    {#if parts.length > section.least}
      <button type="button" class="btn min-h-12 btn-ghost" onclick={() => takeOut(index)}
        >Take {section.title.toLowerCase()} {index + 1} out</button
      >
    {/if}
  </fieldset>
{/each}
{#each table.faultsAt(section.path) as fault (fault.code)}<p class="text-sm text-error">{fault.message}</p>{/each}
<button type="button" class="btn min-h-12" onclick={add}>{section.add}</button>
