<script lang="ts">
  import { api, outcome, type Schemas } from '../../lib/api/client'
  import { dateOf, day } from '../../lib/dates'
  import { preferences } from '../../lib/preferences.svelte'
  import Trend from './Trend.svelte'

  /** What the closed visits say: series, the day on which the pre-charge leaves its band, the next check. */
  let { system }: { system: string } = $props()
  let trends = $state.raw<Schemas['Trends'] | undefined>()

  $effect(() => {
    let asked = true
    const params = { path: { system_id: system }, query: { units: preferences.units } }
    void outcome(api.GET('/api/systems/{system_id}/trends', { params })).then(({ data }) => {
      if (data && asked) trends = data as Schemas['Trends']
    })
    return () => (asked = false) // an answer in other units may come late
  })
  const month = (s: number) => dateOf(s).toLocaleDateString([], { month: 'long', year: 'numeric' })
  const leaves = $derived.by(() => {
    const [likely, earliest, latest] = trends?.leaves_s ?? []
    if (likely == null) return ''
    const until = latest == null ? 'perhaps never' : month(latest)
    return `Pre-charge leaves its band about ${month(likely)} (nine in ten: ${earliest == null ? '–' : month(earliest)} to ${until}).`
  })
</script>

{#if trends?.series.length}
  <section aria-labelledby="trends" class="mb-6">
    <h2 id="trends" class="mb-2 font-bold">Over the visits</h2>
    <div class="mb-2 grid gap-1">
      {#if trends.due_s != null}<p>Next check {day(dateOf(trends.due_s))}.</p>{/if}
      {#if leaves}<p>{leaves}</p>{/if}
      {#if trends.learned}<p>{trends.learned}</p>{/if}
      {#each trends.drifting as line (line)}<p class="font-bold">▲ {line}</p>{/each}
    </div>
    <div class="grid gap-2 sm:grid-cols-2">
      {#each trends.series as series (series.id)}
        <Trend {series} band={series.id === 'pre_charge' ? trends.band_gauge_pa : null} />
      {/each}
    </div>
  </section>
{/if}
