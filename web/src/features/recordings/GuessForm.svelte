<script lang="ts">
  import { untrack } from 'svelte'
  import Faults from '../../ui/Faults.svelte'
  import { fromSi, toSi, unitOf } from '../../domain/units'
  import type { Layout, RecordingState } from './recording.svelte'

  /** How the file seems to be written: its first rows as they stand, each part open to correction, and what is not sure. */
  let { at }: { at: RecordingState } = $props()
  const guess = $derived(at.guess!)
  let layout = $state<Layout>(untrack(() => structuredClone(at.guess!.layout)))
  const UNITS: Record<string, string[]> = {
    gauge: ['psi', 'bar', 'mbar', 'kPa', 'MPa', 'Pa', 'kgf/cm2', 'mH2O', 'ftH2O', 'mA', 'V', 'mV'],
    current: ['A', 'mA'],
    flow: ['gpm', 'L/min', 'L/s', 'L/h', 'm3/h', 'm3/s'],
  }
  const HOLDS = [
    ['gauge', 'Pressure'],
    ['current', 'Pump current'],
    ['flow', 'Flow'],
  ]
  const STYLES = [
    ['pattern', 'Date and time'],
    ['words', 'Date and time in words'],
    ['clock', 'Time of day alone'],
    ['epoch_s', 'Seconds since 1970'],
    ['epoch_ms', 'Milliseconds since 1970'],
    ['epoch_us', 'Microseconds since 1970'],
    ['excel_days', 'Workbook days'],
    ['elapsed_s', 'Seconds from the start'],
    ['elapsed_ms', 'Milliseconds from the start'],
    ['elapsed_min', 'Minutes from the start'],
    ['elapsed_h', 'Hours from the start'],
    ['none', 'None: one every so often'],
  ]
  const ENDS = [
    ['signal_least', 'stands_least_pa', 'least'],
    ['signal_most', 'stands_most_pa', 'most'],
  ] as const
  const SIGNALS = ['mA', 'V', 'mV']
  const names = $derived((layout.names as { name: string }[]).map(({ name }) => name))
  const sensor = $derived(
    layout.columns.find((c) => c.holds === 'gauge' && SIGNALS.includes(c.unit as string)),
  )
  let inPsi = $state(false)
  const unit = $derived(unitOf(inPsi ? 'psi' : 'bar'))
</script>

{#snippet figure(word: string, value: number, ontyped: (typed: number) => void, least?: number)}
  <label class="grid gap-1">
    <span class="text-sm">{word}</span>
    <input
      class="input w-full"
      type="number"
      min={least}
      step={least === undefined ? 'any' : 1}
      {value}
      onchange={(event) => ontyped(Number(event.currentTarget.value))}
    />
  </label>
{/snippet}

<form
  class="grid max-w-3xl gap-4"
  onsubmit={(event) => (event.preventDefault(), void at.read($state.snapshot(layout) as Layout))}
>
  {#if guess.doubts.length}
    <div class="rounded-box border-2 border-warning px-3 py-2">
      <p class="font-bold">▲ Not sure</p>
      <ul class="list-disc pl-5">
        {#each guess.doubts as doubt (doubt)}<li>{doubt}</li>{/each}
      </ul>
    </div>
  {/if}
  <div class="overflow-x-auto rounded-box border border-base-300 bg-base-100 p-3">
    <p class="mb-1 text-sm text-neutral">The first rows</p>
    <pre class="text-sm">{guess.lines.join('\n')}</pre>
  </div>
  <div class="grid gap-3 sm:grid-cols-2">
    <label class="grid gap-1">
      <span class="text-sm">Times are</span>
      <select class="select w-full" bind:value={layout.style}>
        {#each STYLES as [id, word] (id)}<option value={id}>{word}</option>{/each}
      </select>
    </label>
    {#if layout.style === 'pattern'}
      <label class="grid gap-1">
        <span class="text-sm">Written as (%d day, %m month, %Y year)</span>
        <input class="input w-full font-mono" bind:value={layout.pattern} />
        <Faults faults={at.faults} path="layout.pattern" />
      </label>
    {/if}
    {#if layout.style === 'none'}
      <label class="grid gap-1">
        <span class="text-sm">Seconds from one to the next</span>
        <input class="input w-full" type="number" step="any" bind:value={layout.every_s} />
        <Faults faults={at.faults} path="layout.every_s" />
      </label>
    {/if}
    <label class="grid gap-1">
      <span class="text-sm">Time zone (empty: the recorder’s own clock)</span>
      <input class="input w-full" placeholder="Europe/Berlin" bind:value={layout.zone} />
      <Faults faults={at.faults} path="layout.zone" />
    </label>
    <label class="grid gap-1">
      <span class="text-sm">Decimal sign</span>
      <select class="select w-full" bind:value={layout.decimal}>
        <option value=".">point</option><option value=",">comma</option>
      </select>
      <Faults faults={at.faults} path="layout.decimal" />
    </label>
  </div>
  {#each layout.columns as column, n (n)}
    <fieldset class="grid gap-3 rounded-box border border-base-300 p-3 sm:grid-cols-3">
      <legend class="px-1 text-sm"
        >{names[column.at as number] || `Column ${Number(column.at) + 1}`}</legend
      >
      <label class="grid gap-1">
        <span class="text-sm">Holds</span>
        <select class="select w-full" bind:value={column.holds}>
          {#each HOLDS as [id, word] (id)}<option value={id}>{word}</option>{/each}
        </select>
      </label>
      <label class="grid gap-1">
        <span class="text-sm">Unit</span>
        <select class="select w-full" bind:value={column.unit}>
          {#each UNITS[column.holds as string] ?? [] as id (id)}<option value={id}>{id}</option
            >{/each}
        </select>
        <Faults faults={at.faults} path="layout.columns.{n}.unit" />
      </label>
      {@render figure(
        'Column number',
        Number(column.at) + 1,
        (typed) => (column.at = typed - 1),
        1,
      )}
      {#if column === sensor}
        <div class="grid gap-2 sm:col-span-3 sm:grid-cols-5">
          {#each ENDS as [signal, stands, word] (signal)}
            {@render figure(
              `${column.unit} at ${word}`,
              Number(column[signal]),
              (typed) => (column[signal] = typed),
            )}
            {@render figure(
              'stands for',
              fromSi(Number(column[stands]), unit),
              (typed) => (column[stands] = toSi(typed, unit)),
            )}
          {/each}
          <label class="grid gap-1"
            ><span class="text-sm">in</span>
            <select
              class="select w-full"
              value={inPsi ? 'psi' : 'bar'}
              onchange={(event) => (inPsi = event.currentTarget.value === 'psi')}
            >
              <option>bar</option><option>psi</option>
            </select></label
          >
          <Faults faults={at.faults} path="layout.columns.{n}.signal_least" />
        </div>
      {/if}
    </fieldset>
  {/each}
  <Faults faults={at.faults} path="layout.columns" />
  <button type="submit" class="btn btn-lg btn-primary">Read it</button>
</form>
