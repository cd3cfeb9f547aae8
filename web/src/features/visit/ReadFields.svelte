<script lang="ts">
  import type { Schemas } from '../../api/client'
  import Asked from './Asked.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { valueAt } from '../../domain/file'
  import { text } from '../../domain/units'
  import SlotStepper from './SlotStepper.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Figures and words to read, each with its condition, last time's value, and what is odd about it. */
  let { state: at, fields }: { state: VisitState; fields: readonly Schemas['ReadField'][] } =
    $props()
  const STARTS: Record<string, string> = {
    'found.cut_in': 'cut_in_gauge_pa',
    'found.cut_out': 'cut_out_gauge_pa',
    'found.pre_charge': 'pre_charge_gauge_pa',
    'found.knee': 'pre_charge_gauge_pa',
    'found.gauge': 'cut_in_gauge_pa',
  }
  const start = (slot: string, last: unknown) =>
    typeof last === 'number' ? last : settingAt(STARTS[slot])
  function settingAt(name: string | undefined): number | null {
    const value = valueAt(at.visit!.system.document.settings, name ?? '')
    return typeof value === 'number' ? value : null
  }

  function note({ last, dimension, drift, when, by_gauge }: Schemas['ReadField']): string {
    const by = by_gauge ? `from ${by_gauge}` : ''
    const known = last !== null && last !== undefined && last !== ''
    const said = typeof last === 'number' ? text(last, dimension, preferences.units) : String(last)
    return [when, by, known && `last time ${said}`, known && drift].filter(Boolean).join(' · ')
  }
</script>

{#each fields as field (field.slot)}
  <div data-slot={field.slot}>
    {#if field.kind === 'quantity'}
      <SlotStepper
        state={at}
        slot={field.slot}
        title={field.title}
        dimension={field.dimension}
        start={start(field.slot, field.last)}
        note={note(field)}
      />
    {:else}
      <label class="grid gap-1">
        {field.title}
        <input
          class="input input-lg w-full"
          value={at.value(field.slot) ?? ''}
          disabled={!at.open}
          onchange={(event) => at.put(field.slot, event.currentTarget.value)}
        />
        {#if note(field)}<span class="text-sm text-neutral">{note(field)}</span>{/if}
      </label>
      {#each at.faultsAt(field.slot) as fault (fault.message)}<p class="text-sm text-error">
          {fault.message}
        </p>{/each}
    {/if}
    <Asked state={at} slot={field.slot} />
  </div>
{/each}
