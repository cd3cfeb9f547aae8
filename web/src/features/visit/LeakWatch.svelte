<script lang="ts">
  import Stepper from '../../ui/Stepper.svelte'
  import Test from './Test.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Pressure now and later, nothing open, pump off. */
  let { state: at }: { state: VisitState } = $props()
  const settings = $derived(at.visit!.system.document.settings)
  let first = $state<unknown>(null)
  let later = $state<unknown>(null)
  let between = $state<unknown>(null)

  async function keep() {
    await at.add('leak', { first_gauge_pa: first, later_gauge_pa: later, seconds: between })
    if (!at.faultsAt('leak').length) first = later = between = null
  }
  const start = $derived(typeof first === 'number' ? first : settings.cut_out_gauge_pa)
</script>

<Test
  state={at}
  slot="leak"
  title="Leak watch: nothing open, pump off"
  keep="Save the leak watch"
  ready={first !== null && later !== null && between !== null}
  onkeep={keep}
>
  <Stepper
    id="leak-first"
    title="Pressure first"
    value={first}
    dimension="pressure"
    {start}
    onset={(si) => (first = si)}
  />
  <Stepper
    id="leak-later"
    title="Pressure later"
    value={later}
    dimension="pressure"
    {start}
    onset={(si) => (later = si)}
  />
  <Stepper
    id="leak-time"
    title="Time between"
    value={between}
    dimension="duration"
    start={600}
    onset={(si) => (between = si)}
  />
</Test>
