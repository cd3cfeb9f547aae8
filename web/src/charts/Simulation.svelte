<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import { fromSi, text, toSi, unitFor } from '../domain/units'
  import type { BoardState } from '../domain/board.svelte'
  import SimulationPlot from './SimulationPlot.svelte'

  /** The next quarter of an hour at a draw that is slid. */
  let { board }: { board: BoardState } = $props()
  const shown = $derived(board.result!.simulation!)
  const ribbon = $derived(board.ribbon!)
  const air = $derived(ribbon.holds === 'air')
  const flow = $derived(unitFor(ribbon.flow_dimension, preferences.units))
  const say = (m3_s: number) => text(m3_s, ribbon.flow_dimension, preferences.units)
  const most = $derived(fromSi(shown.most_draw_m3_s, flow))
  const worst = $derived(shown.worst_draw_m3_s)

  function slide(event: Event & { currentTarget: HTMLInputElement }) {
    board.drawAt(toSi(event.currentTarget.valueAsNumber, flow))
  }
</script>

<section aria-label="The next quarter of an hour">
  <div class="flex flex-wrap items-center gap-x-4 text-sm">
    <label for="draw" class="sr-only">{air ? 'Air used' : 'Draw'}</label>
    <span class="text-neutral">A quarter of an hour {air ? 'using' : 'at'}</span>
    <span class="figure text-lg">{say(shown.draw_m3_s)}</span>
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
        aria-valuetext={say(shown.draw_m3_s)}
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
      {worst == null ? 'no worst draw' : `worst ${air ? 'use' : 'draw'} ${say(worst)}`}
    </button>
  </div>
  <SimulationPlot {shown} setPoints={[ribbon.cut_out.gauge_pa, ribbon.cut_in.gauge_pa]} />
  <p
    class="text-sm {shown.trail.dip_s > 0 ? 'font-bold text-error' : ''}"
    data-testid="simulation-caption"
  >
    {shown.caption}
  </p>
</section>
