<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { dayOn } from '../../domain/dates'
  import { fieldOf } from '../../domain/fields'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import { uuid } from '../../domain/uuid'
  import Faults from '../../ui/Faults.svelte'
  import QuantityInput from '../../ui/QuantityInput.svelte'
  import WireForm, { type Wire } from './WireForm.svelte'

  /** The gauges that the crew owns: what each may be off by, and when it was last checked. */
  type Gauge = Schemas['GaugeOut']
  let { workspace, mayWrite }: { workspace: string; mayWrite: boolean } = $props()
  let gauges = $state.raw<Gauge[]>([])
  let faults = $state.raw<Fault[]>([])
  let problem = $state<Problem | undefined>()
  let editing = $state.raw<{ id: string; version: number } | undefined>()
  const BLANK = { name: '', reads: 'system', grade: 'B', checked: '', retired: false }
  /** Pressures in SI; what is no number as typed, for the server to name. */
  let form = $state({ ...BLANK, scale: null as unknown, low: 0 as unknown })
  let wire = $state.raw<Wire | undefined>()
  const NEW_WIRE: Wire = {
    host: '',
    port: 502,
    unit: 1,
    table: 'holding',
    register: 0,
    number: 'uint16',
    order: 'big',
    pressure_unit: 'bar',
    raw_low: 0,
    raw_high: 10000,
    at_low: 0,
    at_high: 10,
    rate_hz: 10,
  }
  const STATES = {
    never: 'never checked',
    overdue: 'check overdue',
    soon: 'check due soon',
    good: '',
  } as const
  const GRADES = fieldOf('GaugeSpec', 'grade').options

  async function load() {
    const { data } = await outcome(api.GET('/api/gauges'))
    gauges = (data ?? []).filter((gauge) => gauge.workspace === workspace)
  }
  $effect(() => void load())

  function edit(gauge?: Gauge) {
    editing = gauge ? { id: gauge.id, version: gauge.version } : { id: uuid(), version: 0 }
    ;[faults, problem] = [[], undefined]
    const {
      name = '',
      reads = 'system',
      scale_gauge_pa = null,
      grade = 'B',
      low_pa = 0,
    } = gauge?.gauge ?? {}
    const text = { name: String(name), reads: String(reads), grade: String(grade) }
    const state = { checked: gauge?.checked_on ?? '', retired: gauge?.retired ?? false }
    form = { ...text, ...state, scale: scale_gauge_pa, low: low_pa }
    wire = gauge?.wire ?? undefined
  }
  async function keep(event: SubmitEvent) {
    event.preventDefault()
    const { name, reads, grade } = form
    const gauge = { name, reads, grade, scale_gauge_pa: form.scale, low_pa: form.low ?? 0 }
    const body = {
      version: editing!.version,
      gauge,
      wire: wire ?? null,
      checked_on: form.checked || null,
      retired: form.retired,
    }
    const params = {
      path: { workspace_id: workspace, gauge_id: editing!.id },
      query: { units: preferences.units },
    }
    const got = await outcome(
      api.PUT('/api/workspaces/{workspace_id}/gauges/{gauge_id}', { params, body }),
    )
    ;[faults, problem] = parted(got.problem)
    if (!got.data) return
    editing = undefined
    await load()
  }
</script>

<section aria-labelledby="gauges" class="grid gap-2">
  <h2 id="gauges" class="text-xl font-bold">Gauges</h2>
  <ul class="grid gap-2" data-testid="gauges">
    {#each gauges as gauge (gauge.id)}
      <li
        class="flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-2"
      >
        <span class="min-w-48 flex-1">
          <span class="font-bold">{gauge.gauge.name}</span>{gauge.retired ? ', out of use' : ''}
          <span class="block text-sm text-neutral"
            >{gauge.gauge.reads === 'air' ? 'air' : 'system'}, to {text(
              Number(gauge.gauge.scale_gauge_pa),
              'pressure',
              preferences.units,
            )}, grade {gauge.gauge.grade}: off by up to {text(
              gauge.error_pa,
              'pressure',
              preferences.units,
            )}{gauge.wire ? `, on the wire at ${String(gauge.wire.host)}` : ''}</span
          >
          <span class="block text-sm"
            >{gauge.checked_on ? `checked ${dayOn(gauge.checked_on)}` : ''}
            {#if STATES[gauge.state]}<span class="font-bold text-warning"
                >▲ {STATES[gauge.state]}</span
              >{/if}</span
          >
        </span>
        {#if mayWrite}
          <button
            type="button"
            class="btn min-h-12"
            aria-label="Change {gauge.gauge.name}"
            onclick={() => edit(gauge)}>Change</button
          >
        {/if}
      </li>
    {:else}
      <li class="text-neutral">None yet.</li>
    {/each}
  </ul>
  {#if editing}
    <form class="grid gap-3 rounded-box border border-base-300 p-3 sm:grid-cols-3" onsubmit={keep}>
      <label class="grid content-start gap-1 text-sm">
        What it is called
        <input class="input input-lg w-full" maxlength="40" bind:value={form.name} />
        <Faults {faults} path="gauge.name" />
      </label>
      <label class="grid content-start gap-1 text-sm">
        Reads
        <select class="select select-lg w-full" bind:value={form.reads}>
          <option value="system">the system</option><option value="air">air at the valve</option>
        </select>
      </label>
      <label class="grid content-start gap-1 text-sm">
        Grade on its dial
        <select class="select select-lg w-full" bind:value={form.grade}>
          {#each GRADES as grade (grade)}<option>{grade}</option>{/each}
        </select>
        <Faults {faults} path="gauge.grade" />
      </label>
      <label class="grid content-start gap-1 text-sm">
        End of its scale
        <span class="input input-lg w-full">
          <QuantityInput
            class="figure"
            live
            value={form.scale}
            dimension="pressure"
            onset={({ value }) => (form.scale = value)}
          />
        </span>
        <Faults {faults} path="gauge.scale_gauge_pa" />
      </label>
      <label class="grid content-start gap-1 text-sm">
        Shows too little by
        <span class="input input-lg w-full">
          <QuantityInput
            class="figure"
            live
            value={form.low}
            dimension="pressure"
            onset={({ value }) => (form.low = value)}
          />
        </span>
        <Faults {faults} path="gauge.low_pa" />
      </label>
      <label class="grid content-start gap-1 text-sm">
        Last checked
        <input class="input input-lg w-full" type="date" bind:value={form.checked} />
        <Faults {faults} path="checked_on" />
      </label>
      <label class="flex min-h-12 items-center gap-3">
        <input type="checkbox" class="checkbox checkbox-lg" bind:checked={form.retired} />Out of use
      </label>
      <label class="flex min-h-12 items-center gap-3 sm:col-span-2">
        <input
          type="checkbox"
          class="checkbox checkbox-lg"
          checked={wire !== undefined}
          onchange={(event) => (wire = event.currentTarget.checked ? NEW_WIRE : undefined)}
        />On the wire: the server reads it
      </label>
      {#if wire}<WireForm {workspace} bind:wire {faults} />{/if}
      {#if problem}<p role="alert" class="text-error sm:col-span-3">
          {problem.title}. {problem.detail}
        </p>{/if}
      <div class="flex gap-2 sm:col-span-3">
        <button type="button" class="btn min-h-12" onclick={() => (editing = undefined)}
          >Cancel</button
        >
        <button class="btn min-h-12 btn-primary">Save the gauge</button>
      </div>
    </form>
  {:else if mayWrite}
    <button type="button" class="btn min-h-12 sm:w-fit" onclick={() => edit()}>Add a gauge</button>
  {/if}
</section>
