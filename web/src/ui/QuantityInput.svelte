<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements'
  import { preferences } from '../domain/preferences.svelte'
  import { editable, typed, type Entered, type Quantity } from '../domain/quantity'
  import { unitFor, type Dimension, type Told } from '../domain/units'

  /** The box of a quantity and its unit: shown in the units chosen, kept in SI, and as typed for the one who types. */
  interface Props extends Omit<HTMLInputAttributes, 'value'> {
    /** SI; a text where what was typed is no number. */
    value: unknown
    dimension: Dimension
    /** What it is told in, where that is not as chosen. */
    told?: Told | undefined
    entered?: Entered | undefined
    /** Tells every key, not only a finished entry. */
    live?: boolean
    onset: (typed: Quantity) => void
  }
  let { value, dimension, told, entered, live = false, onset, ...rest }: Props = $props()

  const units = $derived(told ?? preferences.units)
  const unit = $derived(unitFor(dimension, units))
  let own = $state.raw<Quantity | undefined>()
  const shown = $derived(
    own?.unit === unit.id && own.value === (value ?? null)
      ? own.text
      : editable(value, unit, entered),
  )
  function read(event: Event & { currentTarget: HTMLInputElement }) {
    own = typed(event.currentTarget.value, dimension, units)
    onset(own)
  }
</script>

<input
  inputmode="decimal"
  autocomplete="off"
  {...rest}
  value={shown}
  oninput={live ? read : undefined}
  onchange={live ? undefined : read}
/>
<span class="text-sm text-neutral">{unit.symbol}</span>
