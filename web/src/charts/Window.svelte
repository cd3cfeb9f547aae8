<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import { digits, fromSi, text, unitFor } from '../domain/units'
  import { gripPath, type BoardState, type GripId } from '../domain/board.svelte'
  import Grip from './Grip.svelte'
  import Hatch from './Hatch.svelte'
  import { spread } from './ribbon'
  import { heightsOn, niceScale, valueAtHeight } from './scale'

  let { board }: { board: BoardState } = $props()

  let width = $state(800)
  let tall = $state(420)

  const narrow = $derived(width < 560)
  const shown = $derived(board.window!)
  const pressure = $derived(unitFor('pressure', preferences.units))
  const left = $derived(narrow ? 118 : 138)
  const right = $derived(width - (narrow ? 14 : 30))
  const top = 40
  const bottom = $derived(tall - 34)
  const scale = $derived(niceScale(0, shown.gauge_most_pa, pressure, 6))
  const first = $derived(shown.points[0]!.volts)
  const last = $derived(shown.points.at(-1)!.volts)
  const x = (volts: number) => left + ((volts - first) / (last - first)) * (right - left)
  const y = $derived(heightsOn(scale, top, bottom))
  const line = (of: 'dead_head_gauge_pa' | 'running_gauge_pa') =>
    shown.points.map((point) => `${x(point.volts).toFixed(1)},${y(point[of]).toFixed(1)}`)
  const dead = $derived(line('dead_head_gauge_pa'))
  const running = $derived(line('running_gauge_pa'))
  const low = $derived(y(shown.low_gauge_pa))
  const high = $derived(y(shown.high_gauge_pa))

  function gripHeight(grip: GripId): number {
    const value = board.value(gripPath(grip))
    return y(typeof value === 'number' ? value : (shown[`${grip}_gauge_pa`] ?? 0))
  }
  const pills = $derived.by(() => {
    const ys = spread(board.grips.map(gripHeight), narrow ? 48 : 40, top, bottom)
    return board.grips.map((grip, at) => ({ grip, at: gripHeight(grip), pill: ys[at]! }))
  })
  const tick = (pa: number) =>
    digits(fromSi(pa, pressure), { ...pressure, decimals: pressure.id === 'bar' ? 1 : 0 })
  const volts = (value: number) => text(value, 'voltage', preferences.units)
</script>

<div class="flex h-[420px] flex-col sm:h-full sm:min-h-96">
  <div
    class="relative min-h-0 flex-1 select-none"
    bind:clientWidth={width}
    bind:clientHeight={tall}
  >
    <svg {width} height={tall} class="block overflow-visible" data-testid="window">
      <defs>
        <Hatch id="no-window" />
      </defs>
      <text x={left} y="14" text-anchor="middle" class="text-[13px]" fill="var(--color-neutral)"
        >Gauge, {pressure.symbol}</text
      >
      <text x={right} y="14" text-anchor="end" class="text-[13px]" fill="var(--color-neutral)"
        >against the voltage at the pump</text
      >

      {#if shown.has_window}
        <rect
          data-testid="open-window"
          x={x(shown.least_v)}
          y={high}
          width={x(shown.most_v) - x(shown.least_v)}
          height={low - high}
          fill="var(--zd-water)"
        />
      {:else}
        <rect
          data-testid="no-window"
          x={x(shown.least_v)}
          y={low}
          width={x(shown.most_v) - x(shown.least_v)}
          height={Math.max(high - low, 2)}
          fill="url(#no-window)"
        />
      {/if}
      {#each [shown.least_v, shown.most_v] as edge, at (at)}
        <path
          d="M{x(edge)} {top - 8}V{bottom}"
          stroke="var(--color-base-content)"
          stroke-dasharray="2 5"
        />
        <text
          x={x(edge)}
          y={bottom + 20}
          text-anchor={at ? 'end' : 'start'}
          class="figure text-[13px]"
          fill="var(--color-base-content)"
          >{volts(edge)}{narrow ? '' : at ? ', highest' : ', lowest'}</text
        >
      {/each}

      <path
        d="M{left} {top - 6}V{bottom}H{right}"
        fill="none"
        stroke="var(--color-base-content)"
        stroke-width="2.5"
      />
      {#each scale.ticks as at (at)}
        <path d="M{left} {y(at)}h-8" stroke="var(--color-base-content)" />
        {#if !narrow && pills.every((pill) => Math.abs(pill.at - y(at)) > 11)}
          <text
            x={left - 12}
            y={y(at) + 4.5}
            text-anchor="end"
            class="font-mono text-[13px]"
            fill="var(--color-neutral)">{tick(at)}</text
          >
        {/if}
      {/each}

      <polyline points={dead.join(' ')} fill="none" stroke="var(--color-error)" stroke-width="3" />
      <polyline
        points={running.join(' ')}
        fill="none"
        stroke="var(--color-secondary)"
        stroke-width="3"
      />
      <text
        x={x(shown.least_v) + 10}
        y={y(shown.points.at(-1)!.dead_head_gauge_pa)}
        class="text-[13px] [paint-order:stroke]"
        stroke="var(--color-base-200)"
        stroke-width="4"
        fill="var(--color-error)">dead-head: never stops above</text
      >
      <text
        x={x(shown.most_v) - 10}
        y={y(shown.points[0]!.running_gauge_pa) + (narrow ? 24 : 4)}
        text-anchor="end"
        class="text-[13px] [paint-order:stroke]"
        stroke="var(--color-base-200)"
        stroke-width="4"
        fill="var(--color-secondary)">running at {shown.outlet}: chatters below</text
      >

      {#each pills as { grip, at, pill } (grip)}
        {@const colour =
          grip === 'pre_charge' ? 'var(--color-accent)' : 'var(--color-base-content)'}
        {@const ink =
          grip === 'pre_charge' ? 'var(--color-accent-content)' : 'var(--color-base-100)'}
        <path
          d="M{left} {at}H{right}"
          stroke={colour}
          stroke-width={grip === 'cut_out' ? 3 : 1.5}
          stroke-dasharray={grip === 'cut_out' ? '' : '7 5'}
          opacity={grip === 'cut_out' ? 1 : 0.6}
        />
        <Grip
          {board}
          {grip}
          {at}
          {pill}
          axis={left}
          {narrow}
          {colour}
          {ink}
          toPa={(y) => valueAtHeight(y, scale, top, bottom)}
        />
      {/each}
    </svg>
    <p
      role="status"
      class="pointer-events-none absolute inset-x-0 top-5 text-center text-sm font-bold text-error"
    >
      {board.held}
    </p>
  </div>
  <p class="text-sm {shown.has_window ? '' : 'font-bold text-error'}" data-testid="window-caption">
    {shown.caption}
  </p>
</div>
