<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import { fromSi, unitFor } from '../domain/units'
  import { gripPath, type BoardState, type GripId } from '../domain/board.svelte'
  import { keyTarget } from './ribbon'

  /** One grip on a pressure scale: a pill beside it and a ring on it, dragged or moved by keys. */
  let {
    board,
    grip,
    at,
    pill,
    axis,
    narrow,
    colour,
    ink,
    toPa,
    onhold = () => {},
  }: {
    board: BoardState
    grip: GripId
    at: number
    pill: number
    axis: number
    narrow: boolean
    colour: string
    ink: string
    toPa: (y: number) => number
    onhold?: (grip: GripId | undefined) => void
  } = $props()

  const NAMES: Record<GripId, { short: string; long: string }> = {
    cut_out: { short: 'out', long: 'Cut-out' },
    cut_in: { short: 'in', long: 'Cut-in' },
    pre_charge: { short: 'air', long: 'Pre-charge' },
  }
  let grabbed: number | undefined
  const unit = $derived(unitFor('pressure', preferences.units))
  const bounds = $derived(board.chart!.grips[grip]!)
  const value = $derived(Number(board.value(gripPath(grip)) ?? 0))
  const number = $derived(board.shown(gripPath(grip), 'pressure') || '–')
  const shown = (pa: number) => Math.round(fromSi(pa, unit) * 100) / 100 || 0

  function grab(event: PointerEvent) {
    const target = event.currentTarget as SVGGElement
    target.setPointerCapture(event.pointerId)
    target.focus()
    grabbed = event.clientY - at
    onhold(grip)
  }
  function drag(event: PointerEvent) {
    if (grabbed !== undefined) board.move(grip, toPa(event.clientY - grabbed))
  }
  function release() {
    grabbed = undefined
    onhold(undefined)
  }
  function press(event: KeyboardEvent) {
    const to = keyTarget(event.key, value, unit.step * unit.factor, bounds)
    if (to === undefined) return
    event.preventDefault()
    board.move(grip, to)
  }
</script>

<g
  role="slider"
  tabindex="0"
  aria-label={NAMES[grip].long}
  aria-orientation="vertical"
  aria-valuemin={shown(bounds.least_gauge_pa)}
  aria-valuemax={shown(bounds.most_gauge_pa)}
  aria-valuenow={shown(value)}
  aria-valuetext="{number} {unit.symbol}"
  data-grip={grip}
  class="group cursor-ns-resize touch-none outline-none"
  onpointerdown={grab}
  onpointermove={drag}
  onpointerup={release}
  onpointercancel={release}
  onkeydown={press}
>
  <rect x="0" y={pill - 24} width={axis + 20} height={narrow ? 48 : 40} fill="transparent" />
  <path d="M94 {pill}L{axis} {at}" stroke={colour} stroke-width="2" />
  <rect
    x="2"
    y={pill - (narrow ? 20 : 16)}
    width="92"
    height={narrow ? 40 : 32}
    rx="20"
    fill={colour}
    class="group-focus-visible:stroke-base-content group-focus-visible:stroke-[3]"
  />
  <text x="48" y={pill + 5.5} text-anchor="middle" fill={ink} class="figure text-base"
    >{NAMES[grip].short} {number}</text
  >
  <circle cx={axis} cy={at} r="9" fill="var(--color-base-100)" stroke={colour} stroke-width="4" />
</g>
