<script lang="ts">
  import { api, type Schemas } from '../../api/client'
  import { Query } from '../../api/query.svelte'
  import { dateOf, day } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'
  import Trend from '../../charts/Trend.svelte'

  /** What the closed visits say: series, the day on which the pre-charge leaves its band, the next check. */
  let { system }: { system: string } = $props()
  const asked = new Query<Schemas['Trends']>()
  const trends = $derived(asked.data)

  $effect(() => {
    const params = { path: { system_id: system }, query: { units: preferences.units } }
    void asked.ask(api.GET('/api/systems/{system_id}/trends', { params }))
  })
  const month = (s: number) => dateOf(s).toLocaleDateString([], { month: 'long', year: 'numeric' })
  const leaves = $derived.by(() => {
    const { likely_s, earliest_s, latest_s } = trends?.leaves ?? {}
    if (likely_s == null) return ''
    if (likely_s === latest_s) return `Pre-charge was left outside its band in ${month(likely_s)}.`
    const from = earliest_s == null ? '–' : month(earliest_s)
    const until = latest_s == null ? 'perhaps never' : month(latest_s)
    return `Pre-charge leaves its band about ${month(likely_s)} (90 % sure: ${from} to ${until}).`
  })
</script>

{#if trends?.series.length}
  <section aria-labelledby="trends" class="mb-6">
    <h2 id="trends" class="mb-2 font-bold">Over the visits</h2>
    <div class="mb-2 grid gap-1">
      {#if trends.due_s != null}<p>Next check {day(dateOf(trends.due_s))}.</p>{/if}
      {#if leaves}<p>{leaves}</p>{/if}
      {#if trends.may_be_out}<p class="font-bold">▲ Its air may be out of its band now.</p>{/if}
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
