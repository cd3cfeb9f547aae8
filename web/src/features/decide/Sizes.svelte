<script lang="ts">
  import { api, parted, type Schemas } from '../../api/client'
  import { Query } from '../../api/query.svelte'
  import FieldRow from '../../ui/FieldRow.svelte'
  import Segmented from '../../ui/Segmented.svelte'
  import VerdictMark from '../../ui/VerdictMark.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { typed, type Quantity } from '../../domain/quantity'
  import { digits, fromSi, text, unitFor, type Dimension } from '../../domain/units'
  import type { BoardState } from '../../domain/board.svelte'

  /** The least tank for what is wanted, and the sizes that can be bought. */
  let { board }: { board: BoardState } = $props()
  type Kind = 'run' | 'starts'
  const tankless = $derived(board.window !== undefined)
  const rate = $derived<Dimension>(tankless ? 'per_minute' : 'rate')
  let kind = $state<Kind | ''>('')
  let wanted = $state.raw<Quantity | undefined>()
  const asked = new Query<Schemas['Sizing'] | null>()
  const sizing = $derived(asked.data)
  const dimension = $derived<Dimension>(kind === 'run' ? 'duration' : rate)
  const value = $derived(wanted?.value ?? null)
  // What is no number is sent as it is, for the server to name.
  const target = $derived(kind && value !== null ? { kind, value: value as number } : null)

  $effect(() => {
    const sizes = tankless ? null : (board.practice?.sizes_m3 ?? null)
    const body = { document: board.file!, target, sizes_m3: sizes }
    const params = { query: { units: preferences.units } }
    void asked.ask(api.POST('/api/sizes', { body, params }))
  })
  const kinds = $derived<{ id: Kind; title: string }[]>(
    tankless
      ? [{ id: 'starts', title: 'Pulses at most' }]
      : [
          { id: 'run', title: 'Run at least' },
          { id: 'starts', title: 'Starts at most' },
        ],
  )
  const all = $derived(parted(asked.problem)[0])
  const faults = $derived(all.filter((fault) => fault.path.startsWith('target')))
  const problem = $derived(asked.problem)
  const volume = (m3: number) => text(m3, 'volume', preferences.units)
  /** A tenth finer than elsewhere: here a size just misses or just meets. */
  function say(value: number | null | undefined, of: Dimension): string {
    if (value == null) return '–'
    const unit = unitFor(of, preferences.units)
    return (
      digits(fromSi(value, unit), { ...unit, decimals: 1 }) +
      (unit.symbol.startsWith('/') ? '' : ' ') +
      unit.symbol
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
          ><th>Volume</th>{#if !tankless}<th>Run</th>{/if}<th>{tankless ? 'Pulses' : 'Starts'}</th
          ><th></th></tr
        >
      </thead>
      <tbody>
        {#each rows as row (row.volume_m3)}
          <tr>
            <td class="figure whitespace-nowrap">{volume(row.volume_m3)}</td>
            {#if !tankless}<td class="figure whitespace-nowrap">{say(row.run_s, 'duration')}</td
              >{/if}
            <td class="figure whitespace-nowrap">{say(row.starts_per_s, rate)}</td>
            <td>
              <span class="flex items-center gap-2 text-sm"
                ><VerdictMark
                  verdict={row.meets && !row.misses.length ? 'pass' : 'caution'}
                />{row.meets ? 'enough' : 'too small'}{row.misses.length
                  ? `: misses ${row.misses.join(', ')}`
                  : ''}</span
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
    options={[{ id: '', title: 'By practice' }, ...kinds]}
    value={kind}
    onchange={(chosen) => ((kind = chosen), (wanted = undefined))}
  />
  {#if kind}
    <div class="w-44">
      <FieldRow
        {field}
        path="target.value"
        {value}
        entered={wanted}
        {faults}
        ontype={(text) => (wanted = typed(text, dimension, preferences.units))}
        onput={() => {}}
      />
    </div>
  {/if}
</div>
{#if problem && !faults.length}
  <p role="alert" class="mt-2 text-error">
    {problem.title}. {problem.faults[0]?.message ?? problem.detail}
  </p>
{/if}
{#if sizing}
  <p class="mt-3 text-lg" data-testid="sized">{sizing.says}</p>
  {#if sizing.unjudged.length}
    <p class="mt-1 text-sm">
      Not judged before it is read: {sizing.unjudged.map((each) => each.title).join('; ')}.
    </p>
  {/if}
  <div class="mt-3 flex flex-col gap-6 sm:flex-row">
    {#if sizing.instead.length}
      {@render sizes(tankless ? 'Accumulators' : 'In place of what is there', sizing.instead)}
    {/if}
    {#if sizing.beside.length}{@render sizes('Beside what is there', sizing.beside)}{/if}
  </div>
  {#if sizing.second}
    <details class="mt-4 border-t border-base-300 pt-2">
      <summary class="flex min-h-12 cursor-pointer items-center gap-2">
        Second opinion, the European booster form: <span class="figure"
          >{volume(sizing.second.volume_m3)}</span
        >
      </summary>
      <p class="text-sm">{sizing.second.says}</p>
      <p class="mt-1 text-sm text-neutral">{sizing.second.source}</p>
    </details>
  {/if}
  {#if !tankless}
    <p class="mt-3 text-sm text-neutral">
      {board.practice?.sizes_m3 ? 'Sizes from the workspace’s own list.' : 'The usual sizes.'}
      <a class="link" href="/practice">Edit the list</a>
    </p>
  {/if}
{:else}
  <p class="mt-3 text-neutral">Sizing…</p>
{/if}
