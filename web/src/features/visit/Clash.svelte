<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { slotTitle, inWords } from '../../domain/words'
  import type { Clash } from '../../domain/outbox'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Somebody else was first: both values, and which is to stand. */
  let { state: at, clash }: { state: VisitState; clash: Clash } = $props()
  const title = $derived(slotTitle(clash.slot))
  const values = $derived([
    ['Stored', clash.value],
    ['Yours', clash.yours],
  ] as const)
</script>

<div role="alert" class="m-3 rounded-box border-2 border-warning bg-base-100 p-3">
  <p class="font-bold">{title}: {clash.by || 'somebody'} recorded another value meanwhile.</p>
  {#each values as [word, value] (word)}
    <p>{word}: <span class="figure">{inWords(clash.slot, value, preferences.units)}</span></p>
  {/each}
  <div class="mt-2 flex gap-2">
    <button type="button" class="btn min-h-12 flex-1" onclick={() => at.settle(clash, false)}
      >Use theirs</button
    >
    <button type="button" class="btn min-h-12 flex-1" onclick={() => at.settle(clash, true)}
      >Use mine</button
    >
  </div>
</div>
