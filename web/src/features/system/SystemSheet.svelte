<script lang="ts">
  import { connection } from '../../api/connection.svelte'
  import BandGlyph from '../../charts/BandGlyph.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import VerdictMark, { VERDICTS } from '../../ui/VerdictMark.svelte'
  import { day } from '../../domain/dates'
  import { figureAt } from '../../domain/file'
  import { preferences } from '../../domain/preferences.svelte'
  import { session } from '../../api/session.svelte'
  import { text, type Dimension } from '../../domain/units'
  import { navigate, route } from '../../router'
  import RecordingList from '../recordings/RecordingList.svelte'
  import { SheetState } from './sheet.svelte'
  import Timeline from './Timeline.svelte'
  import TrendsPart from './TrendsPart.svelte'
  import { KIND_WORDS, platesFor } from '../../domain/plates'

  const at = $derived(new SheetState((route.params as { id: string }).id))
  const system = $derived(at.system)
  const problem = $derived(at.problem)
  $effect(() => {
    if (session.current.signed_in) void at.load()
  })
  $effect(() => {
    if (at.system) void at.askTimeline(preferences.units)
  })
  async function visit() {
    const started = await at.visit()
    if (started) navigate('/visits/:id', { params: { id: started } })
  }
  const setting = (file: unknown, name: string) =>
    figureAt(file, `settings.${name}_gauge_pa`, 'pressure', preferences.units)
  const figure = (value: number | null | undefined, dimension: Dimension) =>
    value == null ? '–' : text(value, dimension, preferences.units)
  const points = $derived(
    [
      ['Cut-in', 'cut_in'],
      ['Cut-out', 'cut_out'],
      ['Pre-charge', 'pre_charge'],
    ].filter(([, name]) => name !== 'pre_charge' || system?.summary.pre_charge_gauge_pa != null),
  )
</script>

<svelte:head><title>{system?.name ?? 'System'} · Zero Dip</title></svelte:head>
<TopBar onunits={(units) => at.setUnits(units)}>
  {#snippet crumbs()}{#if system}<a class="underline-offset-4 hover:underline" href="/">Rounds</a> › {system
        .site.name}{/if}{/snippet}
</TopBar>
<main class="mx-auto max-w-5xl px-4 py-5">
  {#if problem}
    <h1 class="text-2xl font-bold">{problem.status === 404 ? 'No such system' : problem.title}</h1>
    <p class="mt-2">{problem.detail} <a class="link" href="/">Back to Rounds</a></p>
  {:else if system}
    {@const seen = system.summary}
    <div class="mb-5 flex flex-wrap items-center gap-4">
      <BandGlyph summary={seen} height={96} />
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
            >{at.running ? 'Go on with the visit' : 'Start a visit'}</button
          >
        {/if}
        <a class="btn flex-1 btn-outline btn-lg sm:flex-none" href="/systems/{at.id}/trouble"
          >Trouble</a
        >
        <a class="btn flex-1 btn-outline btn-lg sm:flex-none" href="/systems/{at.id}/decide"
          >Decide</a
        >
        <a
          class="btn flex-1 btn-outline btn-lg sm:flex-none"
          class:hidden={connection.away}
          href="/api/labels.pdf?system={at.id}&units={preferences.units}"
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
            <dd class="figure text-lg whitespace-nowrap sm:text-2xl">
              {setting(system.document, name!)}
            </dd>
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
            <dd>
              <span class="figure block">{first}</span><span class="text-sm">{rest.join(' ')}</span>
            </dd>
          </div>
        {/each}
      </dl>
    </section>
    <TrendsPart system={at.id} />
    <RecordingList system={at.id} maychange={system.may_change} />
    <Timeline moments={at.moments} />
    <section aria-labelledby="decisions">
      <h2 id="decisions" class="mb-2 font-bold">Decisions</h2>
      {#if system.decisions.length}
        <div class="overflow-x-auto rounded-box border border-base-300 bg-base-100">
          <table class="table">
            <thead>
              <tr
                ><th>Saved</th><th>By</th>{#each points as [title] (title)}<th>{title}</th
                  >{/each}{#each system.columns as { id, title } (id)}<th>{title}</th>{/each}<th
                  >Verdict</th
                ></tr
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
                  {#each system.columns as { id, dimension } (id)}
                    <td class="figure whitespace-nowrap"
                      >{figure(decision.figures[id], dimension)}</td
                    >
                  {/each}
                  <td
                    ><span class="flex items-center gap-2"
                      ><VerdictMark verdict={decision.verdict} />{VERDICTS[decision.verdict]
                        ?.word}</span
                    ></td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      {:else}
        <p class="text-neutral">None yet.</p>
      {/if}
    </section>
    <section aria-labelledby="files" class="mt-6">
      <h2 id="files" class="mb-2 font-bold">Files</h2>
      <div class="flex flex-wrap gap-2">
        <a class="btn min-h-12" href="/api/systems/{at.id}/file" download>Download</a>
        <a class="btn min-h-12" href="/api/archive/systems/{at.id}.json?photos=true" download
          >With its whole record</a
        >
        <a class="btn min-h-12" href="/api/tables/systems/{at.id}.zip" download>As tables (CSV)</a>
      </div>
    </section>
    {#if system.may_change}
      <p class="mt-6 flex flex-wrap items-center gap-3 text-sm text-neutral">
        {system.retired
          ? 'Retired: off the rounds, everything on record.'
          : 'No longer there? It keeps its record.'}
        <button type="button" class="btn min-h-12" onclick={() => at.retire(!at.system!.retired)}
          >{system.retired ? 'Bring it back' : 'Retire it'}</button
        >
      </p>
    {/if}
  {:else}
    <p class="text-neutral">Reading the system…</p>
  {/if}
</main>
