<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { text, type Dimension } from '../../domain/units'
  import { byClock, isCounted } from './times'
  import type { Cycle, RecordingState } from './recording.svelte'

  /** The cycles of the window as a table; one that is pressed is laid over its prediction. */
  let { at }: { at: RecordingState } = $props()
  const MOST = 60
  const rows = $derived(at.cycles?.rows.slice(0, MOST) ?? [])
  const count = $derived(at.cycles?.count ?? 0)
  const shown = (value: number | null | undefined, dimension: Dimension) =>
    value == null ? '–' : text(value, dimension, preferences.units)
  const clock = (time: number | null | undefined) => {
    if (time == null) return 'before'
    return isCounted(time)
      ? `${Math.round(time)} s`
      : byClock(time, at.zone, { timeStyle: 'medium' })
  }
  const isChosen = (cycle: Cycle) => cycle.start_s != null && cycle.start_s === at.chosen?.start_s
</script>

<div class="max-h-96 overflow-auto rounded-box border border-base-300 bg-base-100">
  <table class="table-pin-rows table">
    <caption class="px-3 pt-2 text-left text-sm text-neutral"
      >{count}
      {count === 1 ? 'cycle' : 'cycles'} in this window{count > MOST
        ? `, the first ${MOST}`
        : ''}</caption
    >
    <thead>
      <tr
        ><th>Start</th><th class="text-right">On at</th><th class="text-right">Off at</th><th
          class="text-right">Run</th
        ><th class="text-right">Rest after</th><th class="text-right">Lowest</th></tr
      >
    </thead>
    <tbody>
      {#each rows as cycle, n (n)}
        <tr class={isChosen(cycle) ? 'bg-(--zd-sand)' : ''}>
          <td
            ><button
              type="button"
              class="btn min-h-10 px-2 btn-ghost"
              aria-pressed={isChosen(cycle)}
              onclick={() => at.choose(isChosen(cycle) ? undefined : cycle)}
              >{clock(cycle.start_s)}</button
            ></td
          >
          <td class="figure text-right whitespace-nowrap">{shown(cycle.cut_in_pa, 'pressure')}</td>
          <td class="figure text-right whitespace-nowrap">{shown(cycle.cut_out_pa, 'pressure')}</td>
          <td class="figure text-right whitespace-nowrap">{shown(cycle.run_s, 'duration')}</td>
          <td class="figure text-right whitespace-nowrap">{shown(cycle.rest_s, 'duration')}</td>
          <td class="figure text-right whitespace-nowrap">{shown(cycle.lowest_pa, 'pressure')}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
