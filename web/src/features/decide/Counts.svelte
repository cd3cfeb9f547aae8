<script lang="ts">
  import VerdictMark, { countOf, VERDICTS, worstOf, type Judged } from '../../ui/VerdictMark.svelte'

  /** How many of each verdict, by shape, and the worst in words: what one sees first; `verdict` where nothing is wrong. */
  let { told, verdict }: { told: readonly (Judged & { title: string })[]; verdict: string } =
    $props()
  const ORDER = ['stop', 'caution', 'cannot_tell', 'pass'] as const
  const counts = $derived(ORDER.map((each) => ({ verdict: each, count: countOf(told, each) })))
  const worst = $derived(worstOf(told))
</script>

<div class="grid gap-1 pb-2" data-testid="counts">
  <ul class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
    {#each counts as { verdict, count } (verdict)}
      <li class="flex items-center gap-1.5 {verdict === 'pass' ? 'ml-auto' : ''}">
        <VerdictMark {verdict} />
        <span class="font-mono font-bold {count ? VERDICTS[verdict]!.colour : 'text-neutral'}"
          >{count}</span
        >
        {verdict === 'cannot_tell' ? 'missing' : verdict === 'pass' ? 'OK' : ''}
      </li>
    {/each}
  </ul>
  <p class="text-sm font-bold">
    {worst ? worst.title : verdict === 'pass' ? 'All limits OK' : 'Nothing speaks against it'}
  </p>
</div>
