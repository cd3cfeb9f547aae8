<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { parts } from '../../domain/units'
  import { GAP_S, SHOWN_S, type LiveState } from './live.svelte'

  /** The line of the last minutes, drawn on a canvas as samples come; where none came there is a gap. */
  let { at }: { at: LiveState } = $props()
  const TALL = 150
  let wide = $state(600)
  let canvas: HTMLCanvasElement | undefined = $state()
  const dial = $derived(at.watch!.dial)
  const span = $derived(dial.cut_out_gauge_pa - dial.cut_in_gauge_pa)
  const low = $derived(Math.max(0, dial.cut_in_gauge_pa - 0.6 * span))
  const number = (pa: number) => parts(pa, 'pressure', preferences.units).number

  $effect(() => {
    void at.count
    void preferences.theme
    const frame = requestAnimationFrame(draw)
    return () => cancelAnimationFrame(frame)
  })
  function draw() {
    const context = canvas?.getContext('2d')
    if (!canvas || !context) return
    const dense = devicePixelRatio
    const [width, height] = [wide * dense, TALL * dense]
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height })
    const colour = getComputedStyle(canvas)
    const values = at.line.map(([, pa]) => pa)
    const least = Math.min(low, ...values)
    const most = Math.max(dial.cut_out_gauge_pa + 0.3 * span, ...values)
    const y = (pa: number) => (height - 8) * (1 - (pa - least) / (most - least)) + 4
    const x = (t: number) => width * (1 - (at.latest - t) / SHOWN_S)
    context.clearRect(0, 0, width, height)
    context.lineWidth = dense
    context.strokeStyle = colour.getPropertyValue('--color-secondary')
    context.fillStyle = colour.getPropertyValue('--color-neutral')
    context.font = `${13 * dense}px ${colour.fontFamily}`
    for (const pa of [dial.cut_in_gauge_pa, dial.cut_out_gauge_pa]) {
      context.beginPath()
      context.setLineDash([2 * dense, 4 * dense])
      context.moveTo(0, y(pa))
      context.lineTo(width, y(pa))
      context.stroke()
      context.fillText(number(pa), 6 * dense, y(pa) - 4 * dense)
    }
    context.setLineDash([])
    context.lineWidth = 2 * dense
    context.strokeStyle = colour.getPropertyValue('--color-base-content')
    context.beginPath()
    let before = -Infinity
    for (const [t, pa] of at.line) {
      if (t - before > GAP_S) context.moveTo(x(t), y(pa))
      else context.lineTo(x(t), y(pa))
      before = t
    }
    context.stroke()
  }
</script>

<figure class="rounded-box border border-base-300 bg-base-100 px-2 py-1">
  <div bind:clientWidth={wide}>
    <canvas
      bind:this={canvas}
      class="block w-full"
      style:height="{TALL}px"
      aria-label="The last minutes"
    ></canvas>
  </div>
  <figcaption class="flex justify-between text-sm text-neutral">
    <span>3 min ago</span><span>now</span>
  </figcaption>
</figure>
