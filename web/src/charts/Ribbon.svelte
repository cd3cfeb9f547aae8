<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import { text, unitFor, fromSi, digits } from '../domain/units'
  import { gripPath, type BoardState, type GripId } from '../domain/board.svelte'
  import Grip from './Grip.svelte'
  import Hatch from './Hatch.svelte'
  import InTurn from '../ui/InTurn.svelte'
  import {
    area,
    curve,
    heights,
    labelHeight,
    spread,
    stillFits,
    type Frame,
    type Scales,
  } from './ribbon'
  import { height, valueAtHeight } from './scale'

  let { board }: { board: BoardState } = $props()

  // As on a phone, until it is measured: there drawing twice would be felt.
  let width = $state(Math.min(800, innerWidth - 32))
  let tall = $state(340)
  let dragging = $state<GripId | undefined>()

  const narrow = $derived(width < 560)
  const ribbon = $derived(board.ribbon!)
  const GRIPS = $derived(board.grips)
  const air = $derived(ribbon.holds === 'air')
  const units = $derived({
    pressure: unitFor('pressure', preferences.units),
    held: unitFor(ribbon.held_dimension, preferences.units),
    duration: unitFor('duration', preferences.units),
  })
  const frame = $derived<Frame>({
    xs: narrow
      ? [118, 118 + (width - 156) / 2, width - 38]
      : [138, 138 + (width - 196) / 2, width - 58],
    top: 34,
    bottom: tall - 14,
  })
  // While a grip is held the scales stay put, so that the grip stays under the finger.
  let kept: { scales: Scales; units: string } | undefined
  const scales = $derived.by(() => {
    if (dragging && kept?.units === preferences.units && stillFits(kept.scales, ribbon))
      return kept.scales
    kept = { scales: ribbon.scales, units: preferences.units }
    return kept.scales
  })

  const levels = $derived({
    cut_out: heights(ribbon.cut_out, scales, frame),
    cut_in: heights(ribbon.cut_in, scales, frame),
    pre_charge: ribbon.pre_charge ? heights(ribbon.pre_charge, scales, frame) : undefined,
    settled: ribbon.settled ? heights(ribbon.settled, scales, frame) : undefined,
    ghost: ribbon.ghost.map((level) => heights(level, scales, frame)),
  })
  /** How far the lines may lie from where they are drawn; not while they move. */
  const edges = $derived(
    (board.certainty?.edges ?? []).map(({ point, upper, lower }) => ({
      point,
      d: area(heights(upper, scales, frame), heights(lower, scales, frame), frame),
    })),
  )
  const sureRun = $derived(board.certainty?.results.find((each) => each.result === 'run')?.text)
  const dips = $derived(ribbon.dips ?? false)
  const gripsY = $derived(GRIPS.map(gripHeight))
  const pillsY = $derived(spread(gripsY, narrow ? 48 : 40, frame.top, frame.bottom))
  const drawdown = $derived(ribbon.cut_out.held_m3 - ribbon.cut_in.held_m3)
  const marks = $derived(
    ribbon.marks.filter(
      (mark) => mark.gauge_pa <= scales.gauge.most && mark.gauge_pa >= scales.gauge.least,
    ),
  )
  const marksY = $derived(
    spread(
      marks.map((mark) => height(mark.gauge_pa, scales.gauge, frame.top, frame.bottom)),
      15,
      frame.top - 4,
      frame.bottom,
    ),
  )

  /** A grip stands where it was put, even before the answer has come. */
  function gripHeight(grip: GripId): number {
    const value = board.value(gripPath(grip))
    const pa = typeof value === 'number' ? value : gaugeOf(grip)
    return height(pa + offsetOf(grip), scales.gauge, frame.top, frame.bottom)
  }
  /** The pre-charge is set at the tank: where that stands higher, it is drawn at what the gauge shows of it. */
  const offsetOf = (grip: GripId) => (grip === 'pre_charge' ? ribbon.tank_head_pa : 0)
  const gaugeOf = (grip: GripId) => (ribbon[grip]?.gauge_pa ?? 0) - offsetOf(grip)
  /** Whether a tick's number has room: the grips' own numbers stand beside the scale too. */
  const clear = (y: number) => gripsY.every((grip) => Math.abs(grip - y) > 11)
  const middle = (a: number, b: number) => (a + b) / 2
  const tick = (value: number, unit: (typeof units)['pressure']) =>
    digits(fromSi(value, unit), { ...unit, decimals: 0 })
  const pressureTick = (value: number) => {
    const shown = fromSi(value, units.pressure)
    return units.pressure.id === 'bar' ? shown.toFixed(1) : shown.toFixed(0)
  }
</script>

<div
  class="relative h-[340px] select-none sm:h-full sm:min-h-80"
  bind:clientWidth={width}
  bind:clientHeight={tall}
>
  <svg {width} height={tall} class="block overflow-visible" data-testid="ribbon">
    <defs>
      <Hatch id="dip-hatch" />
      <filter id="soft-edge"><feGaussianBlur stdDeviation="2.5" /></filter>
    </defs>
    <g class="text-[13px]" fill="var(--color-neutral)">
      <text x={frame.xs[0]} y="14" text-anchor="middle">Gauge, {units.pressure.symbol}</text>
      <text x={frame.xs[1]} y="14" text-anchor="middle"
        >{narrow ? (air ? 'Air' : 'Water') : ribbon.held_title}, {units.held.symbol}</text
      >
      <text x={Math.min(frame.xs[2], width - 40)} y="14" text-anchor="middle"
        >{narrow ? 'Run' : 'Pump run'}, s</text
      >
    </g>

    <path
      data-testid="band"
      d={area(levels.cut_out, levels.cut_in, frame)}
      fill="var(--zd-water)"
    />
    {#if levels.pre_charge && dips}
      <path
        data-testid="dip"
        d={area(levels.pre_charge, levels.cut_in, frame, 1)}
        fill="url(#dip-hatch)"
      />
    {:else if levels.pre_charge}
      <path d={area(levels.cut_in, levels.pre_charge, frame)} fill="var(--zd-sand)" />
    {/if}
    {#if edges.length}
      <InTurn at={1}>
        {#each edges as edge (edge.point)}
          <path
            data-testid="soft-edge"
            d={edge.d}
            fill="var(--color-secondary)"
            opacity="0.22"
            filter="url(#soft-edge)"
          />
        {/each}
      </InTurn>
    {/if}
    {#each levels.ghost as ys, at (at)}
      <path
        data-testid="ghost"
        d={curve(ys, frame, 0, 1)}
        fill="none"
        stroke="var(--color-secondary)"
        stroke-width="2"
        stroke-dasharray="2 5"
      />
    {/each}
    {#each ribbon.threads as thread (thread.gauge_pa)}
      <path
        d={curve(heights(thread, scales, frame), frame)}
        fill="none"
        stroke="var(--color-secondary)"
        opacity="0.28"
      />
    {/each}
    {#if levels.ghost.length}
      <text
        x={frame.xs[1] - 12}
        y={middle(levels.ghost[0]![1], levels.ghost[1]![1]) + 5}
        text-anchor="end"
        class="text-[13px]"
        fill="var(--color-secondary)">re-aired</text
      >
    {/if}

    {#each [0, 1, 2] as axis (axis)}
      {@const scale = [scales.gauge, scales.held, scales.run][axis]!}
      {@const x = frame.xs[axis]!}
      <path
        d="M{x} {frame.top - 6}V{frame.bottom + 6}"
        stroke="var(--color-base-content)"
        stroke-width="2.5"
      />
      {#each scale.ticks as at (at)}
        {@const y = height(at, scale, frame.top, frame.bottom)}
        <path d="M{x} {y}h{axis === 0 ? -8 : 8}" stroke="var(--color-base-content)" />
        {#if axis === 0 ? !narrow && clear(y) : axis === 1 ? at !== 0 : at >= 0}
          <text
            x={axis === 0 ? x - 12 : x + 11}
            y={y + 4.5}
            text-anchor={axis === 0 ? 'end' : 'start'}
            fill="var(--color-neutral)"
            class="font-mono text-[13px]"
            >{axis === 0
              ? pressureTick(at)
              : tick(at, axis === 1 ? units.held : units.duration)}</text
          >
        {/if}
      {/each}
    {/each}

    <path
      d={curve(levels.cut_out, frame)}
      fill="none"
      stroke="var(--color-secondary)"
      stroke-width="3"
    />
    <path
      d={curve(levels.cut_in, frame)}
      fill="none"
      stroke="var(--color-secondary)"
      stroke-width="3"
    />
    {#if levels.pre_charge}
      <path
        d={curve(levels.pre_charge, frame, 0, dips ? 1 : 2)}
        fill="none"
        stroke={dips ? 'var(--color-error)' : 'var(--color-accent)'}
        stroke-width="2.5"
        stroke-dasharray="7 5"
      />
    {/if}
    {#if levels.settled && ribbon.settled}
      <path
        data-testid="settled"
        d={curve(levels.settled, frame, 0, 1)}
        fill="none"
        stroke="var(--color-accent)"
        stroke-width="2.5"
        stroke-dasharray="7 5"
      />
      {#if !narrow}
        <text
          x={frame.xs[1] - 10}
          y={levels.settled[1] + (levels.settled[1] - levels.cut_out[1] > 22 ? -8 : 18)}
          text-anchor="end"
          class="text-[13px]"
          fill="var(--color-accent)"
          >settles to {text(ribbon.settled.gauge_pa, 'pressure', preferences.units)}</text
        >
      {/if}
    {/if}

    {#each marks as mark, at (mark.id)}
      {@const y = height(mark.gauge_pa, scales.gauge, frame.top, frame.bottom)}
      <path
        d="M{frame.xs[0] - 8} {y}h34L{frame.xs[0] + 40} {marksY[at]}"
        stroke={mark.holds ? 'var(--color-error)' : 'var(--color-neutral)'}
        stroke-width="2"
        fill="none"
      />
      <text
        x={frame.xs[0] + 44}
        y={marksY[at]! + 4}
        fill={mark.holds ? 'var(--color-error)' : 'var(--color-neutral)'}
        class="text-[12.5px] [paint-order:stroke]"
        stroke="var(--color-base-200)"
        stroke-width="3">{pressureTick(mark.gauge_pa)} {mark.title}</text
      >
    {/each}

    <g class="figure pointer-events-none" fill="var(--color-secondary)" text-anchor="middle">
      {#if drawdown > 0}
        <text
          x={middle(frame.xs[0], frame.xs[1])}
          y={labelHeight(levels, frame, 0, narrow ? 40 : 112)}
          class={narrow ? 'text-base' : 'text-xl'}
          >{text(drawdown, ribbon.held_dimension, preferences.units)}{narrow
            ? ''
            : ' per start'}</text
        >
      {/if}
      <text
        x={middle(frame.xs[1], frame.xs[2]) + (narrow ? 8 : 0)}
        y={labelHeight(levels, frame, 1, narrow ? 24 : 32)}
        class={narrow ? 'text-base' : 'text-xl'}
        >{ribbon.cut_out.run_s == null
          ? 'never stops'
          : text(ribbon.cut_out.run_s, 'duration', preferences.units)}{#if sureRun && !narrow}<tspan
            class="text-sm"
            dx="8">{sureRun}</tspan
          >{/if}</text
      >
    </g>

    {#each GRIPS as grip, place (grip)}
      {@const brass = grip === 'pre_charge'}
      <Grip
        {board}
        {grip}
        at={gripsY[place]!}
        pill={pillsY[place]!}
        axis={frame.xs[0]}
        {narrow}
        colour={brass ? 'var(--color-accent)' : 'var(--color-secondary)'}
        ink={brass ? 'var(--color-accent-content)' : 'var(--color-secondary-content)'}
        toPa={(y) => valueAtHeight(y, scales.gauge, frame.top, frame.bottom) - offsetOf(grip)}
        onhold={(held) => (dragging = held)}
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
