<script lang="ts">
  import { api, outcome } from '../../api/client'
  import { connection } from '../../api/connection.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import SharedLinks from '../../ui/SharedLinks.svelte'
  import ReportShown from './ReportShown.svelte'

  /** The report to hand over, a link to it for the customer, the label for the switch. */
  let {
    visit,
    system,
    mayShare,
    waiting,
  }: { visit: string; system: string; mayShare: boolean; waiting: number } = $props()
  const at = (link_id: string) => ({ path: { visit_id: visit, link_id } })
  const read = () =>
    outcome(api.GET('/api/visits/{visit_id}/links', { params: { path: { visit_id: visit } } }))
  const make = (id: string, days: number) =>
    outcome(
      api.PUT('/api/visits/{visit_id}/links/{link_id}', {
        params: at(id),
        body: { days, units: preferences.units },
      }),
    )
  const revoke = (id: string) =>
    outcome(api.DELETE('/api/visits/{visit_id}/links/{link_id}', { params: at(id) }))
</script>

<section aria-labelledby="documents" class="grid gap-2">
  <h2 id="documents" class="font-bold">Documents</h2>
  {#if waiting}
    <p class="text-sm">{waiting} not sent yet: missing in the report until sent.</p>
  {/if}
  <ReportShown {visit} />
  {#if connection.away}
    <p class="text-sm">
      PDF, label and links for the customer are made by the server: they need a connection.
    </p>
  {:else}
    {@render printed()}
  {/if}
</section>

{#snippet printed()}
  <div class="flex flex-wrap gap-2">
    <a
      class="btn min-h-12 flex-1"
      href="/api/visits/{visit}/report.pdf?units={preferences.units}"
      target="_blank"
      rel="noopener">Report (PDF)</a
    >
    <a
      class="btn min-h-12 flex-1"
      href="/api/labels.pdf?system={system}&units={preferences.units}"
      target="_blank"
      rel="noopener">Label for the switch</a
    >
  </div>
  <SharedLinks {read} {make} {revoke} {mayShare} label="Make a link for the customer" />
{/snippet}
