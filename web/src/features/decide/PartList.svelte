<script lang="ts">
  import type { Snippet } from 'svelte'
  import { partsAt, withoutNotes, withValue } from '../../domain/file'
  import type { Row, Section } from '../../domain/plates'
  import type { BoardState } from '../../domain/board.svelte'

  /** A list of like parts: tanks, receivers, outlets, the points of a curve. */
  let {
    board,
    section,
    row,
  }: { board: BoardState; section: Extract<Section, { kind: 'list' }>; row: Snippet<[Row]> } =
    $props()
  /** Two figures a part, as on a curve: they stand on one line. */
  const pairs = $derived(section.names.length === 2 && section.path.endsWith('points'))
  const parts = $derived(partsAt(board.file, section.path))

  function add() {
    const like =
      section.path === 'system.tanks'
        ? { ...parts.at(-1), pre_charge_gauge_pa: null }
        : section.blank
    board.change(withValue(board.file!, section.path, [...parts, { ...like }]))
  }
  function takeOut(index: number) {
    // What was typed goes with the list's order; the values themselves stay.
    const rest = parts.filter((_, at) => at !== index)
    board.change(withValue(withoutNotes(board.file!, section.path), section.path, rest))
  }
</script>

{#snippet out(index: number, word: string, extra: string)}
  {#if parts.length > section.least}
    <button
      type="button"
      class="btn min-h-12 btn-ghost {extra}"
      aria-label="Take {section.title.toLowerCase()} {index + 1} out"
      onclick={() => takeOut(index)}>{word}</button
    >
  {/if}
{/snippet}

{#each { length: parts.length }, index (index)}
  <fieldset
    class="gap-3 rounded-box border border-base-300 p-3 {pairs
      ? 'grid grid-cols-[1fr_1fr_auto] items-start'
      : 'grid'}"
  >
    <legend class="px-1 text-sm font-bold">{section.title} {index + 1}</legend>
    {#each section.names as name (name)}
      {@render row({ owner: section.owner, name, path: `${section.path}.${index}.${name}` })}
    {/each}
    {@render out(
      index,
      pairs ? '×' : `Take ${section.title.toLowerCase()} ${index + 1} out`,
      pairs ? 'mt-7 w-12' : '',
    )}
  </fieldset>
{/each}
{#each board.faultsAt(section.path) as fault (fault.code)}<p class="text-sm text-error">
    {fault.message}
  </p>{/each}
<button type="button" class="btn min-h-12" onclick={add}>{section.add}</button>
