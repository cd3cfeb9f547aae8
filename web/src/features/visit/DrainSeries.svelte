<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { parse, toSi, unitFor } from '../../domain/units'
  import Test from './Test.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** A drain typed or out of a recorder's file: seconds and pressure, a line each. What is no number is sent as it is, to be
   * refused by name. */
  let { state: at }: { state: VisitState } = $props()
  const unit = $derived(unitFor('pressure', preferences.units))
  const EXAMPLE = '0 58\n5 55\n10 52'
  let series = $state('')

  async function keep() {
    const rows = series
      .trim()
      .split(/\r?\n/)
      .filter((line) => /\d/.test(line))
      .map((line) => {
        const [time = '', gauge = ''] = line.trim().split(/\s*[;\t]\s*|\s*,\s+|\s+|,(?=[^,]*$)/)
        const pressure = parse(gauge)
        return [parse(time) ?? time, pressure === null ? gauge : toSi(pressure, unit)]
      })
    await at.add('drain', rows)
    if (!at.faultsAt('drain').length) series = ''
  }
  async function take(event: Event & { currentTarget: HTMLInputElement }) {
    series = (await event.currentTarget.files?.[0]?.text()) ?? series
    event.currentTarget.value = ''
  }
</script>

<Test
  state={at}
  slot="drain"
  title="Drain series: its knee is the pre-charge"
  keep="Find the knee"
  ready={series.trim() !== ''}
  onkeep={keep}
>
  <label class="grid gap-1 text-sm">
    Seconds and {unit.symbol}, a line each
    <textarea class="figure textarea h-40 w-full" bind:value={series} placeholder={EXAMPLE}
    ></textarea>
  </label>
  <label class="btn min-h-12">
    From a file
    <input type="file" accept=".csv,.txt,text/csv,text/plain" class="sr-only" onchange={take} />
  </label>
</Test>
