<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../lib/api/client'
  import VerdictMark, { VERDICTS } from '../../lib/controls/VerdictMark.svelte'
  import { preferences } from '../../lib/preferences.svelte'
  import { text } from '../../lib/units'
  import type { DecideState } from './decide.svelte'

  /** Two schools on the same system, figure by figure. */
  let { table }: { table: DecideState } = $props()
  type Group = Schemas['SchoolGroup']
  let groups = $state.raw<Group[]>([])
  let problem = $state.raw<Problem | undefined>()
  let matter = $state('')
  let against = $state<Record<string, string>>({})

  $effect(() => {
    const body = { document: table.file! }
    const params = { query: { units: preferences.units } }
    void outcome(api.POST('/api/schools', { body, params })).then((got) => {
      groups = (got.data as Group[] | undefined) ?? []
      problem = got.problem
    })
  })
  const group = $derived(groups.find((each) => each.id === matter) ?? groups[0])
  const mine = $derived(group?.schools.find((school) => school.id === group.chosen))
  const others = $derived(group?.schools.filter((school) => school.id !== group.chosen) ?? [])
  const other = $derived(others.find((school) => school.id === against[group!.id]) ?? others.at(-1))
  const pressure = (pa: number | null | undefined) => (pa == null ? '–' : text(pa, 'pressure', preferences.units))

  function rows(a: Schemas['Option'], b: Schemas['Option']): [string, string, string][] {
    const figure = (of: Schemas['Option'], id: string) => of.figures.find((each) => each.id === id)?.text ?? '–'
    return [
      ['Cut-in', pressure(a.cut_in_gauge_pa), pressure(b.cut_in_gauge_pa)],
      ['Cut-out', pressure(a.cut_out_gauge_pa), pressure(b.cut_out_gauge_pa)],
      ['Pre-charge', pressure(a.pre_charge_gauge_pa), pressure(b.pre_charge_gauge_pa)],
      ...a.figures.map((each): [string, string, string] => [each.title, each.text, figure(b, each.id)]),
    ]
  }
  function follow(school: string) {
    if (table.value('practice.follows') === 'workspace') table.put('practice.follows', 'own')
    table.put(`practice.${group!.field}`, school)
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
        {#each groups as each (each.id)}<option value={each.id}>{each.title}</option>{/each}
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
  <table class="mt-3 table" data-testid="schools">
    <thead>
      <tr>
        <th class="w-1/3"></th>
        {#each [mine, other] as school, at (school.id)}
          <th class="w-1/3 align-top whitespace-normal">
            <span class="block text-base text-base-content">{school.title}</span>
            <span class="block font-normal">{at ? '' : 'Followed here. '}{group.reasons[school.id] ?? ''}</span>
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
        {#each [mine, other] as school (school.id)}
          <td class="align-top">
            <span class="flex items-center gap-2"
              ><VerdictMark verdict={school.verdict} />{VERDICTS[school.verdict]?.word}</span
            >
            <span class="block text-sm">{school.broken.join('; ')}</span>
            {#if school.cost}<span class="block text-sm text-warning">{school.cost}</span>{/if}
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
