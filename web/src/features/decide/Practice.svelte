<script lang="ts">
  import type { Snippet } from 'svelte'
  import { withoutNotes, withValue } from '../../domain/file'
  import type { Row } from '../../domain/plates'
  import type { BoardState } from '../../domain/board.svelte'
  import Ways from './Ways.svelte'

  /** Whose practice this system follows, the workspace's or its own, and what it says. */
  let { board, row, names }: { board: BoardState; row: Snippet<[Row]>; names: string[] } = $props()
  const own = $derived(board.value('practice.follows') === 'own')
  const practice = $derived(board.practice)

  function follow(whose: 'own' | 'workspace') {
    if (whose === 'own') board.put('practice.follows', 'own')
    else if (practice) {
      const file = withoutNotes(board.file!, 'practice')
      board.change(withValue(file, 'practice', practice.practice))
    }
  }
</script>

<div role="group" aria-label="Whose practice" class="grid gap-2 sm:grid-cols-2">
  <button
    type="button"
    class="btn min-h-12 {own ? '' : 'btn-primary'}"
    aria-pressed={!own}
    onclick={() => follow('workspace')}>As {practice?.name ?? 'the workspace'} has it</button
  >
  <button
    type="button"
    class="btn min-h-12 {own ? 'btn-primary' : ''}"
    aria-pressed={own}
    onclick={() => follow('own')}>Its own</button
  >
</div>
{#if own}
  {@render row({ owner: 'Practice', name: 'reason', path: 'practice.reason' })}
{:else}
  <p class="text-sm text-neutral">
    {board.value('practice.reason') || 'No reason is written down.'}
    <a class="link" href="/practice">Change it for all systems</a>
  </p>
{/if}
<fieldset class="grid gap-4" disabled={!own}>
  <legend class="sr-only">The practice</legend>
  {#if board.result?.decision.ways.length}<Ways {board} />{/if}
  {#each names as name (name)}
    {@render row({ owner: 'Practice', name, path: `practice.${name}` })}
  {/each}
</fieldset>
