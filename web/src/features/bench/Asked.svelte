<script lang="ts">
  import type { Schemas } from '../../api/client'
  import Segmented from '../../ui/Segmented.svelte'
  import Approach from './Approach.svelte'
  import OnWire from './OnWire.svelte'
  import { screwsOf } from './screws'
  import Reading from './Reading.svelte'
  import Turns from './Turns.svelte'
  import { WireState, type Change } from './wire.svelte'

  /** What is asked next in a calibration, one instruction at a time, and what is entered for it. */
  let {
    at,
    told,
    grain,
    busy,
    add,
    take,
  }: {
    at: Schemas['CalibrationOut']
    told: NonNullable<Schemas['Next']['instruction']>
    grain: number
    busy: boolean
    add: (value: Record<string, unknown>) => Promise<void>
    take: (change: Change) => Promise<void>
  } = $props()
  const SEEN_BY = [
    { id: 'lamp', title: 'Lamp' },
    { id: 'meter', title: 'Meter' },
  ]
  let seen_by = $state('lamp')
  let since = $state<number | undefined>()
  let until = $state<number | undefined>()
  const timed = $derived(told.enters === 'set' && told.from_pa != null && told.least_s != null)
  $effect(() => {
    void at.entries.length
    since = until = undefined
  })

  function record(gauge_pa: number | string) {
    const value = { kind: 'read', point: told.point, which: told.enters, gauge_pa, seen_by }
    if (!timed || since === undefined) return add(value)
    const approach_s = ((until ?? performance.now()) - since) / 1000
    return add({ ...value, from_gauge_pa: told.from_pa, approach_s })
  }
  function touched() {
    if (since !== undefined) until ??= performance.now()
  }
  // svelte-ignore state_referenced_locally
  const wire = new WireState(at.id, (change) => void take(change))
  const acted = (gauge_pa: number, rate_pa_s: number) =>
    add({ kind: 'read', point: told.point, which: told.enters, gauge_pa, rate_pa_s, seen_by })
  const confirmed = (what: string) => add({ kind: 'confirmed', what })
</script>

{#snippet leave()}
  <button
    type="button"
    class="btn min-h-14 btn-lg"
    disabled={busy}
    onclick={() => confirmed('left_as_it_is')}>Leave it as it is</button
  >
{/snippet}

<section class="grid gap-3 rounded-box bg-[var(--zd-sand)] p-4" aria-label="Next">
  <h2 class="text-2xl leading-tight font-bold" data-testid="instruction">{told.title}</h2>
  {#if told.caution}<p class="rounded-box border-2 border-error px-3 py-2 font-bold">
      ■ {told.caution}
    </p>{/if}
  <p class="text-lg">{told.text}</p>
  {#if !at.may_change}
    <p class="text-sm">Whoever may change things in this workspace goes on with it.</p>
  {:else if told.enters === 'turn'}
    {#key at.entries.length}
      <Turns
        wanted={at.next.step?.turns ?? {}}
        screws={screwsOf(at.switch.points as { deadband?: string }[])}
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
      onclick={() => confirmed(told.id)}>Done</button
    >
  {:else if at.wire}
    <OnWire
      {wire}
      {grain}
      units={at.units}
      {told}
      contact={at.wire === 'contact'}
      onacted={acted}
    />
    <details class="rounded-box border border-base-300 px-3">
      <summary class="flex min-h-12 cursor-pointer items-center">Read it by hand</summary>
      <div class="grid gap-3 pb-3">{@render byHand()}</div>
    </details>
  {:else}
    {@render byHand()}
  {/if}
</section>

{#snippet byHand()}
  {#if timed}
    <Approach
      from={told.from_says}
      least={told.least_s ?? 0}
      {until}
      bind:since={
        () => since,
        (passed) => {
          since = passed
          until = undefined
        }
      }
    />
  {/if}
  {#key `${at.entries.length} ${at.units}`}
    <Reading
      title={told.title}
      start={told.expected_pa ?? 0}
      {grain}
      units={at.units}
      {busy}
      onset={record}
      ontouch={touched}
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
{/snippet}
