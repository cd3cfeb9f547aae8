<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import NutArc from './NutArc.svelte'
  import { turnWords, way } from '../../domain/turns'

  /** The next turn, to read at arm's length: which nut, which way, how far, and what both points should come to. */
  let { set, ready }: { set: Schemas['SetView']; ready: boolean } = $props()
  const pressure = (pa: number) => text(pa, 'pressure', preferences.units)
  const titles = $derived(Object.fromEntries(set.nuts.map((nut) => [nut.nut, nut.title])))
  const expected = $derived([
    ['cut-in should come to', set.expect_in_pa],
    ['cut-out should come to', set.expect_out_pa],
  ] as const)
</script>

<div
  class="grid gap-3 rounded-box bg-[var(--zd-sand)] px-4 py-3"
  data-testid="instruction"
  aria-label={set.turns.map((turn) => turn.says).join('; ')}
  role="group"
>
  {#each set.turns as turn (turn.nut)}
    <div class="flex items-center justify-between gap-3">
      <span>
        <span class="block text-sm">{titles[turn.nut]}</span>
        <span class="block text-2xl leading-tight font-bold">{way(turn.turns)}</span>
        <span class="figure turns text-4xl">{turnWords(Math.abs(turn.turns))}</span> turn{Math.abs(
          turn.turns,
        ) > 1
          ? 's'
          : ''}
      </span>
      <NutArc turns={turn.turns} />
    </div>
  {/each}
  {#if !ready}<p class="text-sm font-bold">
      Not until power is confirmed off and proved dead.
    </p>{/if}
</div>
<div class="grid grid-cols-2 gap-2">
  {#each expected as [title, expect] (title)}
    <p class="rounded-box border border-base-300 bg-base-100 px-3 py-2">
      <span class="block text-sm">{title}</span>
      {#if expect}<span class="figure text-xl whitespace-nowrap">{pressure(expect[0]!)}</span>
        <span class="figure text-sm whitespace-nowrap">± {pressure(expect[1]!)}</span>{/if}
    </p>
  {/each}
</div>
<p class="text-sm text-neutral">{set.says}</p>
