<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { valueAt } from '../../domain/file'
  import { text } from '../../domain/units'
  import GaugePick from './GaugePick.svelte'
  import Photos from './Photos.svelte'
  import Plates from './Plates.svelte'
  import SlotStepper from './SlotStepper.svelte'
  import type { VisitState } from '../../domain/visit.svelte'
  import YesNo from '../../ui/YesNo.svelte'

  /** Plates as they are on site, then what is found today, beside what the last visit left. */
  let { state: at }: { state: VisitState } = $props()
  const view = $derived(at.view!)
  const STARTS: Record<string, string> = {
    'found.cut_in': 'cut_in_gauge_pa',
    'found.cut_out': 'cut_out_gauge_pa',
    'found.pre_charge': 'pre_charge_gauge_pa',
    'found.gauge': 'cut_in_gauge_pa',
  }
  const start = (slot: string, last: unknown) =>
    typeof last === 'number' ? last : settingAt(STARTS[slot])
  function settingAt(name: string | undefined): number | null {
    const value = valueAt(at.visit!.system.document.settings, name ?? '')
    return typeof value === 'number' ? value : null
  }
  const asks = (slot: string) => view.questions.filter((question) => question.slot === slot)

  function note({ last, dimension, drift, when }: (typeof view.read)[number]): string {
    if (last === null || last === undefined || last === '') return when
    const words = { number: (n: number) => text(n, dimension, preferences.units) }
    const said =
      typeof last === 'number'
        ? words.number(last)
        : typeof last === 'boolean'
          ? last
            ? 'yes'
            : 'no'
          : last
    return [when, `last time ${said}`, drift].filter(Boolean).join(' · ')
  }
</script>

<Plates system={at.visit!.system.id} />
<Photos state={at} />
<GaugePick state={at} />
<div class="grid gap-3">
  {#each view.read as field (field.slot)}
    {@const value = at.value(field.slot)}
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
      {:else if field.kind === 'flag'}
        <YesNo
          title={field.title}
          {value}
          disabled={!at.open}
          onset={(flag) => at.put(field.slot, flag)}
        />
        {#if note(field)}<span class="text-sm text-neutral">{note(field)}</span>{/if}
      {:else}
        <label class="grid gap-1">
          {field.title}
          <input
            class="input input-lg w-full"
            value={value ?? ''}
            disabled={!at.open}
            onchange={(event) => at.put(field.slot, event.currentTarget.value)}
          />
          {#if note(field)}<span class="text-sm text-neutral">{note(field)}</span>{/if}
        </label>
        {#each at.faultsAt(field.slot) as fault (fault.message)}<p class="text-sm text-error">
            {fault.message}
          </p>{/each}
      {/if}
      {#each asks(field.slot) as question (question.asks)}
        <p
          role="status"
          class="mt-1 rounded-box border-2 border-warning px-3 py-2 text-sm font-bold"
        >
          {question.asks}
          {#if question.earlier && at.open}
            <button
              type="button"
              class="btn mt-2 min-h-12 w-full"
              onclick={() => at.check(view.seen_earlier.slot, true)}>Yes, seen earlier</button
            >
          {/if}
        </p>
      {/each}
    </div>
  {/each}
</div>
