<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { uuid } from '../../domain/uuid'
  import Faults from '../../ui/Faults.svelte'
  import FieldSet from './FieldSet.svelte'
  import { toldIn } from './told'

  /** A set-point switch: new at a site, or changed. */
  let {
    site,
    known,
    onkept,
    onclose,
  }: {
    site: string
    known?: Schemas['DeviceOut'] | undefined
    onkept: (device: Schemas['DeviceOut']) => void
    onclose: () => void
  } = $props()
  type Values = Record<string, unknown>
  // svelte-ignore state_referenced_locally
  const [id, version] = [known?.id ?? uuid(), known?.version ?? 0]
  const POINT: Values = { acts: 'rising', deadband: 'fixed', tolerance_share: 0.01 }
  // svelte-ignore state_referenced_locally
  const { points: kept = [{ ...POINT }], ...plates } = (known?.device ?? {
    low_gauge_pa: 0,
    interval_months: 12,
    medium: 'other',
  }) as Values & { points?: Values[] }
  let values = $state.raw<Values>(plates)
  let points = $state<Values[]>(kept)
  let faults = $state.raw<Fault[]>([])
  let problem = $state.raw<Problem | undefined>()
  const PLATES = [
    'name',
    'tag_number',
    'guards',
    'plate',
    'location',
    'medium',
    'hazardous',
    'unit',
    'low_gauge_pa',
    'high_gauge_pa',
    'interval_months',
  ]
  const told = $derived(toldIn(values))
  const OF_POINT = [
    'gauge_pa',
    'acts',
    'tolerance_share',
    'tolerance_pa',
    'deadband',
    'deadband_pa',
  ]
  const WORDS = { rising: 'rising pressure', falling: 'falling pressure (rising vacuum)' }
  const UNIT = { '': 'whatever its reader uses' }
  const titles = $derived(points.length > 1 ? ['Lower point', 'Upper point'] : ['Set point'])

  async function keep(event: SubmitEvent) {
    event.preventDefault()
    const params = {
      path: { site_id: site, device_id: id },
      query: { units: told },
    }
    const body = { version, device: { ...values, points } }
    const got = await outcome(api.PUT('/api/sites/{site_id}/devices/{device_id}', { params, body }))
    ;[faults, problem] = parted(got.problem)
    if (got.data) onkept(got.data)
  }
</script>

<form class="grid gap-3 rounded-box border border-base-300 p-3 sm:grid-cols-3" onsubmit={keep}>
  <FieldSet
    owner="BenchDevice"
    names={PLATES}
    bind:values
    path="device"
    {faults}
    {told}
    words={UNIT}
  />
  {#each titles as title, at (at)}
    <fieldset class="grid gap-3 sm:col-span-3 sm:grid-cols-3">
      <legend class="mb-1 font-bold">{title}</legend>
      <FieldSet
        owner="SetPoint"
        names={OF_POINT}
        bind:values={points[at]!}
        path="device.points.{at}"
        {faults}
        {told}
        words={WORDS}
      />
    </fieldset>
  {/each}
  <Faults {faults} path="device.points" />
  <div class="flex flex-wrap gap-2 sm:col-span-3">
    {#if points.length < 2}
      <button
        type="button"
        class="btn min-h-12"
        onclick={() => (points = [...points, { ...POINT }])}>A second, upper point</button
      >
    {:else}
      <button type="button" class="btn min-h-12" onclick={() => (points = points.slice(0, 1))}
        >Only one point</button
      >
    {/if}
  </div>
  {#if problem}<p role="alert" class="text-error sm:col-span-3">
      {problem.title}. {problem.detail}
    </p>{/if}
  <div class="flex gap-2 sm:col-span-3">
    <button type="button" class="btn min-h-12" onclick={onclose}>Cancel</button>
    <button class="btn min-h-12 btn-primary">Save the switch</button>
  </div>
</form>
