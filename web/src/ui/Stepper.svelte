<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import type { Quantity } from '../domain/quantity'
  import { snapped, toSi, unitFor, type Dimension } from '../domain/units'
  import QuantityInput from './QuantityInput.svelte'

  /** A figure with a big minus and plus, or typed on the keypad. What is no number is passed on as typed, to be refused by
   * name. `settled` tells a finished entry from a press that others may follow. */
  let {
    id,
    title,
    value,
    dimension,
    start,
    note = '',
    faults = [],
    disabled = false,
    onset,
  }: {
    id: string
    title: string
    value: unknown
    dimension: Dimension
    /** Where the first press begins when nothing is entered yet, SI; one step of the unit if not given. */
    start?: number | null
    note?: string
    faults?: { message: string }[]
    disabled?: boolean
    onset: (si: number | string | null, settled: boolean) => void
  } = $props()

  const unit = $derived(unitFor(dimension, preferences.units))

  function step(by: number) {
    const entered = typeof value === 'number'
    const from = entered ? value : (start ?? toSi(unit.step, unit))
    onset(toSi(snapped(from, unit) + (entered ? by * unit.step : 0), unit), false)
  }
</script>

{#snippet press(by: number, sign: string, word: string)}
  <button
    type="button"
    class="min-h-16 cursor-pointer rounded-box text-3xl text-accent disabled:cursor-default disabled:text-neutral"
    aria-label="{title}: {word}"
    {disabled}
    onclick={() => step(by)}>{sign}</button
  >
{/snippet}

<div>
  <div
    class="grid grid-cols-[4rem_1fr_4rem] items-stretch rounded-box border bg-base-100 {faults.length
      ? 'border-2 border-error'
      : 'border-base-300'}"
  >
    {@render press(-1, '−', 'less')}
    <label class="grid content-center py-1 text-center" for={id}>
      <span class="text-sm" id="{id}-title">{title}</span>
      <span class="flex items-baseline justify-center gap-1">
        <QuantityInput
          {id}
          class="figure field-sizing-content max-w-28 min-w-14 bg-transparent text-center text-3xl"
          placeholder="–"
          {value}
          {dimension}
          onset={(typed: Quantity) => onset(typed.value, true)}
          {disabled}
          aria-invalid={faults.length > 0}
          aria-labelledby="{id}-title"
          aria-describedby={note ? `${id}-note` : undefined}
        />
      </span>
      {#if note}<span class="text-sm text-neutral" id="{id}-note">{note}</span>{/if}
    </label>
    {@render press(1, '+', 'more')}
  </div>
  {#each faults as fault (fault.message)}<p class="mt-1 text-sm text-error">
      {fault.message}
    </p>{/each}
</div>
