<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import { parts } from '../../domain/units'
  import { turnWords } from '../../domain/turns'

  /** What was found and every look since as a bar between cut-in and cut-out, against the two target lines; the one to come is
   * dashed. */
  let { set }: { set: Schemas['SetView'] } = $props()
  const TALL = 170
  const MOST = 6
  let width = $state(360)
  const looks = $derived([
    ...(set.found_pa
      ? [{ key: 'found', says: 'found', low: set.found_pa[0]!, high: set.found_pa[1]! }]
      : []),
    ...set.tries.map((each) => ({
      key: each.entry,
      says:
        each.turns
          .filter(Boolean)
          .map((turn) => (turn > 0 ? '+' : '') + turnWords(turn))
          .join(' ') || 'look',
      low: each.cut_in_gauge_pa,
      high: each.cut_out_gauge_pa,
    })),
  ])
  const bars = $derived(looks.slice(-MOST))
  const coming = $derived(
    ['turn', 'see'].includes(set.do) && set.expect_in_pa && set.expect_out_pa
      ? { low: set.expect_in_pa[0]!, high: set.expect_out_pa[0]! }
      : undefined,
  )
  const all = $derived([...bars, ...(coming ? [coming] : [])].flatMap((bar) => [bar.low, bar.high]))
  const top = $derived(Math.max(set.target_out_gauge_pa, ...all))
  const span = $derived(top - Math.min(set.target_in_gauge_pa, ...all) || 1)
  const y = (pa: number) => 22 + ((top - pa) / span) * (TALL - 60)
  const x = (at: number) => 48 + (at + 0.5) * ((width - 56) / (bars.length + (coming ? 1 : 0)))
  const number = (pa: number) => parts(pa, 'pressure', preferences.units).number
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={TALL}
    role="img"
    aria-label="{looks.length} looks against the two targets"
    class="block"
  >
    {#each [set.target_out_gauge_pa, set.target_in_gauge_pa] as target, at (at)}
      <path
        d="M40 {y(target)}H{width}"
        stroke="var(--color-secondary)"
        stroke-width="2"
        stroke-dasharray="2 5"
      />
      <text
        x="34"
        y={y(target) + 4.5}
        text-anchor="end"
        class="figure text-[13px]"
        fill="var(--color-base-content)">{number(target)}</text
      >
    {/each}
    {#each bars as bar, at (bar.key)}
      <rect
        x={x(at) - 13}
        y={y(bar.high)}
        width="26"
        height={y(bar.low) - y(bar.high)}
        rx="6"
        fill="var(--color-secondary)"
      />
      <g class="figure text-[12px]" text-anchor="middle" fill="var(--color-base-content)">
        <text x={x(at)} y={y(bar.high) - 5}>{number(bar.high)}</text>
        <text x={x(at)} y={y(bar.low) + 14}>{number(bar.low)}</text>
      </g>
      <text
        x={x(at)}
        y={TALL - 4}
        text-anchor="middle"
        class="turns font-mono text-[13px]"
        fill="var(--color-neutral)">{bar.says}</text
      >
    {/each}
    {#if coming}
      <rect
        x={x(bars.length) - 13}
        y={y(coming.high)}
        width="26"
        height={y(coming.low) - y(coming.high)}
        rx="6"
        fill="none"
        stroke="var(--color-accent)"
        stroke-width="3"
        stroke-dasharray="6 4"
      />
      <text
        x={x(bars.length)}
        y={TALL - 4}
        text-anchor="middle"
        class="font-mono text-[12px]"
        fill="var(--color-accent)">next</text
      >
    {/if}
  </svg>
</div>
