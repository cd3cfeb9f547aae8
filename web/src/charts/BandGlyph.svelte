<script lang="ts">
  import type { Schemas } from '../api/client'
  import { preferences } from '../domain/preferences.svelte'
  import { text } from '../domain/units'

  let { summary, height = 64 }: { summary: Schemas['SystemSummary']; height?: number } = $props()

  const air = $derived(summary.pre_charge_gauge_pa)
  // To scale from nothing to the limit, so that two systems in a list can be compared by eye.
  const top = $derived(
    Math.max(summary.limit_gauge_pa ?? 0, summary.cut_out_gauge_pa, air ?? 0) * 1.08,
  )
  const y = (pa: number) => height - 3 - (pa / top) * (height - 6)
  const dips = $derived(summary.dips)
  const said = (pa: number) => text(pa, 'pressure', preferences.units)
  const words = $derived(
    `Cut-in ${said(summary.cut_in_gauge_pa)}, cut-out ${said(summary.cut_out_gauge_pa)}` +
      (air == null ? '' : `, pre-charge ${said(air)}`),
  )
</script>

<svg width="34" {height} role="img" aria-label={words} class="shrink-0">
  <rect
    x="12"
    y="2"
    width="10"
    height={height - 4}
    rx="3"
    fill="var(--color-base-200)"
    stroke="var(--color-base-300)"
  />
  <rect
    x="12"
    y={y(summary.cut_out_gauge_pa)}
    width="10"
    height={y(summary.cut_in_gauge_pa) - y(summary.cut_out_gauge_pa)}
    fill="var(--color-secondary)"
  />
  {#if dips && air != null}
    <rect
      x="12"
      y={y(air)}
      width="10"
      height={Math.max(y(summary.cut_in_gauge_pa) - y(air), 2)}
      fill="var(--color-error)"
    />
  {/if}
  {#if air != null}<path d="M5 {y(air)}h24" stroke="var(--color-accent)" stroke-width="3" />{/if}
  {#if summary.limit_gauge_pa !== null && summary.limit_gauge_pa !== undefined}
    <path d="M8 {y(summary.limit_gauge_pa)}h18" stroke="var(--color-error)" stroke-width="2" />
  {/if}
</svg>
