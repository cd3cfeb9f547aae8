<script lang="ts">
  import { api, type Schemas } from '../../api/client'
  import { Query } from '../../api/query.svelte'
  import VerdictMark, { VERDICTS } from '../../ui/VerdictMark.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import type { BoardState } from '../../domain/board.svelte'

  /** Two ways of setting the same system, figure by figure. */
  let { board }: { board: BoardState } = $props()
  type Matter = Schemas['PracticeMatter']
  const asked = new Query<Matter[]>()
  const matters = $derived(asked.data ?? [])
  const problem = $derived(asked.problem)
  let matter = $state('')
  let against = $state<Record<string, string>>({})

  $effect(() => {
    const body = { document: board.file! }
    const params = { query: { units: preferences.units } }
    void asked.ask(api.POST('/api/compare', { body, params }))
  })
  const group = $derived(matters.find((each) => each.id === matter) ?? matters[0])
  const mine = $derived(group?.ways.find((way) => way.id === group.chosen))
  const others = $derived(group?.ways.filter((way) => way.id !== group.chosen) ?? [])
  const other = $derived(others.find((way) => way.id === against[group!.id]) ?? others.at(-1))
  const pressure = (pa: number | null | undefined) =>
    pa == null ? '–' : text(pa, 'pressure', preferences.units)

  function rows(a: Schemas['Option'], b: Schemas['Option']): [string, string, string][] {
    const figure = (of: Schemas['Option'], id: string) =>
      of.figures.find((each) => each.id === id)?.text ?? '–'
    return [
      ['Cut-in', pressure(a.cut_in_gauge_pa), pressure(b.cut_in_gauge_pa)],
      ['Cut-out', pressure(a.cut_out_gauge_pa), pressure(b.cut_out_gauge_pa)],
      ['Pre-charge', pressure(a.pre_charge_gauge_pa), pressure(b.pre_charge_gauge_pa)],
      ...a.figures.map((each): [string, string, string] => [
        each.title,
        each.text,
        figure(b, each.id),
      ]),
    ]
  }
  function follow(way: string) {
    if (board.value('practice.follows') === 'workspace') board.put('practice.follows', 'own')
    board.put(`practice.${group!.field}`, way)
  }
</script>

{#if problem}
  <p role="alert" class="text-error">{problem.title}. {problem.detail}</p>
{:else if group && mine && other}
  <div class="flex flex-wrap gap-3">
    <label class="grid min-w-56 flex-1 gap-1">
      <span class="text-sm">Matter</span>
      <select
        class="select select-lg w-full"
        value={group.id}
        onchange={(event) => (matter = event.currentTarget.value)}
      >
        {#each matters as each (each.id)}<option value={each.id}>{each.title}</option>{/each}
      </select>
    </label>
    <label class="grid min-w-56 flex-1 gap-1">
      <span class="text-sm">Against</span>
      <select
        class="select select-lg w-full"
        value={other.id}
        onchange={(event) => (against[group.id] = event.currentTarget.value)}
      >
        {#each others as each (each.id)}<option value={each.id}>{each.title}</option>{/each}
      </select>
    </label>
  </div>
  <table class="mt-3 table" data-testid="ways-compared">
    <thead>
      <tr>
        <th class="w-1/3"></th>
        {#each [mine, other] as way, at (way.id)}
          <th class="w-1/3 align-top whitespace-normal">
            <span class="block text-base text-base-content">{way.title}</span>
            <span class="block font-normal"
              >{at ? '' : 'Followed here. '}{group.reasons[way.id] ?? ''}</span
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows(mine, other) as [title, here, there] (title)}
        <tr class={here === there ? 'text-neutral' : ''}>
          <th scope="row" class="font-normal whitespace-normal">{title}</th>
          <td class="figure">{here}</td>
          <td class="figure {here === there ? '' : 'text-secondary'}">{there}</td>
        </tr>
      {/each}
      <tr>
        <th scope="row" class="font-normal">Verdict</th>
        {#each [mine, other] as way (way.id)}
          <td class="align-top">
            <span class="flex items-center gap-2"
              ><VerdictMark verdict={way.verdict} />{VERDICTS[way.verdict]?.word}</span
            >
            <span class="block text-sm">{way.broken.join('; ')}</span>
            {#if way.cost}<span class="block text-sm text-warning">{way.cost}</span>{/if}
          </td>
        {/each}
      </tr>
    </tbody>
  </table>
  <button type="button" class="btn mt-3 btn-lg" onclick={() => follow(other.id)}
    >Follow “{other.title}” on this system</button
  >
{:else}
  <p class="text-neutral">Comparing…</p>
{/if}
