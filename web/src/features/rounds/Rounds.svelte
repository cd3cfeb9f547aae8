<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../lib/api/client'
  import BandGlyph from '../../lib/controls/BandGlyph.svelte'
  import TopBar from '../../lib/controls/TopBar.svelte'
  import VerdictMark from '../../lib/controls/VerdictMark.svelte'
  import { startVisit } from '../../lib/visits'
  import { preferences } from '../../lib/preferences.svelte'
  import { session } from '../../lib/session.svelte'
  import { KIND_WORDS } from '../../lib/plates'
  import { parts } from '../../lib/units'
  import { navigate } from '../../router'

  let rounds = $state<Schemas['RoundsOut'] | undefined>()
  let problem = $state<Problem | undefined>()
  let search = $state('')
  let open = $state<Record<string, string>>({})

  async function load() {
    ;({ data: rounds, problem } = await outcome(api.GET('/api/rounds')))
    if (problem?.status === 401) session.ended()
    const { data: visits } = await outcome(api.GET('/api/visits'))
    open = Object.fromEntries((visits ?? []).map((visit) => [visit.system, visit.id]))
  }
  async function visit(system: string) {
    const started = await startVisit(system)
    problem = started.problem
    if (started.visit) navigate('/visits/:id', { params: { id: started.visit } })
  }
  $effect(() => {
    if (session.current.signed_in) void load()
  })

  const sites = $derived(
    (rounds?.sites ?? [])
      .map((site) => ({ ...site, systems: site.systems.filter((system) => matches(site.name, system.name)) }))
      .filter((site) => site.systems.length > 0),
  )
  const matches = (...names: string[]) => names.join(' ').toLowerCase().includes(search.trim().toLowerCase())
  const pressure = (pa: number) => parts(pa, 'pressure', preferences.units).number
  const unit = $derived(parts(0, 'pressure', preferences.units).unit)

  function remains(glance: Schemas['Glance']): string {
    const counted: [number, string][] = [
      [glance.stops, glance.stops === 1 ? 'stop' : 'stops'],
      [glance.cautions, glance.cautions === 1 ? 'caution' : 'cautions'],
      [glance.unread, 'not read'],
    ]
    return counted.flatMap(([count, word]) => (count ? [`${count} ${word}`] : [])).join(' · ')
  }
</script>

<svelte:head><title>Rounds · Zero Dip</title></svelte:head>
<TopBar />
<main class="mx-auto max-w-5xl px-4 py-5">
  <div class="mb-5 flex flex-wrap items-end justify-between gap-3">
    <div>
      <h1 class="text-3xl font-bold">Rounds</h1>
      <p class="text-neutral">What needs a person first stands first.</p>
    </div>
    <label class="w-full sm:w-72">
      <span class="sr-only">Find a site or a system</span>
      <input class="input input-lg w-full" type="search" placeholder="Find a site or a system" bind:value={search} />
    </label>
  </div>
  {#if problem}
    <p role="alert" class="alert alert-error">
      {problem.title}. {problem.detail}
      <button class="btn btn-sm" onclick={load}>Try again</button>
    </p>
  {/if}
  {#each sites as site (site.id)}
    <section class="mb-6" aria-labelledby="site-{site.id}">
      <h2 id="site-{site.id}" class="mb-2 font-bold">{site.name}</h2>
      <ul class="grid gap-2">
        {#each site.systems as system (system.id)}
          {@const seen = system.glance}
          <li class="flex items-stretch rounded-box border border-base-300 bg-base-100">
            <a href="/systems/{system.id}" class="flex min-h-24 min-w-0 flex-1 items-center gap-3 px-3 py-2">
              <BandGlyph glance={seen} />
              <VerdictMark verdict={seen.verdict} size={18} />
              <span class="grid min-w-0 flex-1 gap-0.5">
                <span class="text-lg leading-snug font-bold">{system.name}</span>
                <span class="text-sm">{seen.headline[preferences.units]}</span>
                <span class="text-sm text-neutral"
                  >{[KIND_WORDS[seen.kind], remains(seen)].filter(Boolean).join(' · ')}</span
                >
                <span class="text-sm sm:hidden"
                  ><span class="figure">{pressure(seen.cut_in_gauge_pa)}/{pressure(seen.cut_out_gauge_pa)}</span>
                  {unit}{seen.pre_charge_gauge_pa == null ? '' : `, air ${pressure(seen.pre_charge_gauge_pa)}`}</span
                >
              </span>
              <span class="hidden text-right sm:block">
                <span class="figure text-2xl">{pressure(seen.cut_in_gauge_pa)}/{pressure(seen.cut_out_gauge_pa)}</span>
                <span class="text-sm">{unit}</span>
                {#if seen.pre_charge_gauge_pa != null}
                  <span class="block text-sm text-neutral">air {pressure(seen.pre_charge_gauge_pa)} {unit}</span>
                {/if}
              </span>
            </a>
            <div class="flex w-20 flex-col border-l border-base-300 sm:w-28">
              <button
                type="button"
                class="min-h-12 flex-1 cursor-pointer font-bold text-accent"
                aria-label="{open[system.id] ? 'Go on with the visit' : 'Visit'}, {system.name}"
                onclick={() => visit(system.id)}>{open[system.id] ? 'Go on' : 'Visit'}</button
              >
              <a
                href="/systems/{system.id}/decide"
                class="grid min-h-12 flex-1 place-items-center border-t border-base-300"
                aria-label="Decide, {system.name}">Decide</a
              >
            </div>
          </li>
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
</main>
