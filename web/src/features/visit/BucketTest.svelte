<script lang="ts">
  import Stepper from '../../ui/Stepper.svelte'
  import Test from './Test.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Water caught between two pressures, power off: the pre-charge, or the air left, without draining the tank. */
  let { state: at }: { state: VisitState } = $props()
  const settings = $derived(at.visit!.system.document.settings)
  let from = $state<unknown>()
  let to = $state<unknown>()
  let caught = $state<unknown>(null)
  const high = $derived(from === undefined ? settings.cut_out_gauge_pa : from)
  const low = $derived(to === undefined ? settings.cut_in_gauge_pa : to)

  async function keep() {
    await at.add('bucket', { from_gauge_pa: high, to_gauge_pa: low, caught_m3: caught })
    if (at.faultsAt('bucket').length) return
    from = to = undefined
    caught = null
  }
</script>

<Test
  state={at}
  slot="bucket"
  title="Bucket test: power off, catch what comes"
  keep="Save what was caught"
  ready={caught !== null}
  onkeep={keep}
>
  <Stepper
    id="bucket-from"
    title="From"
    value={high}
    dimension="pressure"
    onset={(si) => (from = si)}
  />
  <Stepper
    id="bucket-to"
    title="Down to"
    value={low}
    dimension="pressure"
    onset={(si) => (to = si)}
  />
  <Stepper
    id="bucket-caught"
    title="Water caught"
    value={caught}
    dimension="volume"
    onset={(si) => (caught = si)}
  />
</Test>
