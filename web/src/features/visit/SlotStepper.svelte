<script lang="ts">
  import type { Dimension } from '../../domain/units'
  import Stepper from '../../ui/Stepper.svelte'
  import type { Slot, VisitState } from '../../domain/visit.svelte'

  /** A figure of the visit in its stepper: shown as refused, waiting or kept; a change corrects what stands there. */
  let {
    state: at,
    slot,
    title,
    dimension,
    start = null,
    note = '',
    shut = false,
  }: {
    state: VisitState
    slot: Slot
    title: string
    dimension: Dimension
    start?: number | null
    note?: string
    /** Not to be entered yet; what was entered may still be corrected. */
    shut?: boolean
  } = $props()
  const value = $derived(at.value(slot))
</script>

<Stepper
  id="slot-{slot}"
  {title}
  {value}
  {dimension}
  {start}
  {note}
  faults={at.faultsAt(slot)}
  disabled={!at.open || (shut && value == null)}
  onset={(si, settled) => at.put(slot, si, settled)}
/>
