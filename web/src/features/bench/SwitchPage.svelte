<script lang="ts">
  import { untrack } from 'svelte'
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { dayOn } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'
  import { uuid } from '../../domain/uuid'
  import { text } from '../../domain/units'
  import { navigate, route } from '../../router'
  import TopBar from '../../ui/TopBar.svelte'
  import Drift from './Drift.svelte'
  import Due from './Due.svelte'
  import SwitchForm from './SwitchForm.svelte'
  import { toldIn } from './told'

  /** One set-point switch: its plates, its calibrations, and the beginning of the next. */
  const id = $derived((route.params as { id: string }).id)
  let device = $state.raw<Schemas['DeviceOut'] | undefined>()
  let made = $state.raw<Schemas['CalibrationRow'][]>([])
  let references = $state.raw<Schemas['ReferenceOut'][]>([])
  let problem = $state.raw<Problem | undefined>()
  let faults = $state.raw<Fault[]>([])
  let editing = $state(false)
  let chosen = $state('')
  let overruled = $state('')

  async function load() {
    const params = { path: { device_id: id } }
    const [one, rows, gauges] = await Promise.all([
      outcome(api.GET('/api/devices/{device_id}', { params })),
      outcome(api.GET('/api/devices/{device_id}/calibrations', { params })),
      outcome(api.GET('/api/references')),
    ])
    problem = one.problem ?? rows.problem
    device = one.data
    made = rows.data ?? []
    references = (gauges.data ?? []).filter(
      (each) => !each.retired && each.workspace === device?.workspace,
    )
    // Mostly it is the one of last time.
    const usual = references.find((each) => each.reference.name === made[0]?.reference)
    chosen ||= usual?.id ?? (references.length === 1 ? references[0]!.id : '')
  }
  $effect(() => {
    void id
    untrack(() => void load())
  })
  const running = $derived(made.find((each) => !each.closed_at))
  type Point = { gauge_pa: number; acts: string; tolerance_pa?: number; tolerance_share?: number }
  const points = $derived((device?.device.points ?? []) as Point[])
  const names = $derived(points.length > 1 ? ['Lower point', 'Upper point'] : ['Set point'])
  const told = $derived(toldIn(device?.device ?? {}))
  const pressure = (value: unknown) => text(Number(value), 'pressure', told)

  async function begin() {
    const { reference = {}, gauge = null } = references.find((each) => each.id === chosen) ?? {}
    const params = {
      path: { device_id: id, calibration_id: uuid() },
      query: { units: told },
    }
    const today = new Date()
    const on = new Date(today.getTime() - today.getTimezoneOffset() * 60000)
      .toISOString()
      .slice(0, 10)
    const body = { reference: { ...reference, overruled }, gauge, on }
    const got = await outcome(
      api.PUT('/api/devices/{device_id}/calibrations/{calibration_id}', { params, body }),
    )
    ;[faults, problem] = parted(got.problem)
    if (got.data) navigate('/calibrations/:id', { params: { id: got.data.id } })
  }
</script>

<svelte:head><title>Set-point switch · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}<a class="underline-offset-4 hover:underline" href="/bench">Set-point bench</a>
    › {device?.device.name ?? ''}{/snippet}
</TopBar>
<main class="mx-auto grid max-w-5xl gap-5 px-4 py-5">
  {#if problem}<p role="alert" class="alert alert-error">{problem.title}. {problem.detail}</p>{/if}
  {#if device}
    <h1 class="text-3xl font-bold">{device.device.name}</h1>
    <ul><Due {device} /></ul>
    {#if editing}
      <SwitchForm
        site={device.site}
        known={device}
        onkept={() => {
          editing = false
          void load()
        }}
        onclose={() => (editing = false)}
      />
    {:else}
      <dl class="grid gap-x-6 gap-y-1 sm:grid-cols-2">
        <div>
          <dt class="text-sm text-neutral">Range</dt>
          <dd class="figure">
            {pressure(device.device.low_gauge_pa)} to {pressure(device.device.high_gauge_pa)}
          </dd>
        </div>
        {#each points as point, at (at)}
          <div>
            <dt class="text-sm text-neutral">
              {names[at]}, {point.acts}
            </dt>
            <dd class="figure">
              {pressure(point.gauge_pa)} ± {point.tolerance_pa
                ? pressure(point.tolerance_pa)
                : `${Math.round((point.tolerance_share ?? 0) * 1e4) / 100} % of the range`}
            </dd>
          </div>
        {/each}
        {#if device.device.guards}<div>
            <dt class="text-sm text-neutral">Guards</dt>
            <dd>{device.device.guards}</dd>
          </div>{/if}
      </dl>
      {#if device.may_change}
        <button type="button" class="btn min-h-12 sm:w-fit" onclick={() => (editing = true)}
          >Change its plates</button
        >
      {/if}
    {/if}
    {#if running}
      <a class="btn min-h-14 btn-lg btn-primary" href="/calibrations/{running.id}"
        >Go on with the calibration</a
      >
    {:else if device.may_change}
      <section aria-labelledby="begin" class="grid gap-2 rounded-box bg-[var(--zd-sand)] p-4">
        <h2 id="begin" class="text-xl font-bold">Calibrate it</h2>
        <label class="grid gap-1 text-sm">
          Reference
          <select class="select select-lg w-full" bind:value={chosen}>
            <option value="">which one?</option>
            {#each references as each (each.id)}
              <option value={each.id}
                >{each.reference.name}{each.gauge ? ', on the wire' : ''}</option
              >
            {/each}
          </select>
        </label>
        {#each faults as fault (fault.message)}<p class="text-error">{fault.message}</p>{/each}
        {#if faults.length}
          <label class="grid gap-1 text-sm">
            Use it all the same, because
            <input class="input input-lg w-full" maxlength="200" bind:value={overruled} />
          </label>
        {/if}
        <button
          type="button"
          class="btn min-h-14 btn-lg btn-primary sm:w-fit"
          disabled={!chosen}
          onclick={begin}>Begin</button
        >
        {#if !references.length}<p class="text-sm">
            Add a reference at the <a class="underline" href="/bench">bench</a> first.
          </p>{/if}
      </section>
    {/if}
    <div class="grid gap-4 md:grid-cols-2">
      {#each names as title, point (title)}
        <Drift {made} at={point} {title} />
      {/each}
    </div>
    <section aria-labelledby="made" class="grid gap-2">
      <h2 id="made" class="text-xl font-bold">Calibrations</h2>
      {#if made.some((each) => each.closed_at)}
        <a
          class="btn min-h-12 sm:w-fit"
          href="/api/devices/{id}/label.pdf?units={preferences.units}"
          target="_blank"
          rel="noopener">Label</a
        >
      {/if}
      <ul class="grid gap-2">
        {#each made as each (each.id)}
          <li>
            <a
              class="flex min-h-14 flex-wrap items-center gap-x-4 rounded-box border border-base-300 bg-base-100 px-4 py-2"
              href="/calibrations/{each.id}"
            >
              <span class="min-w-40 flex-1 font-bold">{dayOn(each.on)}</span>
              <span class="text-sm"
                >{each.closed_at
                  ? `as found: ${each.found_says.toLowerCase()}; as left: ${each.left_says.toLowerCase()}`
                  : 'under way'}</span
              >
            </a>
          </li>
        {:else}
          <li class="text-neutral">None yet.</li>
        {/each}
      </ul>
    </section>
  {/if}
</main>
