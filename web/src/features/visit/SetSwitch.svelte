<script lang="ts">
  import Segmented from '../../ui/Segmented.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import { readDraft } from '../../domain/draft'
  import AirStep from './AirStep.svelte'
  import Check from '../../ui/Check.svelte'
  import Confirm from './Confirm.svelte'
  import Instruction from './Instruction.svelte'
  import Jobs from './Jobs.svelte'
  import Look from './Look.svelte'
  import Otherwise from './Otherwise.svelte'
  import Plates from './Plates.svelte'
  import Power from './Power.svelte'
  import Tries from './Tries.svelte'
  import TurnNow from './TurnNow.svelte'
  import Undecided from './Undecided.svelte'
  import WatchOn from './WatchOn.svelte'
  import { proposed } from '../../domain/turns'
  import type { VisitState } from '../../domain/visit.svelte'

  /** The air first, then the switch: one instruction at a time; nothing is turned until power is confirmed off. */
  let { state: at }: { state: VisitState } = $props()
  const view = $derived(at.view!)
  const set = $derived(view.set)
  const power = $derived(at.standing.power)
  const pressure = (pa: number) => text(pa, 'pressure', preferences.units)
  const kept = $derived(at.visit!.system)
  const onTable = $derived(readDraft(kept.id, kept.version, kept.document) !== undefined)
  const queued = $derived(at.waits('try') || at.waits('set.turned'))
  const offSteps = $derived(
    view.make_safe.filter((step) => ['power_off', 'proved_dead'].includes(step.id)),
  )
  const orders = [
    { id: 'together' as const, title: 'Both at once' },
    { id: 'first' as const, title: 'One by one' },
  ]
  let correcting = $state<string | undefined>()

  const turned = ([first = 0, second = 0]: number[]) =>
    at.put('set.turned', { first, second, after: set.looks })
</script>

{#if view.air && set.do !== 'decide'}<AirStep state={at} />{/if}

{#if view.jobs.some((job) => job.added)}<Jobs state={at} />{/if}

<section aria-labelledby="switch-title" class="grid gap-3">
  <h2 id="switch-title" class="font-bold">
    Switch, to <span class="figure">{pressure(set.target_in_gauge_pa)}</span> and
    <span class="figure">{pressure(set.target_out_gauge_pa)}</span>
  </h2>
  {#if set.nuts.length > 1 && set.do === 'turn'}
    <Segmented
      label="Order of the nuts"
      options={orders}
      value={at.order}
      onchange={(order) => at.setOrder(order)}
    />
  {/if}
  <p class="text-sm">Good enough, for each point:</p>
  <Segmented
    label="Good enough"
    options={set.nears}
    value={set.near}
    onchange={(near) => at.put('set.near', near)}
  />
  {#if onTable}
    <p class="rounded-box border-2 border-warning px-4 py-2 text-sm font-bold">
      Changes in Decide are not saved yet: these are the settings in force.
    </p>
  {/if}
  {#if set.anew}<p class="text-sm" data-testid="anew">{set.anew}</p>{/if}
  {#if set.gauge_says}<p class="text-sm">{set.gauge_says}</p>{/if}
  {#if set.warning}<p class="rounded-box border-2 border-warning px-4 py-2 text-sm font-bold">
      {set.warning}
    </p>{/if}
  {#each set.complaints as complaint (complaint.id)}
    <p role="alert" class="rounded-box border-2 border-error px-4 py-2 text-sm">
      <span class="font-bold">{complaint.says}</span> Look at: {complaint.look.join('; ')}.
    </p>
  {/each}

  {#if queued && at.offline}
    <p role="status" class="rounded-box bg-[var(--zd-sand)] px-4 py-3 text-xl font-bold">
      Saved on this phone. The next turn is worked out when there is signal.
    </p>
    <Power state={at} />
  {:else if correcting}
    <Look state={at} {correcting} onlogged={() => (correcting = undefined)} />
    <button type="button" class="btn min-h-12 btn-ghost" onclick={() => (correcting = undefined)}
      >Leave it as it was</button
    >
  {:else if set.do === 'decide'}
    <Undecided state={at} />
  {:else if set.do === 'done'}
    <p
      class="rounded-box border-2 border-success px-4 py-3 text-xl font-bold"
      data-testid="instruction"
    >
      ● {set.says}
    </p>
    {#if power !== 'on'}<Confirm step={view.power_up} state={at} />{/if}
    <WatchOn state={at} />
  {:else if set.do === 'turn'}
    {#if power === 'off'}<Power state={at} />
    {:else}
      <p class="font-bold">Before a nut is touched:</p>
      {#each offSteps as step (step.id)}<Confirm {step} state={at} />{/each}
    {/if}
    <Instruction {set} ready={power === 'off'} />
    <button
      type="button"
      class="btn min-h-16 btn-lg btn-primary"
      disabled={!at.open || power !== 'off'}
      onclick={() => turned(proposed(set))}>Done turning</button
    >
    <Otherwise {set} disabled={!at.open || power !== 'off'} onturned={turned} />
  {:else if set.may_watch}
    <p
      class="rounded-box border-2 border-error px-4 py-3 text-xl leading-snug font-bold"
      data-testid="instruction"
    >
      {set.says}
    </p>
    {#if set.reads.length}
      <Plates system={kept.id} onkept={() => at.load()} />
      <Check
        does="None of these can be read here: leave the switch where it was found."
        done={at.value('set.no_limit') === true}
        disabled={!at.open}
        onconfirm={(done) => at.put('set.no_limit', done)}
      />
    {/if}
    {#if power !== 'on'}<Confirm step={view.power_up} state={at} />{/if}
    <WatchOn state={at} />
  {:else}
    <p
      class="rounded-box bg-[var(--zd-sand)] px-4 py-3 text-xl leading-snug font-bold"
      data-testid="instruction"
    >
      {set.says}
    </p>
    {#if set.do === 'see'}
      <p class="flex items-center justify-between gap-2 text-sm">
        <span>Turned: {set.turns.map((turn) => turn.says).join('; ') || 'nothing'}</span>
        <button
          type="button"
          class="btn min-h-12"
          disabled={!at.open}
          onclick={() => at.put('set.turned', null)}>Not turned</button
        >
      </p>
    {/if}
    {#if power === 'on'}<Power state={at} />{:else}<Confirm step={view.power_up} state={at} />{/if}
    <Look state={at} {correcting} onlogged={() => (correcting = undefined)} />
    <TurnNow state={at} />
  {/if}
  <details class="rounded-box border border-base-300 px-3" open={at.value('set.replaced') === true}>
    <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      >The switch was replaced</summary
    >
    <div class="pb-3">
      <Check
        does="A new switch is in place of the old one."
        done={at.value('set.replaced') === true}
        disabled={!at.open}
        onconfirm={(done) => at.put('set.replaced', done)}
      />
    </div>
  </details>
  {#if set.tries.length || set.found_pa}<Tries {set} />{/if}
  {#if set.learned}<p class="text-sm">{set.learned}</p>{/if}
  {#if set.tries.length && at.open && !correcting}
    <details>
      <summary
        class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
        >Correct a reading</summary
      >
      <ul class="grid gap-1">
        {#each set.tries as each, index (each.entry)}
          <li>
            <button
              type="button"
              class="btn min-h-12 w-full justify-between"
              onclick={() => (correcting = each.entry)}
            >
              <span>Look {index + 1}</span>
              <span class="figure"
                >{pressure(each.cut_in_gauge_pa)} / {pressure(each.cut_out_gauge_pa)}</span
              >
            </button>
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</section>
