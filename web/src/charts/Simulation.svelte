<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import { fromSi, text, toSi, unitFor, type Dimension } from '../domain/units'
  import type { BoardState } from '../domain/board.svelte'
  import { heightsOn, niceScale } from './scale'

  let { board }: { board: BoardState } = $props()
  let width = $state(800)
  const TALL = 118
  const TOP = 10
  const BOTTOM = 88
  const LEFT = 52

  const shown = $derived(board.result!.simulation!)
  const ribbon = $derived(board.ribbon!)
  const dimension = $derived(ribbon.flow_dimension as Dimension)
  const flow = $derived(unitFor(dimension, preferences.units))
  const pressure = $derived(unitFor('pressure', preferences.units))
  const scale = $derived(
    niceScale(Math.min(...shown.trail.gauges_pa), Math.max(...shown.trail.gauges_pa), pressure, 3),
  )
  const x = (seconds: number) => LEFT + (seconds / shown.seconds) * (width - LEFT - 12)
  const y = $derived(heightsOn(scale, TOP, BOTTOM))
  const line = $derived(
    shown.trail.times_s
      .map((time, at) => `${x(time).toFixed(1)},${y(shown.trail.gauges_pa[at]!).toFixed(1)}`)
      .join(' '),
  )
  const most = $derived(fromSi(shown.most_draw_m3_s, flow))
  const worst = $derived(shown.worst_draw_m3_s)
  const minutes = $derived(Array.from({ length: shown.seconds / 60 / 5 + 1 }, (_, at) => at * 5))
  const setPoints = $derived([ribbon.cut_out.gauge_pa, ribbon.cut_in.gauge_pa])
  const number = (pa: number) => text(pa, 'pressure', preferences.units).split(' ')[0]

  function slide(event: Event & { currentTarget: HTMLInputElement }) {
    board.drawAt(toSi(event.currentTarget.valueAsNumber, flow))
  }
</script>

<section aria-label="The next quarter of an hour">
  <div class="flex flex-wrap items-center gap-x-4 text-sm">
    <label for="draw" class="sr-only">{ribbon.holds === 'air' ? 'Air used' : 'Draw'}</label>
    <span class="text-neutral">A quarter of an hour {ribbon.holds === 'air' ? 'using' : 'at'}</span>
    <span class="figure text-lg">{text(shown.draw_m3_s, dimension, preferences.units)}</span>
    <div class="relative min-w-40 flex-1">
      <input
        id="draw"
        type="range"
        class="range my-3 w-full text-accent [--range-bg:var(--color-base-300)]"
        min="0"
        max={most}
        step={flow.step / 2}
        value={fromSi(shown.draw_m3_s, flow)}
        oninput={slide}
        aria-valuetext={text(shown.draw_m3_s, dimension, preferences.units)}
      />
      {#if worst != null}
        <span
          class="pointer-events-none absolute top-1 h-10 w-0.5 bg-accent"
          style:left="calc(12px + (100% - 24px) * {fromSi(worst, flow) / most})"
        ></span>
      {/if}
    </div>
    <button
      type="button"
      class="min-h-12 cursor-pointer underline underline-offset-4 disabled:no-underline sm:min-h-9"
      disabled={worst == null}
      onclick={() => board.drawAt(null)}
    >
      {worst == null
        ? 'no worst draw'
        : `worst ${ribbon.holds === 'air' ? 'use' : 'draw'} ${text(worst, dimension, preferences.units)}`}
    </button>
  </div>
  <div bind:clientWidth={width}>
    <svg
      {width}
      height={TALL}
      class="block"
      role="img"
      aria-label="Pressure over a quarter of an hour: {shown.caption}"
    >
      {#each setPoints as pa (pa)}
        <path d="M{LEFT} {y(pa)}H{width - 12}" stroke="var(--color-base-300)" stroke-width="1.5" />
        <text
          x={LEFT - 8}
          y={y(pa) + 4.5}
          text-anchor="end"
          class="font-mono text-[13px]"
          fill="var(--color-neutral)">{number(pa)}</text
        >
      {/each}
      {#each shown.trail.dip_spans_s as [from = 0, to = 0] (from)}
        <rect
          x={x(from) - 1.5}
          y={TOP - 4}
          width={Math.max(x(to) - x(from), 0) + 3}
          height={BOTTOM - TOP + 8}
          fill="var(--color-error)"
          opacity="0.45"
        />
      {/each}
      <polyline
        data-testid="trail"
        points={line}
        fill="none"
        stroke="var(--color-base-content)"
        stroke-width="2"
        stroke-linejoin="round"
      />
      <text x="0" y="104" class="text-[13px]" fill="var(--color-neutral)">pump</text>
      {#each shown.trail.pump_spans_s as [from = 0, to = 0] (from)}
        <rect
          x={x(from)}
          y="95"
          width={Math.max(x(to) - x(from), 1.5)}
          height="8"
          rx="2"
          fill="var(--color-secondary)"
        />
      {/each}
      {#each minutes as minute, at (minute)}
        <text
          x={x(minute * 60)}
          y="117"
          text-anchor={at === minutes.length - 1 ? 'end' : 'middle'}
          class="font-mono text-[11px]"
          fill="var(--color-neutral)">{minute || ''}{at === minutes.length - 1 ? ' min' : ''}</text
        >
      {/each}
    </svg>
  </div>
  <p
    class="text-sm {shown.trail.dip_s > 0 ? 'font-bold text-error' : ''}"
    data-testid="simulation-caption"
  >
    {shown.caption}
  </p>
</section>
