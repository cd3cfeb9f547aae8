<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../lib/api/client'
  import FieldRow from '../../lib/controls/FieldRow.svelte'
  import Segmented from '../../lib/controls/Segmented.svelte'
  import VerdictMark from '../../lib/controls/VerdictMark.svelte'
  import { preferences } from '../../lib/preferences.svelte'
  import { digits, fromSi, parse, text, toSi, unitFor, type Dimension } from '../../lib/units'
  import type { DecideState } from './decide.svelte'

  /** The least tank for what is wanted, and the sizes that can be bought. */
  let { table }: { table: DecideState } = $props()
  type Kind = 'run' | 'starts'
  const tankless = $derived(table.result?.decision.window != null)
  const rate = $derived<Dimension>(tankless ? 'per_minute' : 'rate')
  let kind = $state<Kind | ''>('')
  let typed = $state('')
  let sizing = $state.raw<Schemas['Sizing'] | undefined>()
  let problem = $state.raw<Problem | undefined>()
  const dimension = $derived<Dimension>(kind === 'run' ? 'duration' : rate)
  const target = $derived.by(() => {
    if (!kind || typed.trim() === '') return null
    const number = parse(typed)
    return { kind, value: number === null ? typed : toSi(number, unitFor(dimension, preferences.units)) }
  })

  $effect(() => {
    const sizes = tankless ? null : (table.habits?.sizes_m3 ?? null)
    const body = { document: table.file!, target: target as never, sizes_m3: sizes }
    const params = { query: { units: preferences.units } }
    void outcome(api.POST('/api/sizes', { body, params })).then((got) => {
      if (got.data) sizing = got.data as Schemas['Sizing']
      problem = got.problem
    })
  })
  const kinds = $derived(
    tankless
      ? [{ id: 'starts' as Kind, title: 'Pulses at most' }]
      : [
          { id: 'run' as Kind, title: 'Run at least' },
          { id: 'starts' as Kind, title: 'Starts at most' },
        ],
  )
  const faults = $derived(problem?.faults.filter((fault) => fault.path.startsWith('target')) ?? [])
  const volume = (m3: number) => text(m3, 'volume', preferences.units)
  /** A tenth finer than elsewhere: here a size just misses or just meets. */
  function say(value: number | null | undefined, of: Dimension): string {
    if (value == null) return '–'
    const unit = unitFor(of, preferences.units)
    return (
      digits(fromSi(value, unit), { ...unit, decimals: 1 }) + (unit.symbol.startsWith('/') ? '' : ' ') + unit.symbol
    )
  }
  const field = $derived({
    kind: 'quantity' as const,
    title: kind === 'run' ? 'Run wanted' : 'At most',
    dimension,
    options: [],
    optional: true,
  })
</script>

{#snippet sizes(title: string, rows: Schemas['Size'][])}
  <div class="min-w-0 flex-1">
    <h3 class="mb-1 font-bold">{title}</h3>
    <table class="table table-sm">
      <thead>
        <tr
          ><th>Volume</th>{#if !tankless}<th>Run</th>{/if}<th>{tankless ? 'Pulses' : 'Starts'}</th><th></th></tr
        >
      </thead>
      <tbody>
        {#each rows as row (row.volume_m3)}
          <tr>
            <td class="figure whitespace-nowrap">{volume(row.volume_m3)}</td>
            {#if !tankless}<td class="figure whitespace-nowrap">{say(row.run_s, 'duration')}</td>{/if}
            <td class="figure whitespace-nowrap">{say(row.starts_per_s, rate)}</td>
            <td>
              <span class="flex items-center gap-2 text-sm"
                ><VerdictMark verdict={row.meets ? 'pass' : 'caution'} />{row.meets ? 'enough' : 'too small'}</span
              >
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/snippet}

<div class="flex flex-wrap items-end gap-3">
  <Segmented
    label="What is wanted"
    options={[{ id: '' as Kind | '', title: 'By practice' }, ...kinds]}
    value={kind}
    onchange={(chosen) => ((kind = chosen), (typed = ''))}
  />
  {#if kind}
    <div class="w-44">
      <FieldRow
        {field}
        path="target.value"
        text={typed}
        value={null}
        {faults}
        ontype={(said) => (typed = said)}
        onput={() => {}}
      />
    </div>
  {/if}
</div>
{#if problem && !faults.length}
  <p role="alert" class="mt-2 text-error">{problem.title}. {problem.faults[0]?.message ?? problem.detail}</p>
{/if}
{#if sizing}
  <p class="mt-3 text-lg" data-testid="sized">{sizing.says}</p>
  <div class="mt-3 flex flex-col gap-6 sm:flex-row">
    {#if sizing.instead.length}
      {@render sizes(tankless ? 'Accumulators' : 'In place of what is there', sizing.instead)}
    {/if}
    {#if sizing.beside.length}{@render sizes('Beside what is there', sizing.beside)}{/if}
  </div>
  {#if sizing.second}
    <details class="mt-4 border-t border-base-300 pt-2">
      <summary class="flex min-h-12 cursor-pointer items-center gap-2">
        Second opinion, the European booster form: <span class="figure">{volume(sizing.second.volume_m3)}</span>
      </summary>
      <p class="text-sm">{sizing.second.says}</p>
      <p class="mt-1 text-sm text-neutral">{sizing.second.source}</p>
    </details>
  {/if}
  {#if !tankless}
    <p class="mt-3 text-sm text-neutral">
      {table.habits?.sizes_m3 ? 'Sizes from the workspace’s own list.' : 'The usual sizes.'}
      <a class="link" href="/schools">Edit the list</a>
    </p>
  {/if}
{:else}
  <p class="mt-3 text-neutral">Sizing…</p>
{/if}
