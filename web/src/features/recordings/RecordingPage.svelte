<script lang="ts">
  import { untrack } from 'svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import { navigate, route } from '../../router'
  import CycleTable from './CycleTable.svelte'
  import DayStrips from './DayStrips.svelte'
  import GoOn from './GoOn.svelte'
  import GuessForm from './GuessForm.svelte'
  import Offers from './Offers.svelte'
  import { RecordingState } from './recording.svelte'
  import { byClock, isCounted } from './times'
  import Says from './Says.svelte'

  const at = $derived(new RecordingState((route.params as { id: string }).id))
  const recording = $derived(at.recording)
  const told = $derived(at.told)
  let sure = $state(false)
  $effect(() => {
    void preferences.units
    const one = at
    untrack(() => void one.load())
    return () => one.stop()
  })
  const span = $derived(at.window[1] - at.window[0])
  const when = (time: number) =>
    isCounted(time)
      ? text(time, 'duration', preferences.units)
      : byClock(time, at.zone, {
          dateStyle: 'medium',
          timeStyle: span < 600 ? 'medium' : 'short',
        })
  async function remove() {
    const system = recording?.system
    if (system && (await at.remove())) navigate('/systems/:id', { params: { id: system } })
  }
  const BUTTONS: [string, string, () => void][] = [
    ['Earlier', '←', () => at.move(-0.5)],
    ['Nearer', '+', () => at.zoom(0.5)],
    ['Further', '−', () => at.zoom(2)],
    ['Later', '→', () => at.move(0.5)],
  ]
</script>

<svelte:head><title>{recording?.name ?? 'Recording'} · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}{#if recording}{recording.site_name} ›
      <a class="underline-offset-4 hover:underline" href="/systems/{recording.system}"
        >{recording.system_name}</a
      >{/if}{/snippet}
</TopBar>
<main
  class="px-4 py-4 {told
    ? 'lg:grid lg:grid-cols-[minmax(0,1fr)_350px] lg:gap-5'
    : 'mx-auto max-w-3xl'}"
>
  {#if at.problem}
    <h1 class="text-2xl font-bold">
      {at.problem.status === 404 ? 'No such recording' : at.problem.title}
    </h1>
    <p class="my-2">
      {at.problem.faults.map((fault) => fault.message).join(' ') || at.problem.detail}
    </p>
    {#if recording}<a class="btn min-h-12" href="/systems/{recording.system}">Back to the system</a>
    {:else}<a class="btn min-h-12" href="/">Rounds</a>{/if}
  {:else if recording && told}
    <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-4">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h1 class="text-2xl font-bold">{recording.name}</h1>
        <p class="text-sm text-neutral">
          {recording.samples.toLocaleString('en-US')} samples · {told.recording.step_s < 1
            ? `${Math.round(1 / told.recording.step_s)} a second`
            : `one in ${Math.round(told.recording.step_s * 10) / 10} s`} · {told.recording.gaps} gaps
        </p>
      </div>
      <DayStrips {at} />
      <section aria-labelledby="line">
        <div class="flex flex-wrap items-center gap-2">
          <h2 id="line" class="w-full font-bold sm:w-auto sm:flex-1">
            {when(at.window[0])} to {when(at.window[1])}
          </h2>
          {#each BUTTONS as [word, sign, does] (word)}
            <button type="button" class="btn min-h-12 min-w-12" aria-label={word} onclick={does}
              >{sign}</button
            >
          {/each}
          <button type="button" class="btn min-h-12" onclick={() => at.look(...at.ends)}>All</button
          >
        </div>
        {#await import('./LinePlot.svelte') then { default: LinePlot }}<LinePlot {at} />{/await}
        {#if at.predicted}
          <p class="text-sm text-neutral">
            <svg width="30" height="8" class="inline" aria-hidden="true"
              ><path
                d="M0 4H30"
                stroke="var(--color-accent)"
                stroke-width="3"
                stroke-dasharray="8 5"
              /></svg
            >
            what the plates and settings predict for this draw{at.predicted.run_s === null
              ? ''
              : `: a run of ${text(at.predicted.run_s, 'duration', preferences.units)}`}
          </p>
        {/if}
      </section>
      <CycleTable {at} />
    </div>
    <aside class="mt-5 lg:mt-0" aria-label="What the line says">
      <Says {told} />
      {#if recording.may_change}<div class="mt-4"><Offers {recording} /></div>{/if}
      <div class="mt-4 flex flex-wrap gap-2">
        <a class="btn min-h-12" href="/api/recordings/{at.id}/samples.csv" download>CSV</a>
        <a class="btn min-h-12" href="/api/recordings/{at.id}/samples.parquet" download>Parquet</a>
        {#if recording.may_change}
          <button
            type="button"
            class="btn min-h-12"
            onclick={() => (sure ? remove() : (sure = true))}
            >{sure ? 'Delete it for good' : 'Delete'}</button
          >
        {/if}
      </div>
    </aside>
  {:else if recording}
    <h1 class="mb-3 text-2xl font-bold">{recording.name}</h1>
    {#if recording.state === 'reading'}
      <p class="mb-2">
        Being read: {recording.samples.toLocaleString('en-US')} samples so far. You may leave this page.
      </p>
      <progress class="progress w-full progress-secondary" value={recording.done} max="1"
      ></progress>
      <button type="button" class="btn mt-4 min-h-12" onclick={remove}>Stop, and delete it</button>
    {:else if recording.state === 'refused'}
      <p class="text-lg font-bold text-error">■ It could not be read</p>
      <p class="my-2">{recording.problem}</p>
      <button type="button" class="btn min-h-12" onclick={remove}>Delete it</button>
    {:else if recording.state === 'coming'}
      <GoOn {at} />
      <button type="button" class="btn min-h-12" onclick={remove}>Delete it</button>
    {:else if at.guess && recording.may_change}
      <GuessForm {at} />
    {:else}
      <p class="text-neutral">To be read.</p>
    {/if}
  {:else}
    <p class="text-neutral">Reading the recording…</p>
  {/if}
</main>
