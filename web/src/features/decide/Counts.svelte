<script lang="ts">
  import type { Schemas } from '../../api/client'
  import VerdictMark, { countOf, VERDICTS } from '../../ui/VerdictMark.svelte'

  /** How many of each verdict, by shape, and the worst in words: what one sees first. What was seen counts like what is
   * worked out, and before it. */
  let { decision, seen }: { decision: Schemas['Decision']; seen: Schemas['Remaining'][] } = $props()
  const ORDER = ['stop', 'caution', 'cannot_tell', 'pass'] as const
  const counts = $derived(
    ORDER.map((verdict) => ({ verdict, count: countOf([...seen, ...decision.findings], verdict) })),
  )
  const worst = $derived(
    ['stop', 'caution']
      .flatMap((verdict) => [...seen, ...decision.findings].filter((e) => e.verdict === verdict))
      .at(0),
  )
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
    {worst
      ? worst.title
      : decision.verdict === 'pass'
        ? 'All limits OK'
        : 'Nothing speaks against it'}
  </p>
</div>
