<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import { connection } from '../../api/connection.svelte'
  import { day } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'
  import { uuid } from '../../domain/uuid'
  import ReportShown from './ReportShown.svelte'

  /** The report to hand over, a link to it for the customer, the label for the switch. */
  let {
    visit,
    system,
    mayShare,
    waiting,
  }: { visit: string; system: string; mayShare: boolean; waiting: number } = $props()
  type Link = Schemas['LinkOut']
  let links = $state.raw<Link[]>([])
  let problem = $state<Problem | undefined>()
  let days = $state(30)
  let copied = $state('')
  const SPANS = [7, 30, 90, 365]

  async function load() {
    const got = await outcome(
      api.GET('/api/visits/{visit_id}/links', { params: { path: { visit_id: visit } } }),
    )
    if (got.data) links = got.data
  }
  $effect(() => void load())
  async function share() {
    const path = { visit_id: visit, link_id: uuid() }
    const body = { days, units: preferences.units }
    ;({ problem } = await outcome(
      api.PUT('/api/visits/{visit_id}/links/{link_id}', { params: { path }, body }),
    ))
    await load()
  }
  async function revoke(link: string) {
    const path = { visit_id: visit, link_id: link }
    ;({ problem } = await outcome(
      api.DELETE('/api/visits/{visit_id}/links/{link_id}', { params: { path } }),
    ))
    await load()
  }
  async function copy(link: Link) {
    await navigator.clipboard?.writeText(link.address)
    copied = link.id
  }
  const STATE = { alive: 'Good', expired: 'Expired', revoked: 'No longer shared' } as const
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
  {#if problem}<p role="alert" class="text-sm text-error">{problem.title}. {problem.detail}</p>{/if}
  {#if links.length}{@render shared()}{/if}
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
  {#if mayShare}
    <div class="flex flex-wrap items-end gap-2">
      <label class="grid flex-1 gap-1 text-sm">
        Good for
        <select class="select select-lg w-full" bind:value={days}>
          {#each SPANS as span (span)}<option value={span}>{span} days</option>{/each}
        </select>
      </label>
      <button type="button" class="btn min-h-12 flex-1" onclick={share}
        >Make a link for the customer</button
      >
    </div>
  {/if}
{/snippet}

{#snippet shared()}
  <ul class="grid gap-2" data-testid="links">
    {#each links as link (link.id)}
      <li class="grid gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-2">
        <span class="text-sm">
          <strong>{STATE[link.state]}</strong>{link.state === 'alive'
            ? ` until ${day(link.expires_at)}`
            : ''}, made {day(link.made_at)}{link.made_by ? ` by ${link.made_by}` : ''}
        </span>
        {#if link.state === 'alive'}
          <a
            class="figure break-all underline underline-offset-4"
            href={link.address}
            target="_blank"
            rel="noopener">{link.address}</a
          >
          <span class="flex gap-2">
            <button type="button" class="btn min-h-12 flex-1" onclick={() => copy(link)}
              >{copied === link.id ? 'Copied' : 'Copy'}</button
            >
            {#if mayShare}
              <button type="button" class="btn min-h-12 flex-1" onclick={() => revoke(link.id)}
                >Stop sharing</button
              >
            {/if}
          </span>
        {/if}
      </li>
    {/each}
  </ul>
{/snippet}
