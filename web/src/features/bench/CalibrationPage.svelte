<script lang="ts">
  import { untrack } from 'svelte'
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { session } from '../../api/session.svelte'
  import { day, dayOn } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'
  import { unitFor } from '../../domain/units'
  import { route } from '../../router'
  import TopBar from '../../ui/TopBar.svelte'
  import Asked from './Asked.svelte'
  import Certificate from './Certificate.svelte'
  import Judged from './Judged.svelte'
  import Readings from './Readings.svelte'
  import { Sending } from './sending.svelte'

  /** A calibration: one instruction at a time, what was read so far, and how it stands. */
  type Calibration = Schemas['CalibrationOut']
  const id = $derived((route.params as { id: string }).id)
  let at = $state.raw<Calibration | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let faults = $state.raw<Fault[]>([])
  let signed = $state('')
  let remark = $state('')
  // Refusals, too, are told in what the reference is marked in.
  const query = $derived({ units: at?.units ?? preferences.units })
  const sending = $derived(
    new Sending(
      id,
      () => query.units,
      (got) => ([at, problem, faults] = [got, undefined, []]),
    ),
  )
  $effect(() => {
    const own = sending
    untrack(() => void own.begin())
    return () => own.stop()
  })
  const busy = $derived(sending.busy || sending.waiting !== undefined)
  const add = (value: Record<string, unknown>, supersedes?: string) =>
    sending.add(value, supersedes)
  const told = $derived(at?.next.instruction)
  const grain = $derived(Number(at?.reference.resolution_pa ?? 100))
  const names = $derived(at?.titles ?? [])

  async function load() {
    const params = { path: { calibration_id: id }, query: { units: preferences.units } }
    const got = await outcome(api.GET('/api/calibrations/{calibration_id}', { params }))
    if (got.problem?.status === 401) session.ended()
    if (got.data || at?.id !== id) at = got.data // what is shown stays where there is no answer
    problem = got.problem
    signed ||= got.data?.signs ?? ''
  }
  $effect(() => {
    void [id, preferences.units]
    untrack(() => void load())
  })
  const again = () => void (at ?? load())
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

<svelte:window ononline={again} />
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
  {#if sending.waiting && sending.problem}
    <p
      role="alert"
      class="sticky top-0 z-10 rounded-box border-2 border-warning bg-base-100 px-3 py-2 lg:col-span-2"
      data-testid="unsent"
    >
      ▲ <strong>Not sent yet.</strong> What you recorded is kept on this device and goes out by
      itself as soon as the server answers. The next instruction comes then.
      {#if sending.problem.status}<strong>{sending.problem.title}.</strong>{/if}
    </p>
  {/if}
  {#if at}
    <div class="grid min-w-0 content-start gap-4">
      {#if at.closed_at}
        <p class="rounded-box border border-base-300 bg-base-100 px-4 py-3">
          <span class="font-bold">Closed {day(at.closed_at)}</span>, signed {at.signed_by}. What was
          read can still be corrected.
        </p>
      {:else if told}
        {#key at.id}<Asked
            {at}
            {told}
            {grain}
            {busy}
            {add}
            take={(change) => sending.take(change)}
          />{/key}
      {:else if at.may_change}
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
      {#each [...faults, ...sending.faults] as fault (fault.message)}<p
          role="alert"
          class="text-error"
        >
          {fault.message}
        </p>{/each}
      {#if !sending.waiting && (sending.problem ?? problem)}
        {@const { title, detail } = (sending.problem ?? problem)!}
        <p role="alert" class="text-error">{title}. {detail}</p>
      {/if}
      {#if at.corrections.length}
        <section aria-labelledby="corrected" class="grid gap-1">
          <h2 id="corrected" class="font-bold">Corrected after closing</h2>
          <ul class="grid gap-1" data-testid="corrected">
            {#each at.corrections as each, number (number)}
              <li>
                {each.says}<span class="block text-sm text-neutral"
                  >{day(each.at)}{each.by ? `, ${each.by}` : ''}</span
                >
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      <Readings {at} {grain} {names} {busy} oncorrect={add} />
    </div>
    <aside class="grid content-start gap-3">
      {#if at.judged}<Judged
          judged={at.judged}
          {names}
          {grain}
          units={at.units}
          adjusted={at.adjusted}
        />
        <Certificate calibration={at.id} closed={!!at.closed_at} mayShare={at.may_change} />
      {/if}
      <p class="text-sm text-neutral">
        Against {at.reference.name}, {dayOn(at.on)}{at.adjusted ? ', adjusted' : ''}.
        {#if at.units !== preferences.units}
          In {unitFor('pressure', at.units).symbol}, as it is marked.
        {/if}
        Site procedures come first.
      </p>
    </aside>
  {:else if problem}
    <p role="alert">{problem.title}. {problem.detail}</p>
  {/if}
</main>
