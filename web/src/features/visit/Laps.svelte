<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Every run that was timed, and the rest before it; those not sent yet included. */
  let { state: at }: { state: VisitState } = $props()
  const laps = $derived(
    at
      .series('lap')
      .map(({ id, value }) => ({ id, ...(value as { run_s: number; rest_s: number | null }) })),
  )
  const gauge = (id: string) => at.visit!.entries.find((each) => each.id === id)?.by_gauge
  const say = (seconds: number) => text(seconds, 'duration', preferences.units)
</script>

{#if laps.length}
  <table class="table table-sm" data-testid="laps">
    <thead
      ><tr><th>Lap</th><th class="text-right">Rest before</th><th class="text-right">Run</th></tr
      ></thead
    >
    <tbody>
      {#each laps as lap, index (lap.id)}
        <tr>
          <td
            ><span class="figure">{index + 1}</span>
            {#if gauge(lap.id)}<span class="text-sm text-neutral">from {gauge(lap.id)}</span
              >{/if}</td
          >
          <td class="figure text-right">{lap.rest_s == null ? '–' : say(lap.rest_s)}</td>
          <td class="figure text-right">{say(lap.run_s)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
