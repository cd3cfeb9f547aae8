<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import { dayOn } from '../../domain/dates'
  import { text } from '../../domain/units'
  import { uuid } from '../../domain/uuid'
  import FieldSet from './FieldSet.svelte'
  import { toldIn } from './told'

  /** The reference gauges of the workspaces: what each may be off by, and until when it holds. */
  type Reference = Schemas['ReferenceOut']
  let { workspace, mayWrite }: { workspace: string; mayWrite: boolean } = $props()
  let all = $state.raw<Reference[]>([])
  type Editing = Pick<Reference, 'id' | 'version' | 'retired'> & { gauge?: string | null }
  let editing = $state.raw<Editing | undefined>()
  let gauge = $state('')
  let wired = $state.raw<Schemas['GaugeOut'][]>([])
  let values = $state.raw<Record<string, unknown>>({})
  let faults = $state.raw<Fault[]>([])
  let problem = $state.raw<Problem | undefined>()
  const NAMES = [
    'name',
    'serial',
    'due',
    'unit',
    'low_gauge_pa',
    'high_gauge_pa',
    'resolution_pa',
    'grade',
    'expanded_pa',
  ]

  const pressure = (of: Record<string, unknown>, name: string) =>
    text(Number(of[name]), 'pressure', toldIn(of))

  async function load() {
    const { data } = await outcome(api.GET('/api/references'))
    all = (data ?? []).filter((each) => each.workspace === workspace)
    const gauges = await outcome(api.GET('/api/gauges'))
    wired = (gauges.data ?? []).filter(
      (each) => each.workspace === workspace && each.wire && !each.retired,
    )
  }
  $effect(() => void load())
  function edit(known?: Reference) {
    editing = known ?? { id: uuid(), version: 0, retired: false }
    values = known?.reference ?? { low_gauge_pa: 0 }
    gauge = known?.gauge ?? ''
    ;[faults, problem] = [[], undefined]
  }
  async function keep(event: SubmitEvent) {
    event.preventDefault()
    const params = {
      path: { workspace_id: workspace, reference_id: editing!.id },
      query: { units: toldIn(values) },
    }
    const { version, retired } = editing!
    const body = { version, reference: values, gauge: gauge || null, retired }
    const got = await outcome(
      api.PUT('/api/workspaces/{workspace_id}/references/{reference_id}', { params, body }),
    )
    ;[faults, problem] = parted(got.problem)
    if (!got.data) return
    editing = undefined
    await load()
  }
</script>

<section aria-labelledby="references" class="grid gap-2">
  <h2 id="references" class="text-xl font-bold">Reference gauges</h2>
  <ul class="grid gap-2">
    {#each all as { id, reference, version, retired, ...rest } (id)}
      <li
        class="flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-2"
      >
        <span class="min-w-48 flex-1">
          <span class="font-bold">{reference.name}</span>{retired ? ', out of use' : ''}
          <span class="block text-sm text-neutral"
            >{pressure(reference, 'low_gauge_pa')} to {pressure(reference, 'high_gauge_pa')}, {reference.expanded_pa
              ? `± ${pressure(reference, 'expanded_pa')} by its certificate`
              : `grade ${String(reference.grade)}`}{reference.due
              ? `, until ${dayOn(String(reference.due))}`
              : ''}{rest.gauge ? ', on the wire' : ''}</span
          >
        </span>
        {#if mayWrite}
          <button
            type="button"
            class="btn min-h-12"
            aria-label="Change {String(reference.name)}"
            onclick={() => edit({ id, reference, version, retired, ...rest })}>Change</button
          >
        {/if}
      </li>
    {:else}
      <li class="text-neutral">None yet.</li>
    {/each}
  </ul>
  {#if editing}
    <form class="grid gap-3 rounded-box border border-base-300 p-3 sm:grid-cols-3" onsubmit={keep}>
      <FieldSet
        owner="Reference"
        names={NAMES}
        bind:values
        path="reference"
        {faults}
        told={toldIn(values)}
        words={{ '': 'as the switch, or its reader' }}
      />
      {#if wired.length}
        <label class="grid gap-1 text-sm">
          On the wire as
          <select class="select select-lg w-full" bind:value={gauge}>
            <option value="">not on the wire</option>
            {#each wired as each (each.id)}<option value={each.id}>{each.gauge.name}</option>{/each}
          </select>
        </label>
      {/if}
      {#if problem}<p role="alert" class="text-error sm:col-span-3">
          {problem.title}. {problem.detail}
        </p>{/if}
      <div class="flex gap-2 sm:col-span-3">
        <button type="button" class="btn min-h-12" onclick={() => (editing = undefined)}
          >Cancel</button
        >
        <button class="btn min-h-12 btn-primary">Save the reference</button>
      </div>
    </form>
  {:else if mayWrite}
    <button type="button" class="btn min-h-12 sm:w-fit" onclick={() => edit()}
      >Add a reference</button
    >
  {/if}
</section>
