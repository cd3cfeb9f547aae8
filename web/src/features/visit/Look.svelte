<script lang="ts">
  import Stepper from '../../ui/Stepper.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Both points as seen on the gauge: a new look, or the correction of one. */
  let {
    state: at,
    correcting,
    onlogged,
  }: { state: VisitState; correcting: string | undefined; onlogged: () => void } = $props()
  const set = $derived(at.view!.set)
  const wrong = $derived(set.tries.find((each) => each.entry === correcting))
  const [wrongLow, wrongHigh] = $derived([
    wrong?.cut_in_gauge_pa ?? null,
    wrong?.cut_out_gauge_pa ?? null,
  ])
  let low = $derived<unknown>(wrongLow)
  let high = $derived<unknown>(wrongHigh)
  const startLow = $derived(set.expect_in_pa?.[0] ?? set.target_in_gauge_pa)
  const startHigh = $derived(set.expect_out_pa?.[0] ?? set.target_out_gauge_pa)
  const may = $derived(at.open && (correcting !== undefined || at.standing.power === 'on'))
  const ready = $derived(may && low !== null && high !== null)
  const made = $derived(
    (at.value('set.turned') ?? { first: 0, second: 0 }) as { first: number; second: number },
  )
  const count = $derived(set.tries.filter((each) => each.turns.some(Boolean)).length)

  async function log() {
    const turned = set.do === 'see' ? made : { first: 0, second: 0 }
    const [first, second] = wrong
      ? [wrong.turns[0] ?? 0, wrong.turns[1] ?? 0]
      : [turned.first, turned.second]
    const seen = {
      first,
      second,
      after: wrong ? null : set.looks,
      cut_in_gauge_pa: low,
      cut_out_gauge_pa: high,
    }
    await at.add('try', seen, correcting ?? null)
    if (at.faultsAt('try').length) return
    low = high = null
    onlogged()
  }
</script>

<Stepper
  id="seen-in"
  title="Cut-in seen on the gauge"
  value={low}
  dimension="pressure"
  start={startLow}
  faults={at.faultsAt('try').filter((fault) => fault.path.includes('cut_in'))}
  disabled={!may}
  onset={(si) => (low = si)}
/>
<Stepper
  id="seen-out"
  title="Cut-out seen on the gauge"
  value={high}
  dimension="pressure"
  start={startHigh}
  faults={at.faultsAt('try').filter((fault) => !fault.path.includes('cut_in'))}
  disabled={!may}
  onset={(si) => (high = si)}
/>
<button
  type="button"
  class="btn min-h-16 btn-lg btn-primary {ready ? 'sticky bottom-2 z-10' : ''}"
  disabled={!ready}
  onclick={log}
  >{correcting
    ? 'Save the correction'
    : set.do === 'see'
      ? `Log try ${count + 1}`
      : 'Log this look'}</button
>
