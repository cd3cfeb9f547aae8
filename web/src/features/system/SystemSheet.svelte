<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../lib/api/client'
  import BandGlyph from '../../lib/controls/BandGlyph.svelte'
  import TopBar from '../../lib/controls/TopBar.svelte'
  import VerdictMark, { VERDICTS } from '../../lib/controls/VerdictMark.svelte'
  import { day } from '../../lib/dates'
  import { figureAt } from '../../lib/file'
  import { preferences } from '../../lib/preferences.svelte'
  import { session } from '../../lib/session.svelte'
  import { startVisit } from '../../lib/visits'
  import { text, type Dimension, type System } from '../../lib/units'
  import { navigate, route } from '../../router'
  import Timeline from './Timeline.svelte'
  import TrendsPart from './TrendsPart.svelte'
  import { KIND_WORDS, platesFor } from '../../lib/plates'

  let system = $state.raw<Schemas['SystemOut'] | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let moments = $state.raw<Schemas['MomentOut'][]>([])
  const id = $derived((route.params as { id: string }).id)

  async function load() {
    const got = await outcome(api.GET('/api/systems/{system_id}', { params: { path: { system_id: id } } }))
    if (got.problem?.status === 401) session.ended()
    // The units first: what the parts of the sheet ask for is told in them.
    if (got.data) preferences.setUnits(got.data.site.units)
    ;({ data: system, problem } = got)
  }
  async function visit() {
    const started = await startVisit(id)
    problem = started.problem
    if (started.visit) navigate('/visits/:id', { params: { id: started.visit } })
  }
  async function retire(retired: boolean) {
    const params = { path: { system_id: id } }
    const { data, problem: refused } = await outcome(
      api.PUT('/api/systems/{system_id}/retired', { params, body: { retired } }),
    )
    if (data) system = data
    problem = refused
  }
  const running = $derived(moments.some((each) => each.open))
  $effect(() => {
    if (id && session.current.signed_in) void load()
  })
  $effect(() => {
    if (!system) return
    let asked = true
    const params = { path: { system_id: id }, query: { units: preferences.units } }
    void outcome(api.GET('/api/systems/{system_id}/timeline', { params })).then(({ data }) => {
      if (data && asked) moments = data
    })
    return () => (asked = false) // an answer in other units may come late
  })
  async function setUnits(units: System) {
    preferences.setUnits(units)
    if (!system?.may_change) return
    await outcome(api.PATCH('/api/sites/{site_id}', { params: { path: { site_id: system.site.id } }, body: { units } }))
  }
  const setting = (file: unknown, name: string) =>
    figureAt(file, `settings.${name}_gauge_pa`, 'pressure', preferences.units)
  /** The figures of a decision worth a column, by kind of system. */
  const FIGURES: Record<string, [string, string, Dimension][]> = {
    compressor: [
      ['Free air', 'between', 'air_volume'],
      ['Run', 'run', 'duration'],
    ],
    tankless: [['Running', 'running', 'pressure']],
  }
  const figures = $derived(
    FIGURES[system?.glance.kind ?? ''] ?? [
      ['Drawdown', 'drawdown', 'volume'],
      ['Run', 'run', 'duration'],
    ],
  ) as [string, string, Dimension][]
  const figure = (value: number | null | undefined, dimension: Dimension) =>
    value == null ? '–' : text(value, dimension, preferences.units)
  const points = $derived(
    [
      ['Cut-in', 'cut_in'],
      ['Cut-out', 'cut_out'],
      ['Pre-charge', 'pre_charge'],
    ].filter(([, name]) => name !== 'pre_charge' || system?.glance.pre_charge_gauge_pa != null),
  )
</script>

<svelte:head><title>{system?.name ?? 'System'} · Zero Dip</title></svelte:head>
<TopBar onunits={setUnits}>
  {#snippet crumbs()}{#if system}<a class="underline-offset-4 hover:underline" href="/">Rounds</a> › {system.site
        .name}{/if}{/snippet}
</TopBar>
<main class="mx-auto max-w-5xl px-4 py-5">
  {#if problem}
    <h1 class="text-2xl font-bold">{problem.status === 404 ? 'No such system' : problem.title}</h1>
    <p class="mt-2">{problem.detail} <a class="link" href="/">Back to Rounds</a></p>
  {:else if system}
    {@const seen = system.glance}
    <div class="mb-5 flex flex-wrap items-center gap-4">
      <BandGlyph glance={seen} height={96} />
      <div class="min-w-0 flex-1">
        <h1 class="text-3xl font-bold">{system.name}</h1>
        <p class="text-sm text-neutral">{KIND_WORDS[seen.kind]}</p>
        <p class="mt-1 flex items-center gap-2">
          <VerdictMark verdict={seen.verdict} size={16} />
          {VERDICTS[seen.verdict]?.word}: {seen.headline[preferences.units]}
        </p>
      </div>
      <div class="flex w-full flex-wrap gap-2 sm:w-auto">
        {#if system.may_change}
          <button type="button" class="btn w-full btn-lg btn-primary sm:w-auto" onclick={visit}
            >{running ? 'Go on with the visit' : 'Start a visit'}</button
          >
        {/if}
        <a class="btn flex-1 btn-outline btn-lg sm:flex-none" href="/systems/{id}/decide">Decide</a>
        <a
          class="btn flex-1 btn-outline btn-lg sm:flex-none"
          href="/api/labels.pdf?system={id}&units={preferences.units}"
          target="_blank">Label</a
        >
      </div>
    </div>

    <section aria-labelledby="in-force" class="mb-6">
      <h2 id="in-force" class="mb-2 font-bold">In force</h2>
      <dl class="grid grid-cols-3 gap-2">
        {#each points as [title, name] (name)}
          <div class="rounded-box border border-base-300 bg-base-100 px-3 py-2">
            <dt class="text-sm">{title}</dt>
            <dd class="figure text-lg whitespace-nowrap sm:text-2xl">{setting(system.document, name!)}</dd>
          </div>
        {/each}
      </dl>
    </section>
    <section aria-labelledby="plates" class="mb-6">
      <h2 id="plates" class="mb-2 font-bold">Plates</h2>
      <dl class="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {#each platesFor(seen.kind) as plate (plate.id)}
          {@const [first, ...rest] = plate.summary(system.document, preferences.units)}
          <div class="min-w-0 rounded-box border border-base-300 bg-base-100 px-3 py-2">
            <dt class="text-sm text-neutral">{plate.title}</dt>
            <dd><span class="figure block">{first}</span><span class="text-sm">{rest.join(' ')}</span></dd>
          </div>
        {/each}
      </dl>
    </section>
    <TrendsPart system={id} />
    <Timeline {moments} />
    <section aria-labelledby="decisions">
      <h2 id="decisions" class="mb-2 font-bold">Decisions</h2>
      {#if system.decisions.length}
        <div class="overflow-x-auto rounded-box border border-base-300 bg-base-100">
          <table class="table">
            <thead>
              <tr
                ><th>Kept</th><th>By</th>{#each points as [title] (title)}<th>{title}</th
                  >{/each}{#each figures as [title] (title)}<th>{title}</th>{/each}<th>Verdict</th></tr
              >
            </thead>
            <tbody>
              {#each system.decisions as decision (decision.id)}
                <tr>
                  <td class="whitespace-nowrap">{day(decision.made_at)}</td>
                  <td>{decision.made_by}</td>
                  {#each points as [title, name] (title)}
                    <td class="figure whitespace-nowrap">{setting(decision.document, name!)}</td>
                  {/each}
                  {#each figures as [title, name, dimension] (title)}
                    <td class="figure whitespace-nowrap">{figure(decision.figures[name], dimension)}</td>
                  {/each}
                  <td
                    ><span class="flex items-center gap-2"
                      ><VerdictMark verdict={decision.verdict} />{VERDICTS[decision.verdict]?.word}</span
                    ></td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      {:else}
        <p class="text-neutral">None kept yet.</p>
      {/if}
    </section>
    <section aria-labelledby="files" class="mt-6">
      <h2 id="files" class="mb-2 font-bold">Files</h2>
      <div class="flex flex-wrap gap-2">
        <a class="btn min-h-12" href="/api/systems/{id}/file" download>Take the file</a>
        <a class="btn min-h-12" href="/api/archive/systems/{id}.json?photos=true" download>With its whole record</a>
        <a class="btn min-h-12" href="/api/tables/systems/{id}.zip" download>As tables (CSV)</a>
      </div>
    </section>
    {#if system.may_change}
      <p class="mt-6 flex flex-wrap items-center gap-3 text-sm text-neutral">
        {system.retired ? 'Retired: off the rounds, everything on record.' : 'No longer there? It keeps its record.'}
        <button type="button" class="btn min-h-12" onclick={() => retire(!system!.retired)}
          >{system.retired ? 'Bring it back' : 'Retire it'}</button
        >
      </p>
    {/if}
  {:else}
    <p class="text-neutral">Reading the system…</p>
  {/if}
</main>
