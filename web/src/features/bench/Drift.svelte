<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { dayOn } from '../../domain/dates'
  import { percent } from '../../domain/units'

  /** Errors of a point over the years, as shares of its tolerance: rings as found, discs as left, joined from each as left to the
   * next as found; the figures stand beside it. */
  let { made, at, title }: { made: Schemas['CalibrationRow'][]; at: number; title: string } =
    $props()
  const WIDE = 600
  const TALL = 120
  const MOST = 1.6
  const rows = $derived(
    made
      .filter((each) => each.closed_at && each.shares[at])
      .toReversed()
      .map((each) => ({ id: each.id, on: each.on, ...each.shares[at]! })),
  )
  const times = $derived(rows.map((row) => new Date(row.on).getTime()))
  const x = (k: number) =>
    30 + ((times[k]! - times[0]!) / Math.max(times.at(-1)! - times[0]!, 1)) * (WIDE - 60)
  const y = (share: number) =>
    TALL / 2 - (Math.min(Math.max(share, -MOST), MOST) / MOST) * (TALL / 2 - 6)
  const path = $derived(
    rows
      .map((row, k) =>
        k ? `L${x(k)} ${y(row.found)}M${x(k)} ${y(row.left)}` : `M${x(k)} ${y(row.left)}`,
      )
      .join(''),
  )
</script>

{#if rows.length > 1}
  <figure class="grid gap-1">
    <figcaption class="text-sm font-bold">{title}: off by, of its tolerance</figcaption>
    <svg viewBox="0 0 {WIDE} {TALL}" class="w-full" role="img" aria-label="{title} over the years">
      <rect x="0" y={y(1)} width={WIDE} height={y(-1) - y(1)} fill="var(--zd-water)" />
      <path d="M0 {y(1)}H{WIDE}M0 {y(-1)}H{WIDE}" stroke="var(--color-error)" stroke-width="1.5" />
      <path d="M0 {y(0)}H{WIDE}" stroke="var(--color-neutral)" stroke-width="0.8" />
      <path d={path} fill="none" stroke="var(--color-accent)" stroke-width="2" />
      {#each rows as row, k (row.id)}
        <circle
          cx={x(k)}
          cy={y(row.found)}
          r="6"
          fill="var(--color-base-100)"
          stroke="var(--color-base-content)"
          stroke-width="2"
        />
        <circle cx={x(k)} cy={y(row.left)} r="4" fill="var(--color-base-content)" />
      {/each}
    </svg>
    <table class="table table-sm">
      <thead
        ><tr
          ><th>Day</th><th class="text-right">○ As found</th><th class="text-right">● As left</th
          ></tr
        ></thead
      >
      <tbody>
        {#each rows as row (row.id)}
          <tr
            ><td>{dayOn(row.on)}</td><td class="figure text-right">{percent(row.found)}</td><td
              class="figure text-right">{percent(row.left)}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  </figure>
{/if}
