<script lang="ts">
  import type { Snippet } from 'svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import VerdictMark, { countOf, VERDICTS, worstOf, type Judged } from '../../ui/VerdictMark.svelte'
  import { figureAt } from '../../domain/file'
  import type { BoardState } from '../../domain/board.svelte'

  /** `onnext`: where keeping leads on to, in a visit. `told`: what is judged, what was seen included. */
  let {
    board,
    told,
    onfault,
    onnext,
    children,
  }: {
    board: BoardState
    told: readonly Judged[]
    onfault: (path: string) => void
    onnext?: () => void
    children?: Snippet
  } = $props()
  const faults = $derived(board.faults)
  const judged = $derived(board.result?.decision)
  const worst = $derived(worstOf(told)?.verdict ?? judged?.verdict)
  const counts = $derived(
    ['stop', 'caution', 'cannot_tell'].flatMap((verdict) => {
      const count = countOf(told, verdict)
      return count ? [`${count} × ${VERDICTS[verdict]!.word.toLowerCase()}`] : []
    }),
  )
  const keeps = $derived(board.open && board.system?.may_change)
  const word = $derived(
    board.saving
      ? 'Saving…'
      : onnext
        ? keeps
          ? 'Save, then set'
          : 'On to Set'
        : board.system?.may_change
          ? 'Save'
          : 'You may look only',
  )
  async function press() {
    await board.save()
    if (onnext && !board.problem && !board.conflict && !board.faults.length) onnext()
  }
  const last = $derived(board.system?.decisions[0])
  const when = (at: string) =>
    new Date(at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })

  function settings(file: unknown): string {
    const at = (name: string) =>
      figureAt(file, `settings.${name}_gauge_pa`, 'pressure', preferences.units)
    const air = at('pre_charge')
    return `in ${at('cut_in')}, out ${at('cut_out')}${air === '–' ? '' : `, air ${air}`}`
  }
</script>

<div class="sticky bottom-0 z-10 grid gap-2 border-t border-base-300 bg-base-100 p-4 lg:border-l">
  {#if judged && worst}
    <!-- On a phone the verdicts stand below the fold: their sum stays in sight. -->
    <p class="flex items-center gap-2 text-sm lg:hidden" data-testid="sum">
      <VerdictMark verdict={worst} />
      {counts.join(' · ') || 'All limits OK'}
    </p>
  {/if}
  {#if board.conflict}
    <div role="alert" class="rounded-box border-2 border-warning p-3 text-sm">
      <p class="font-bold">Somebody else changed this system meanwhile.</p>
      <p>Stored now: {settings(board.conflict.current?.document)}</p>
      <p>Yours: {settings(board.file)}</p>
      <div class="mt-2 flex gap-2">
        <button class="btn min-h-12 flex-1" onclick={() => board.settle(false)}>Use theirs</button>
        <button class="btn min-h-12 flex-1" onclick={() => board.settle(true)}>Use mine</button>
      </div>
    </div>
  {:else if board.problem}
    <p role="alert" class="text-sm text-error">
      {board.problem.title}. {board.problem.detail}
      <button class="underline" onclick={() => board.ask()}>Try again</button>
    </p>
  {:else if faults.length}
    <p role="alert" class="text-sm text-error">
      {faults[0]!.message}
      {#if faults.length > 1}And {faults.length - 1} more.{/if}
      <button class="min-h-8 font-bold underline" onclick={() => onfault(faults[0]!.path)}
        >Correct it</button
      >
    </p>
  {:else if board.restored}
    <p role="status" class="text-sm">Your unsaved changes are back.</p>
  {:else if !board.dirty && last}
    <p role="status" class="text-sm text-neutral" data-testid="kept">
      Saved {when(last.made_at)} by {last.made_by}
    </p>
  {/if}
  {#if board.taken && board.dirty}
    <p role="status" class="text-sm font-bold" data-testid="taken">
      ▲ {board.taken}: not saved yet.
    </p>
  {/if}
  {@render children?.()}
  <div class="flex gap-2">
    {#if board.dirty}
      <button class="btn btn-lg" onclick={() => board.putBack()}>Undo changes</button>
    {/if}
    <button
      class="btn flex-1 btn-lg btn-primary"
      disabled={board.saving || faults.length > 0 || !(keeps || onnext)}
      onclick={press}>{word}</button
    >
  </div>
</div>
