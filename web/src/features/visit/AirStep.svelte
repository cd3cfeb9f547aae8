<script lang="ts">
  import Check from '../../ui/Check.svelte'
  import Confirm from './Confirm.svelte'
  import SlotStepper from './SlotStepper.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** The pre-charge: how much to add or let out, then what is left. Only with the tank drained and power off. */
  let { state: at }: { state: VisitState } = $props()
  const air = $derived(at.view!.air!)
  const set = $derived(at.view!.set)
  /** Once nuts are turned, the switch is what the hands are at. */
  const turning = $derived(
    set.do === 'see' || set.do === 'done' || set.tries.some((each) => each.turns.some(Boolean)),
  )
  const left = $derived(
    air.left_gauge_pa == null ? 'not set yet' : air.right ? '● right' : '▲ not yet right',
  )
  const ready = $derived(at.standing.power === 'off' && at.done('drained'))
</script>

<details class="rounded-box border border-base-300 px-3" open={!turning}>
  <summary class="flex min-h-14 cursor-pointer items-center justify-between gap-2">
    <h2 class="font-bold">Pre-charge</h2>
    <span class="text-sm {air.right ? '' : 'font-bold'}">{left}</span>
  </summary>
  <div class="grid gap-2 pb-3">
    <p class="rounded-box bg-[var(--zd-sand)] px-4 py-3" data-testid="air">{air.says}</p>
    {#if air.means}<p class="text-sm font-bold">{air.means}</p>{/if}
    {#if !ready && at.open}
      <p class="text-sm font-bold text-error">
        Power is not confirmed off and the tank not drained: see Make safe.
      </p>
    {/if}
    {#if air.shut === 'undrained'}<Confirm step={at.view!.gauge_at_zero} state={at} />{/if}
    {#if air.new}
      <SlotStepper
        state={at}
        slot="air.new"
        title="New tank’s pre-charge, as it came"
        dimension="pressure"
      />
    {/if}
    {#if !air.shut}
      <SlotStepper state={at} slot="air.inflator" title="Inflator delivers" dimension="air_flow" />
      <SlotStepper
        state={at}
        slot="air.left"
        title="Read again: pre-charge left"
        dimension="pressure"
        start={air.target_gauge_pa}
        note={air.left_gauge_pa == null ? '' : left}
        shut={!ready}
      />
    {/if}
    <Check
      does="Valve cap back on: the cap is the real seal."
      done={at.value('air.cap') === true}
      disabled={!at.open}
      onconfirm={(done) => at.put('air.cap', done)}
    />
  </div>
</details>
