<script lang="ts">
  import type { Schemas } from '../../api/client'
  import Check from '../../ui/Check.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** A step of making safe or of powering up, confirmed by hand; shut until the step that it needs is confirmed. */
  let { step, state: at }: { step: Schemas['MakeSafeStep']; state: VisitState } = $props()
  const done = $derived(at.done(step.id))
  const shut = $derived(step.after !== '' && !at.done(step.after))
</script>

<Check
  does={step.does}
  caution={step.caution}
  {done}
  shut={shut ? step.shut || 'First the step before it.' : ''}
  disabled={!at.open}
  onconfirm={(now) => at.add(step.slot, now)}
/>
