<script lang="ts">
  import { day } from '../../domain/dates'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import Stepper from '../../ui/Stepper.svelte'
  import { corrected } from '../../domain/corrections'
  import type { VisitState } from '../../domain/visit.svelte'

  /** A closed visit: what was put right since, and putting a reading right. What stood there stays on record. */
  let { state: at }: { state: VisitState } = $props()
  const corrections = $derived(at.visit!.corrections!)
  let open = $state(false)
  let index = $state(0)
  let value = $state<unknown>(null)
  let why = $state('')
  const chosen = $derived(corrections.correctable[index])
  const changed = $derived(typeof value === 'number' && value !== chosen?.gauge_pa)
  const held = (pa: number | null | undefined) =>
    pa == null ? 'missing' : text(pa, 'pressure', preferences.units)

  function choose(at: number) {
    index = at
    value = corrections.correctable[at]?.gauge_pa ?? null
  }
  async function add() {
    const made = chosen && corrected(chosen, value)
    if (!made) return
    if (why.trim()) await at.add('note', { text: why.trim() })
    await at.add(made.slot, made.value, made.supersedes)
    if (at.faultsAt(made.slot).length) return
    open = false
    why = ''
  }
</script>

<section aria-labelledby="late" class="grid gap-2">
  <h2 id="late" class="font-bold">Closed {at.visit!.closed_at ? day(at.visit!.closed_at) : ''}</h2>
  {#if corrections.corrections.length}
    <ul class="grid gap-2" data-testid="corrections">
      {#each corrections.corrections as each, number (number)}
        <li class="rounded-box border border-base-300 bg-base-100 px-3 py-2">
          <span class="block font-bold">{each.title}</span>
          <span class="figure">{each.was} → {each.now}</span>
          <span class="block text-sm">Corrected {day(each.at)}{each.by ? `, ${each.by}` : ''}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if at.visit!.may_change && !open}
    <p class="text-sm">
      The record is locked. A reading that is wrong can be corrected; both values stay, with the
      date.
    </p>
    <button
      type="button"
      class="btn min-h-12"
      onclick={() => {
        open = true
        choose(0)
      }}>Correct a reading</button
    >
  {:else if open}
    <div class="grid gap-3 rounded-box border border-base-300 p-3">
      <label class="grid gap-1">
        Reading
        <select
          aria-label="Reading"
          class="select select-lg w-full"
          value={index}
          onchange={(event) => choose(+event.currentTarget.value)}
        >
          {#each corrections.correctable as each, number (number)}
            <option value={number}>{each.title}: {held(each.gauge_pa)}</option>
          {/each}
        </select>
      </label>
      <Stepper
        id="correction-value"
        title="As the gauge showed"
        {value}
        dimension="pressure"
        faults={at.faultsAt(chosen?.slot ?? '')}
        onset={(si) => (value = si)}
      />
      <label class="grid gap-1"
        >Why<input class="input input-lg w-full" maxlength="500" bind:value={why} /></label
      >
      <div class="flex gap-2">
        <button type="button" class="btn min-h-12 flex-1" onclick={() => (open = false)}
          >Cancel</button
        >
        <button
          type="button"
          class="btn min-h-12 flex-1 btn-primary"
          disabled={!changed}
          onclick={add}>Add the correction</button
        >
      </div>
    </div>
  {/if}
</section>
