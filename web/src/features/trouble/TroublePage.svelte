<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import kinds from '../../api/generated/kinds.gen'
  import rough from '../../api/generated/rough.gen'
  import { readOutbox, writeOutbox } from '../../domain/outbox'
  import { evidence as told, saw, type Seen } from '../../domain/trouble'
  import { uuid } from '../../domain/uuid'
  import { startVisit } from '../../domain/visits'
  import { preferences } from '../../domain/preferences.svelte'
  import { Query } from '../../api/query.svelte'
  import { navigate, route } from '../../router'
  import QuantityInput from '../../ui/QuantityInput.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import type { Dimension } from '../../domain/units'
  import Trouble from './Trouble.svelte'

  /** A call comes in: on a system of ours, or on any by its kind. Nothing is kept until a visit is opened. */
  const id = $derived((route.params as { id?: string }).id)
  let kind = $state<keyof typeof rough>('well_bladder')
  let plates = $state.raw<Record<string, number>>({})
  const PLATES: Record<string, [string, Dimension]> = {
    cut_in_gauge_pa: ['Cut-in', 'pressure'],
    cut_out_gauge_pa: ['Cut-out', 'pressure'],
    volume_m3: ['Tank or receiver', 'volume'],
    flow_m3_s: ['Pump flow', 'flow'],
    pre_charge_gauge_pa: ['Pre-charge', 'pressure'],
    dead_head_gauge_pa: ['Dead-head', 'pressure'],
  }
  const dimensionOf = (name: string): Dimension =>
    name === 'flow_m3_s' && kind === 'compressor' ? 'air_flow' : PLATES[name]![1]
  let system = $state.raw<Schemas['SystemOut'] | undefined>()
  let evidence = $state.raw<Seen[]>([])
  let impossible = $state.raw<string[]>([])
  let problem = $state.raw<Problem | undefined>()
  let good: Seen[] = []
  let refused = $state('')
  const asked = new Query<Schemas['TroubleView']>()

  $effect(() => {
    if (!id) return
    const path = { system_id: id }
    void outcome(api.GET('/api/systems/{system_id}', { params: { path } })).then((got) => {
      system = got.data
      problem = got.problem
    })
  })
  $effect(() => {
    if (id && !system) return
    const of = system
      ? { system: system.id, system_file: system.document as Record<string, unknown> }
      : { kind }
    const given = evidence
    const body = {
      ...of,
      plates: system ? {} : plates,
      evidence: given.map(told),
      impossible,
      condition: 'powered',
    }
    const query = { units: preferences.units }
    void asked.ask(api.POST('/api/trouble', { params: { query }, body })).then((newest) => {
      if (!newest) return
      // A figure that cannot be is said and left out; what stood before stands.
      if (!asked.problem) good = given
      const fault = asked.problem?.faults.find((each) => each.path.startsWith('evidence'))
      if (fault && evidence !== good) {
        refused = fault.message
        evidence = good
      }
    })
  })
  function answer(seen: Seen[]) {
    refused = ''
    const cannot = seen.filter((each) => each.answer === 'cannot')
    const can = seen.filter((each) => each.answer !== 'cannot')
    const same = (a: Seen, b: Seen) => a.item === b.item && (a.again === b.again || !b.again)
    impossible = [...impossible, ...cannot.map((each) => each.item)]
    evidence = [...evidence.filter((each) => !seen.some((one) => same(each, one))), ...can]
  }
  function read(name: string, value: unknown) {
    const others = Object.entries(plates).filter(([each]) => each !== name)
    plates = Object.fromEntries(typeof value === 'number' ? [...others, [name, value]] : others)
  }
  function withdraw(item: string) {
    evidence = evidence.filter((each) => each.item !== item)
  }
  /** Opens a visit with all that was said, so that it is kept. */
  async function keep() {
    const { visit, problem: why } = await startVisit(id!)
    if (!visit) return void (problem = why)
    const cannot = impossible.map((item) => ({ item, answer: 'cannot' as const, again: false }))
    const entries = [...evidence, ...cannot].map((each) => ({
      id: uuid(),
      slot: 'saw' as const,
      value: saw(each),
      supersedes: null,
    }))
    writeOutbox(visit, [...readOutbox(visit), ...entries]) // sent by the visit, as all that is entered
    void navigate('/visits/:id', { params: { id: visit } })
  }
</script>

<svelte:head><title>Trouble · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}
    <a class="underline-offset-4 hover:underline" href="/">Rounds</a> ›
    {#if system}<a class="underline-offset-4 hover:underline" href="/systems/{system.id}"
        >{system.name}</a
      > ›{/if} Trouble
  {/snippet}
</TopBar>
<main class="mx-auto grid w-full max-w-2xl content-start gap-4 px-4 py-4">
  <h1 class="text-2xl font-bold">Trouble</h1>
  {#if !id}
    <label class="grid gap-1"
      >Kind of system
      <select
        class="select select-lg w-full"
        bind:value={kind}
        onchange={() => {
          good = evidence = []
          impossible = []
          plates = {}
        }}
      >
        {#each Object.entries(kinds) as [value, title] (value)}<option {value}>{title}</option
          >{/each}
      </select>
      <span class="text-sm text-neutral"
        >Usual plates stand for what is not known of it. On a system of yours it goes by its own.</span
      >
    </label>
    <details class="rounded-box border border-base-300 px-3">
      <summary class="flex min-h-12 cursor-pointer items-center underline underline-offset-4"
        >What is known of its plates</summary
      >
      <div class="grid grid-cols-2 gap-3 pb-3">
        {#each rough[kind] as name (`${kind} ${name}`)}
          <label class="grid gap-1 text-sm"
            >{PLATES[name]![0]}
            <span class="input input-lg w-full">
              <QuantityInput
                class="figure"
                value={plates[name] ?? null}
                dimension={dimensionOf(name)}
                onset={(typed) => read(name, typed.value)}
              />
            </span>
          </label>
        {/each}
      </div>
    </details>
  {/if}
  {#if problem ?? asked.problem}
    {@const why = problem ?? asked.problem}
    <p role="alert" class="alert alert-error">
      {why?.title}. {why?.faults[0]?.message ?? why?.detail}
    </p>
  {/if}
  {#if asked.data}
    <Trouble view={asked.data} fault={refused} onanswer={answer} />
    {#if evidence.length}
      <section aria-labelledby="taken" class="grid gap-2">
        <h2 id="taken" class="font-bold">Said so far</h2>
        <div class="flex flex-wrap gap-2">
          {#each asked.data.evidence as each (each.says)}
            <button
              type="button"
              class="btn h-auto min-h-12 max-w-full text-left whitespace-normal"
              onclick={() => withdraw(each.item)}>Take back: {each.says}</button
            >
          {/each}
        </div>
      </section>
    {/if}
    {#if system?.may_change}
      <button type="button" class="btn min-h-14 btn-lg btn-primary" onclick={keep}
        >Go on in a visit</button
      >
    {/if}
  {:else}
    <p class="text-neutral">Asking…</p>
  {/if}
</main>
