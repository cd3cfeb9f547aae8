<script lang="ts">
  import type { Schemas } from '../api/client'
  import { dateOf, day } from '../domain/dates'
  import { preferences } from '../domain/preferences.svelte'
  import { text } from '../domain/units'
  import { plotted } from './trend'

  /** One figure over the visits, to read at arm's length; every point leads to its visit. The table says the same. */
  let { series, band }: { series: Schemas['Series']; band?: number | null } = $props()
  const TALL = 150
  let width = $state(360)
  const dimension = $derived(series.dimension)
  const say = (value: number) => text(value, dimension, preferences.units)
  const plot = $derived(plotted(series.points, band ?? null, width, TALL))
  const rows = $derived(series.points.toReversed())
</script>

<figure
  class="min-w-0 rounded-box border border-base-300 bg-base-100 px-3 py-2"
  data-series={series.id}
>
  <figcaption class="flex flex-wrap items-baseline justify-between gap-x-3">
    <span class="font-bold">{series.title}</span>
    <span class="text-sm">{series.says}</span>
    {#if plot.band !== null}
      <span class="w-full text-sm text-neutral"
        ><span class="font-bold text-warning" aria-hidden="true">– –</span> below {say(band!)} it is out
        of its band</span
      >
    {/if}
  </figcaption>
  <div bind:clientWidth={width}>
    <svg
      {width}
      height={TALL}
      role="group"
      aria-label="{series.title} over {series.points.length} readings"
      class="block"
    >
      {#if plot.band !== null}
        <path
          d="M0 {plot.band}H{width}"
          stroke="var(--color-warning)"
          stroke-width="2"
          stroke-dasharray="6 4"
        />
      {/if}
      <path d={plot.line} fill="none" stroke="var(--color-secondary)" stroke-width="2.5" />
      {#each plot.points as point, index (index)}
        <a
          href="/visits/{point.of.visit}"
          aria-label="{say(point.of.value)}, {day(dateOf(point.of.at_s))}"
        >
          <circle cx={point.x} cy={point.y} r="14" fill="transparent" />
          <circle
            cx={point.x}
            cy={point.y}
            r="6"
            fill={point.of.left ? 'var(--color-secondary)' : 'var(--color-base-100)'}
            stroke="var(--color-secondary)"
            stroke-width="3"
          />
        </a>
      {/each}
      {#each plot.labels as label (label.x)}
        <text
          x={label.x}
          y={label.y}
          text-anchor={label.anchor}
          class="figure text-[13px]"
          fill="var(--color-base-content)">{say(label.value)}</text
        >
      {/each}
      {#each plot.years as year (year.says)}
        <text
          x={year.x}
          y={TALL - 4}
          text-anchor="middle"
          class="text-[12px]"
          fill="var(--color-neutral)">{year.says}</text
        >
      {/each}
    </svg>
  </div>
  <details>
    <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      >As a table</summary
    >
    <table class="table table-sm">
      <tbody>
        {#each rows as row, index (index)}
          <tr>
            <td><a class="link" href="/visits/{row.visit}">{day(dateOf(row.at_s))}</a></td>
            <td>{row.left ? 'left' : 'found'}</td>
            <td class="figure text-right">{say(row.value)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </details>
</figure>
