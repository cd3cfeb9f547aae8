<script lang="ts">
  import { untrack } from 'svelte'
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { day, dayOn } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'
  import { uuid } from '../../domain/uuid'
  import { route } from '../../router'
  import Segmented from '../../ui/Segmented.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import Judged from './Judged.svelte'
  import Reading from './Reading.svelte'
  import Readings from './Readings.svelte'
  import Turns from './Turns.svelte'

  /** A calibration: one instruction at a time, what was read so far, and how it stands. */
  type Calibration = Schemas['CalibrationOut']
  const id = $derived((route.params as { id: string }).id)
  let at = $state.raw<Calibration | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let faults = $state.raw<Fault[]>([])
  const TWICE_MS = 600
  const SEEN_BY = [
    { id: 'lamp', title: 'Lamp' },
    { id: 'meter', title: 'Meter' },
  ]
  let seen_by = $state('lamp')
  let busy = $state(false)
  let signed = $state('')
  let remark = $state('')
  const query = $derived({ units: preferences.units })
  const told = $derived(at?.next.instruction)
  const grain = $derived(Number(at?.reference.resolution_pa ?? 100))
  const names = $derived(at?.titles ?? [])

  async function load() {
    const params = { path: { calibration_id: id }, query }
    const got = await outcome(api.GET('/api/calibrations/{calibration_id}', { params }))
    ;[at, problem] = [got.data, got.problem]
  }
  $effect(() => {
    void [id, preferences.units]
    untrack(() => void load())
  })
  async function add(value: Record<string, unknown>, supersedes?: string) {
    busy = true
    const params = { path: { calibration_id: id, calibration_entry_id: uuid() }, query }
    const body = { value, supersedes: supersedes ?? null }
    const got = await outcome(
      api.PUT('/api/calibrations/{calibration_id}/entries/{calibration_entry_id}', {
        params,
        body,
      }),
    )
    ;[faults, problem] = parted(got.problem)
    if (got.data) at = got.data
    // A wet finger taps twice: the second tap must not record what the next instruction expects.
    setTimeout(() => (busy = false), TWICE_MS)
  }
  async function close(event: SubmitEvent) {
    event.preventDefault()
    const params = { path: { calibration_id: id }, query }
    const body = { signed_by: signed, remark }
    const got = await outcome(
      api.PUT('/api/calibrations/{calibration_id}/closed', { params, body }),
    )
    ;[faults, problem] = parted(got.problem)
    if (got.data) at = got.data
  }
</script>

{#snippet leave()}
  <button
    type="button"
    class="btn min-h-14 btn-lg"
    disabled={busy}
    onclick={() => add({ kind: 'confirmed', what: 'left_as_it_is' })}>Leave it as it is</button
  >
{/snippet}
<svelte:head><title>Calibration · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}{#if at}<a
        class="underline-offset-4 hover:underline"
        href="/switches/{at.device}">{at.switch.name}</a
      > › Calibration{/if}{/snippet}
</TopBar>
<main
  class="mx-auto grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-4 px-4 py-4 lg:grid-cols-[minmax(0,1fr)_380px]"
>
  <h1 class="sr-only">Calibration</h1>
  {#if at}
    <div class="grid min-w-0 content-start gap-4">
      {#if at.closed_at}
        <p class="rounded-box border border-base-300 bg-base-100 px-4 py-3">
          <span class="font-bold">Closed {day(at.closed_at)}</span>, signed {at.signed_by}. What was
          read can still be corrected.
        </p>
      {:else if told}
        <section class="grid gap-3 rounded-box bg-[var(--zd-sand)] p-4" aria-label="Next">
          <h2 class="text-2xl leading-tight font-bold" data-testid="instruction">{told.title}</h2>
          {#if told.caution}<p class="rounded-box border-2 border-error px-3 py-2 font-bold">
              ■ {told.caution}
            </p>{/if}
          <p class="text-lg">{told.text}</p>
          {#if told.enters === 'turn'}
            {#key at.entries.length}
              <Turns
                wanted={at.next.step?.turns ?? {}}
                dual={names.length > 1}
                {busy}
                onset={(turns) => add({ kind: 'turned', ...turns })}
              />
            {/key}
            {@render leave()}
          {:else if told.enters === 'confirm' && told.id === 'stop'}
            {@render leave()}
          {:else if told.enters === 'confirm'}
            <button
              type="button"
              class="btn min-h-16 btn-lg btn-primary"
              disabled={busy}
              onclick={() => add({ kind: 'confirmed', what: told.id })}>Done</button
            >
          {:else}
            {#key `${at.entries.length} ${preferences.units}`}
              <Reading
                title={told.title}
                start={told.expected_pa ?? 0}
                {grain}
                {busy}
                onset={(gauge_pa) =>
                  add({ kind: 'read', point: told.point, which: told.enters, gauge_pa, seen_by })}
              />
            {/key}
            <div class="flex flex-wrap items-center gap-3 text-sm">
              Change seen by
              <Segmented
                label="Change seen by"
                options={SEEN_BY}
                value={seen_by}
                onchange={(by) => (seen_by = by)}
              />
            </div>
          {/if}
        </section>
      {:else}
        <form class="grid gap-3 rounded-box bg-[var(--zd-sand)] p-4" onsubmit={close}>
          <h2 class="text-2xl font-bold">Sign and close</h2>
          <label class="grid gap-1 text-sm">
            Who made it
            <input class="input input-lg w-full" maxlength="80" bind:value={signed} />
          </label>
          <label class="grid gap-1 text-sm">
            Remark
            <input class="input input-lg w-full" maxlength="400" bind:value={remark} />
          </label>
          <button class="btn min-h-16 btn-lg btn-primary">Close it</button>
        </form>
      {/if}
      {#each faults as fault (fault.message)}<p role="alert" class="text-error">
          {fault.message}
        </p>{/each}
      {#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
      <Readings {at} {grain} {names} {busy} oncorrect={add} />
    </div>
    <aside class="grid content-start gap-3">
      {#if at.judged}<Judged judged={at.judged} {names} {grain} adjusted={at.adjusted} />
        <a
          class="btn min-h-12"
          href="/api/calibrations/{at.id}/certificate.pdf?units={preferences.units}"
          target="_blank"
          rel="noopener">{at.closed_at ? 'Certificate' : 'Certificate as it stands'}</a
        >{/if}
      <p class="text-sm text-neutral">
        Against {at.reference.name}, {dayOn(at.on)}{at.adjusted ? ', adjusted' : ''}. Site
        procedures come first.
      </p>
    </aside>
  {:else if problem}
    <p role="alert">{problem.title}. {problem.detail}</p>
  {/if}
</main>
