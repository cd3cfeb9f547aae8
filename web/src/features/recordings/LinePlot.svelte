<script lang="ts">
  import { onMount } from 'svelte'
  import uPlot from 'uplot'
  import 'uplot/dist/uPlot.min.css'
  import { preferences } from '../../domain/preferences.svelte'
  import { fromSi, unitFor } from '../../domain/units'
  import { pointed } from './pointers'
  import { bars, series } from './series'
  import { byClock, isCounted } from './times'
  import type { RecordingState } from './recording.svelte'

  /** The line: wheel, pinch and keys; the pump's runs behind it, the chosen cycle's prediction over it. */
  let { at }: { at: RecordingState } = $props()
  let box: HTMLDivElement
  let plot: uPlot | undefined
  const unit = $derived(unitFor('pressure', preferences.units))
  const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name)
  /** Asked once for a plot: while it is drawn every question makes the page's layout anew. */
  let water = ''
  let accent = ''
  let ink = ''
  const isSingle = $derived(at.line?.least_pa.every((least, n) => least === at.line!.most_pa[n]))
  const straight = uPlot.paths.linear!()

  const data = $derived(series(at.line, at.predicted, (pa) => fromSi(pa, unit)))

  function runs(drawn: uPlot) {
    const { ctx, bbox } = drawn
    const { rows = [], count = 0 } = at.cycles ?? {}
    if (rows.length < count) return // half of them would look like no runs in the other half
    ctx.save()
    ctx.fillStyle = water
    for (const cycle of rows) {
      const from = drawn.valToPos(cycle.start_s ?? at.window[0], 'x', true)
      const until = drawn.valToPos(cycle.stop_s ?? at.window[1], 'x', true)
      const left = Math.max(from, bbox.left)
      const right = Math.min(until, bbox.left + bbox.width)
      if (right <= left) continue
      ctx.fillRect(left, bbox.top, Math.max(right - left, 1), bbox.height)
      if (cycle.start_s != null && cycle.start_s === at.chosen?.start_s) {
        ctx.setLineDash([])
        ctx.strokeStyle = accent
        ctx.lineWidth = 3
        ctx.strokeRect(left, bbox.top + 2, right - left, bbox.height - 4)
      }
    }
    ctx.restore()
  }

  /** Least and most of many samples stand as bars beside each other, which are drawn far sooner than two
   * lines with what is between; single samples are joined by lines. */
  const lined: uPlot.Series = {
    width: 1,
    points: { show: false },
    paths: (drawn, which, first, last) => (isSingle ? straight(drawn, which, first, last) : null),
  }
  function barred(drawn: uPlot) {
    if (isSingle) return
    const { ctx, bbox } = drawn
    ctx.save()
    ctx.beginPath()
    ctx.rect(bbox.left, bbox.top, bbox.width, bbox.height)
    ctx.clip()
    ctx.fillStyle = ink
    const x = (time: number) => drawn.valToPos(time, 'x', true)
    const y = (value: number) => drawn.valToPos(value, 'y', true)
    for (const bar of bars(data, x, y)) ctx.fillRect(...bar)
    ctx.restore()
  }

  function options(width: number): uPlot.Options {
    const words = {
      stroke: colour('--color-neutral'),
      font: '14px "Atkinson Hyperlegible Next Variable"',
    }
    const grid = { stroke: colour('--color-base-300'), width: 1 }
    const counted = isCounted(at.ends[1])
    /** A place on the axis: by the clock, by the day where days are apart, or counted from the start. */
    function named(time: number, step: number) {
      if (counted) return `${Math.round(time)} s`
      const day = { day: 'numeric', month: 'short' } as const
      const clock = { hour: '2-digit', minute: '2-digit' } as const
      const fine = step < 60 ? { ...clock, second: '2-digit' as const } : clock
      const isDay = step >= 86400 || byClock(time, at.zone, clock) === '00:00'
      return byClock(time, at.zone, isDay ? day : fine)
    }
    return {
      width,
      height: 300,
      tzDate: (time) => uPlot.tzDate(new Date(time * 1000), at.zone),
      legend: { show: false },
      cursor: { drag: { x: false, y: false }, points: { show: false } },
      scales: { x: { time: !counted, range: () => at.window } },
      axes: [
        {
          ...words,
          grid,
          ticks: grid,
          values: (_, splits, _axis, _space, step) => splits.map((time) => named(time, step)),
        },
        { ...words, grid, ticks: grid, size: 54, label: unit.symbol, labelSize: 20 },
      ],
      series: [
        {},
        { ...lined, stroke: ink },
        { ...lined, stroke: ink },
        {
          stroke: colour('--color-accent'),
          width: 2.5,
          dash: [8, 5],
          points: { show: false },
          spanGaps: true,
        },
      ],
      hooks: { drawClear: [runs], drawAxes: [barred] },
    }
  }
  function make() {
    plot?.destroy()
    at.setWidth(box.clientWidth)
    water = colour('--zd-water')
    accent = colour('--color-accent')
    ink = colour('--color-base-content')
    plot = new uPlot(options(box.clientWidth), data as uPlot.AlignedData, box)
    plot.over.addEventListener('click', (event) => {
      const time = plot!.posToVal(event.offsetX, 'x')
      const hit = at.cycles?.rows.find(
        (each) => (each.start_s ?? -Infinity) <= time && time <= (each.stop_s ?? Infinity),
      )
      void at.choose(hit)
    })
  }
  onMount(() => {
    make()
    const seen = new ResizeObserver(() => {
      at.setWidth(box.clientWidth)
      plot?.setSize({ width: box.clientWidth, height: 300 })
    })
    seen.observe(box)
    const left = pointed(box, {
      zoom: (by, share) => at.zoom(by, share),
      move: (by) => at.move(by),
    })
    return () => (seen.disconnect(), left(), plot?.destroy())
  })
  $effect(() => {
    void [preferences.theme, preferences.units]
    if (plot) requestAnimationFrame(make)
  })
  $effect(() => {
    plot?.setData(data as uPlot.AlignedData)
  })
  $effect(() => {
    void [at.cycles, at.chosen]
    plot?.redraw(false)
  })
  $effect(() => {
    plot?.setScale('x', { min: at.window[0], max: at.window[1] })
  })
  const KEYS: Record<string, () => void> = {
    '+': () => at.zoom(0.5),
    '-': () => at.zoom(2),
    ArrowLeft: () => at.move(-0.25),
    ArrowRight: () => at.move(0.25),
    Home: () => at.look(...at.ends),
  }
  function press(event: KeyboardEvent) {
    const does = KEYS[event.key]
    if (!does) return
    event.preventDefault()
    does()
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  bind:this={box}
  class="w-full touch-pan-y overflow-hidden"
  role="application"
  tabindex="0"
  aria-label="Pressure over time. Plus and minus zoom, arrows move, Home shows all."
  onkeydown={press}
></div>
