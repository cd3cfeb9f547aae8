<script lang="ts">
  import type { Schemas } from '../api/client'
  import { preferences } from '../domain/preferences.svelte'
  import { text, unitFor } from '../domain/units'
  import { FRAME, plotted } from './simulation'

  /** Pressure, dips and the pump's runs over a quarter of an hour, with the set points across. */
  let { shown, setPoints }: { shown: Schemas['Simulation']; setPoints: number[] } = $props()
  let width = $state(800)
  const plot = $derived(plotted(shown, unitFor('pressure', preferences.units), width))
  const number = (pa: number) => text(pa, 'pressure', preferences.units).split(' ')[0]
  const last = $derived(plot.minutes.length - 1)
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={FRAME.tall}
    class="block"
    role="img"
    aria-label="Pressure over a quarter of an hour: {shown.caption}"
  >
    {#each setPoints as pa (pa)}
      <path
        d="M{FRAME.left} {plot.y(pa)}H{width - FRAME.right}"
        stroke="var(--color-base-300)"
        stroke-width="1.5"
      />
      <text
        x={FRAME.left - 8}
        y={plot.y(pa) + 4.5}
        text-anchor="end"
        class="font-mono text-[13px]"
        fill="var(--color-neutral)">{number(pa)}</text
      >
    {/each}
    {#each plot.dips as dip, at (at)}
      <rect
        x={dip.x - 1.5}
        y={FRAME.top - 4}
        width={dip.width + 3}
        height={FRAME.bottom - FRAME.top + 8}
        fill="var(--color-error)"
        opacity="0.45"
      />
    {/each}
    <polyline
      data-testid="trail"
      points={plot.line}
      fill="none"
      stroke="var(--color-base-content)"
      stroke-width="2"
      stroke-linejoin="round"
    />
    <text x="0" y="104" class="text-[13px]" fill="var(--color-neutral)">pump</text>
    {#each plot.pump as run, at (at)}
      <rect
        x={run.x}
        y="95"
        width={Math.max(run.width, 1.5)}
        height="8"
        rx="2"
        fill="var(--color-secondary)"
      />
    {/each}
    {#each plot.minutes as { minute, x }, at (minute)}
      <text
        {x}
        y="117"
        text-anchor={at === last ? 'end' : 'middle'}
        class="font-mono text-[11px]"
        fill="var(--color-neutral)">{minute || ''}{at === last ? ' min' : ''}</text
      >
    {/each}
  </svg>
</div>
