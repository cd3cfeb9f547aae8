<script lang="ts">
  import { api, type Schemas } from '../../api/client'
  import { Query } from '../../api/query.svelte'
  import { dateOf, day } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'

  /** When to come again, as this visit sees it; `stamp` changes whenever the visit does. */
  let { visit, stamp }: { visit: string; stamp: unknown } = $props()
  const asked = new Query<Schemas['Trends']>()
  const told = $derived(asked.data)
  $effect(() => {
    void stamp
    const params = { path: { visit_id: visit }, query: { units: preferences.units } }
    void asked.ask(api.GET('/api/visits/{visit_id}/trends', { params }))
  })
  const likely = $derived(told?.leaves?.likely_s)
</script>

{#if told?.due_s}
  <p data-testid="next-check">
    Next check <span class="font-bold">{day(dateOf(told.due_s))}</span>
    ({told.due_by.toLowerCase()}){likely && likely > told.due_s
      ? `; at the measured loss the pre-charge leaves its band about ${day(dateOf(likely))}`
      : ''}.
    {#if told.may_be_out}<span class="block font-bold">▲ Its air may be out of its band now.</span
      >{/if}
  </p>
{/if}
