<script lang="ts">
  import { parse, toSi, unitFor, type Told } from '../../domain/units'
  import { held } from '../../ui/held'
  import { figure, stepOf } from './fine'

  /** One reading of the reference: it stands where it is expected, so that a press or two make it right, or one held. */
  let {
    title,
    start,
    grain,
    units,
    busy,
    onset,
    ontouch,
  }: {
    title: string
    start: number
    grain: number
    units: Told
    busy: boolean
    onset: (pa: number | string) => void
    /** The figure is being set: what was waited for has happened. */
    ontouch?: () => void
  } = $props()
  const unit = $derived(unitFor('pressure', units))
  const step = $derived(stepOf(grain, units))
  // svelte-ignore state_referenced_locally
  let pa = $state<number | string>(start)
  const shown = $derived(typeof pa === 'number' ? figure(pa, grain, units) : pa)

  function nudge(by: number) {
    ontouch?.()
    const from = typeof pa === 'number' ? pa : start
    pa = (Math.round(from / step) + by) * step
  }
  function type(text: string) {
    const number = parse(text)
    pa = number === null ? text : toSi(number, unit)
  }
  const NUDGES: [number, string, string][] = [
    [-10, '−−', 'much less'],
    [-1, '−', 'less'],
    [1, '+', 'more'],
    [10, '++', 'much more'],
  ]
</script>

{#snippet press([by, sign, word]: [number, string, string])}
  <button
    type="button"
    class="min-h-16 cursor-pointer touch-none text-2xl text-accent select-none"
    aria-label="{title}: {word}"
    {@attach held(() => nudge(by))}>{sign}</button
  >
{/snippet}

<form
  class="grid gap-2"
  onsubmit={(event) => {
    event.preventDefault()
    onset(pa)
  }}
>
  <div
    class="grid grid-cols-[3rem_3rem_minmax(0,1fr)_3rem_3rem] items-stretch rounded-box border border-base-300 bg-base-100"
  >
    {@render press(NUDGES[0]!)}{@render press(NUDGES[1]!)}
    <label class="grid content-center text-center">
      <span class="sr-only">{title}</span>
      <span class="flex flex-wrap items-baseline justify-center gap-x-1">
        <input
          class="figure field-sizing-content max-w-full min-w-16 bg-transparent text-center {String(
            shown,
          ).length > 5
            ? 'text-3xl'
            : 'text-4xl'}"
          inputmode="decimal"
          autocomplete="off"
          value={shown}
          onfocus={() => ontouch?.()}
          onchange={(event) => type(event.currentTarget.value)}
        /><span class="text-sm text-neutral">{unit.symbol}</span>
      </span>
    </label>
    {@render press(NUDGES[2]!)}{@render press(NUDGES[3]!)}
  </div>
  <button class="btn min-h-16 btn-lg btn-primary" disabled={busy}>Record</button>
</form>
