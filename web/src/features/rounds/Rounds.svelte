<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import Segmented from '../../ui/Segmented.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import { startVisit } from '../../domain/visits'
  import { connection } from '../../api/connection.svelte'
  import { session } from '../../api/session.svelte'
  import { navigate } from '../../router'
  import { grouped, switches } from './rounds'
  import AddSystem from './AddSystem.svelte'
  import SystemRow from './SystemRow.svelte'

  let rounds = $state.raw<Schemas['RoundsOut'] | undefined>()
  let problem = $state<Problem | undefined>()
  let search = $state('')
  let open = $state.raw<Record<string, string>>({})
  let nextCheck = $state.raw<Record<string, Schemas['NextCheckOut']>>({})
  let by = $state<'site' | 'date'>('site')

  async function load() {
    // All at once: a row that grew when the rest arrived would slip away under the thumb.
    const [asked, { data: visits }, { data: told }] = await Promise.all([
      outcome(api.GET('/api/rounds')),
      outcome(api.GET('/api/visits')),
      outcome(api.GET('/api/next-checks')),
    ])
    if (asked.problem?.status === 401) session.ended()
    nextCheck = Object.fromEntries((told ?? []).map((each) => [each.system, each]))
    open = Object.fromEntries((visits ?? []).map((visit) => [visit.system, visit.id]))
    ;({ data: rounds, problem } = asked)
  }
  async function visit(system: string) {
    const started = await startVisit(system)
    problem = started.problem
    if (started.visit) navigate('/visits/:id', { params: { id: started.visit } })
  }
  $effect(() => {
    if (session.current.signed_in) void load()
  })

  // What was sent, here or by another tab, changes the order.
  $effect(() => connection.onwrite(() => void load()))

  const groups = $derived(grouped(rounds?.sites ?? [], { open, nextCheck, search, by }))
  const mayAdd = $derived(rounds?.workspaces.some((workspace) => workspace.may_add))
  let adding = $state(false)
  const added = (id: string) => navigate('/systems/:id/decide', { params: { id } })
  const ways = [
    { id: 'site' as const, title: 'By site' },
    { id: 'date' as const, title: 'By date' },
  ]
</script>

<svelte:head><title>Rounds · Zero Dip</title></svelte:head>
<TopBar />
<main class="mx-auto max-w-5xl px-4 py-5">
  <div class="mb-5 flex flex-wrap items-end justify-between gap-3">
    <div>
      <h1 class="text-3xl font-bold">Rounds</h1>
      <p class="text-neutral">What needs a person first stands first.</p>
    </div>
    <div class="flex flex-wrap items-center gap-3">
      <a class="btn min-h-12" href="/trouble">Trouble</a>
      <a class="btn min-h-12" href="/bench">Bench</a>
      {#if mayAdd}
        <button type="button" class="btn min-h-12" onclick={() => (adding = true)}
          >Add a system</button
        >
      {/if}
      <Segmented label="Order" options={ways} value={by} onchange={(way) => (by = way)} />
    </div>
    <label class="w-full">
      <span class="sr-only">Find a site or a system</span>
      <input
        class="input input-lg w-full"
        type="search"
        placeholder="Find a site or a system"
        bind:value={search}
      />
    </label>
  </div>
  {#if problem}
    <p role="alert" class="alert alert-error">
      {problem.title}. {problem.detail}
      <button class="btn btn-sm" onclick={load}>Try again</button>
    </p>
  {/if}
  {#if by === 'date'}
    <p class="mb-4 flex flex-wrap items-center gap-x-4 text-sm">
      <a class="link inline-flex min-h-12 items-center" href="/api/due.ics" download
        >As a calendar file</a
      >
      <a class="link inline-flex min-h-12 items-center" href="/workspace"
        >As an address for a calendar</a
      >
    </p>
  {/if}
  {#each groups as group (group.id)}
    <section class="mb-6" aria-labelledby="group-{group.id}">
      <h2 id="group-{group.id}" class="mb-2 font-bold">{group.title}</h2>
      <ul class="grid gap-2">
        {#each group.rows as row (row.system.id)}
          <SystemRow {row} dated={by === 'date'} onvisit={() => visit(row.system.id)} />
        {/each}
      </ul>
    </section>
  {:else}
    {#if rounds}
      <p>{search ? 'No site or system has that name.' : 'No systems yet.'}</p>
    {:else if !problem}
      <p class="text-neutral">Reading the rounds…</p>
    {/if}
  {/each}
  {#if rounds}
    {#await switches() then { default: Switches }}<Switches {search} />{/await}
  {/if}
</main>
{#if adding && rounds}
  <AddSystem {rounds} onadded={added} onclose={() => (adding = false)} />
{/if}
