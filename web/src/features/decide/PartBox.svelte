<script lang="ts">
  import type { Snippet } from 'svelte'
  import { withoutNotes, withValue } from '../../domain/file'
  import type { Row, Section } from '../../domain/plates'
  import type { BoardState } from '../../domain/board.svelte'

  /** A part that may be left out: a pipe's friction, a leak watch, an accumulator. */
  let {
    board,
    section,
    row,
  }: { board: BoardState; section: Extract<Section, { kind: 'part' }>; row: Snippet<[Row]> } =
    $props()

  function exchange(value: unknown) {
    board.change(withValue(withoutNotes(board.file!, section.path), section.path, value))
  }
</script>

{#if board.value(section.path)}
  <fieldset class="grid gap-3 rounded-box border border-base-300 p-3">
    <legend class="px-1 text-sm font-bold">{section.title}</legend>
    {#each section.names as name (name)}
      {@render row({ owner: section.owner, name, path: `${section.path}.${name}` })}
    {/each}
    <button type="button" class="btn min-h-12 btn-ghost" onclick={() => exchange(null)}
      >{section.drop}</button
    >
  </fieldset>
{:else}
  <button type="button" class="btn min-h-12" onclick={() => exchange({ ...section.blank })}
    >{section.add}</button
  >
{/if}
