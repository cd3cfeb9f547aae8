<script lang="ts">
  import { api, outcome, type Schemas } from '../../lib/api/client'
  import { dateOf, day } from '../../lib/dates'
  import { preferences } from '../../lib/preferences.svelte'

  /** When to come again, as this visit sees it; `stamp` changes whenever the visit does. */
  let { visit, stamp }: { visit: string; stamp: unknown } = $props()
  let told = $state.raw<Schemas['Trends'] | undefined>()
  $effect(() => {
    void stamp
    let asked = true
    const params = { path: { visit_id: visit }, query: { units: preferences.units } }
    void outcome(api.GET('/api/visits/{visit_id}/trends', { params })).then(({ data }) => {
      if (data && asked) told = data as Schemas['Trends']
    })
    return () => (asked = false) // an answer in other units may come late
  })
  const likely = $derived(told?.leaves_s?.[0])
</script>

{#if told?.due_s}
  <p data-testid="next-check">
    Next check <span class="font-bold">{day(dateOf(told.due_s))}</span> ({told.due_by.toLowerCase()}){likely
      ? `; at the measured loss the pre-charge leaves its band about ${day(dateOf(likely))}`
      : ''}.
  </p>
{/if}
