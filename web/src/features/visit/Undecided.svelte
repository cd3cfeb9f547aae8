<script lang="ts">
  import { BoardState } from '../../domain/board.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Nothing is set to usual values that nobody decided on: the way to Decide, or what is there is kept. */
  let { state: at }: { state: VisitState } = $props()
  const set = $derived(at.view!.set)
  let problem = $state('')

  async function keep() {
    const board = new BoardState(at.visit!.system.id)
    await board.load()
    if (board.file && set.keep) {
      board.take(set.keep)
      await board.save()
    }
    problem = board.faults[0]?.message ?? board.problem?.detail ?? ''
    if (problem || board.conflict) return
    await at.put('decided', true)
    await at.load()
  }
</script>

<p
  class="rounded-box border-2 border-warning px-4 py-3 text-xl leading-snug font-bold"
  data-testid="instruction"
>
  ▲ {set.says}
</p>
<button
  type="button"
  class="btn min-h-16 btn-lg btn-primary"
  disabled={!at.open}
  onclick={() => at.go('decide')}>Decide</button
>
<button
  type="button"
  class="btn min-h-14"
  disabled={!at.open || !set.keep || at.offline}
  onclick={keep}>Keep what is there</button
>
{#if !set.keep}<p class="text-sm">
    To keep what is there, cut-in and cut-out must be read: see Watch.
  </p>{/if}
{#if problem}<p role="alert" class="text-error">{problem}</p>{/if}
