<script lang="ts">
  import { api, type Schemas } from '../../api/client'
  import { Query } from '../../api/query.svelte'
  import VerdictMark from '../../ui/VerdictMark.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { bandText, text } from '../../domain/units'
  import UnreadList from './UnreadList.svelte'
  import type { BoardState } from '../../domain/board.svelte'

  let {
    board,
    stopSeen,
    ontaken,
    onreading,
  }: {
    board: BoardState
    stopSeen: boolean
    ontaken: () => void
    onreading: (path: string) => void
  } = $props()
  type Option = Schemas['Option']
  const asked = new Query<Schemas['Proposal']>()
  const proposal = $derived(asked.data)
  const problem = $derived(asked.problem)

  $effect(() => {
    const body = { document: board.file!, stop_seen: stopSeen }
    const params = { query: { units: preferences.units } }
    void asked.ask(api.POST('/api/propose', { body, params }))
  })
  const rows = $derived.by(() => {
    if (!proposal) return []
    const { now, proposed, alternatives, usual } = proposal
    return [
      { title: '', ways: [now, ...(proposal.same ? [] : [proposed])] },
      { title: 'Next best', ways: alternatives },
      { title: 'Usual switch settings', ways: usual },
    ].filter((group) => group.ways.length)
  })
  const pressure = (pa: number | null | undefined) =>
    pa == null ? '' : text(pa, 'pressure', preferences.units)
  const bare = (pa: number) => pressure(pa).split(' ')[0]

  const columns = $derived(
    3 +
      (proposal?.proposed.figures.length ?? 0) +
      (proposal?.proposed.pre_charge_gauge_pa == null ? 0 : 1),
  )

  function take(way: Option) {
    const air = way.pre_charge_gauge_pa == null ? '' : `, air ${bare(way.pre_charge_gauge_pa)}`
    const name = way.id === 'proposed' ? 'Proposed' : 'Chosen'
    board.take(
      way,
      `${name} ${bandText(way.cut_in_gauge_pa, way.cut_out_gauge_pa, preferences.units)}${air}`,
      way.tanks_alike,
    )
    ontaken()
  }
</script>

{#if problem}
  <p role="alert" class="text-error">
    {problem.title}. {problem.detail}
    {problem.faults[0]?.message ?? ''}
  </p>
{:else if !proposal}
  <p class="text-neutral">Trying settings…</p>
{:else}
  {@const best = proposal.proposed}
  <div
    class="flex flex-wrap items-center gap-x-6 gap-y-3 rounded-box bg-[var(--zd-sand)] px-4 py-3"
    data-testid="proposed"
  >
    <div>
      <span class="block text-sm">{proposal.headline}</span>
      <span class="figure text-4xl">{bare(best.cut_in_gauge_pa)}/{bare(best.cut_out_gauge_pa)}</span
      >
      <span class="font-mono text-sm">{pressure(best.cut_out_gauge_pa).split(' ')[1]}</span>
    </div>
    {#if best.pre_charge_gauge_pa != null}
      <div>
        <span class="block text-sm"
          >{best.air_renewed ? 'Drain and re-air' : 'Pre-charge, drained'}</span
        >
        {#if best.air_renewed && best.pre_charge_gauge_pa === 0}
          <span class="text-xl font-bold">from the atmosphere</span>
        {:else}
          <span class="figure text-4xl">{bare(best.pre_charge_gauge_pa)}</span>
          <span class="font-mono text-sm">{pressure(best.pre_charge_gauge_pa).split(' ')[1]}</span>
        {/if}
      </div>
    {/if}
    {#if !proposal.same}
      <button type="button" class="btn btn-lg btn-primary sm:ml-auto" onclick={() => take(best)}
        >Use these settings</button
      >
    {/if}
  </div>
  <ul class="my-3 grid list-disc gap-1 pl-5">
    {#each proposal.why as line (line)}<li>{line}</li>{/each}
  </ul>
  <UnreadList unread={proposal.unread} {onreading} />
  <div class="grid gap-2 sm:hidden" data-testid="way-cards">
    {#each rows as group (group.title)}
      {#if group.title}<h3 class="mt-2 font-bold">{group.title}</h3>{/if}
      {#each group.ways as way (way.id)}
        <article class="grid gap-1 rounded-box border border-base-300 px-3 py-2">
          <div class="flex items-center justify-between gap-2">
            <span>
              <span class="figure text-2xl"
                >{bare(way.cut_in_gauge_pa)}/{bare(way.cut_out_gauge_pa)}</span
              >
              {#if way.pre_charge_gauge_pa != null}<span class="text-sm"
                  >air <span class="figure">{bare(way.pre_charge_gauge_pa)}</span></span
                >{/if}
              {#if way.id === 'now' || way.id === 'proposed' || way.air_renewed}<span
                  class="block text-sm">{way.air_renewed ? 're-aired' : way.title}</span
                >{/if}
            </span>
            {#if way.id !== 'now'}<button
                type="button"
                class="btn min-h-12"
                aria-label="Use {way.title}"
                onclick={() => take(way)}>Use</button
              >{/if}
          </div>
          <dl class="grid grid-cols-2 gap-x-3 text-sm">
            {#each way.figures as figure (figure.id)}
              <div class="flex justify-between gap-2">
                <dt class="text-neutral">{figure.title}</dt>
                <dd class="figure">{figure.text}</dd>
              </div>
            {/each}
          </dl>
          <p class="flex items-center gap-2 text-sm">
            <VerdictMark verdict={way.verdict} />{way.says}
          </p>
          {#if way.cost}<p class="text-sm text-neutral">{way.cost}</p>{/if}
        </article>
      {/each}
    {/each}
  </div>
  <div class="-mx-4 overflow-x-auto px-4 max-sm:hidden">
    <table class="table table-sm" data-testid="ways">
      <thead>
        <tr class="align-bottom">
          <th></th>
          <th>Setting, {pressure(best.cut_out_gauge_pa).split(' ')[1]}</th>
          {#if best.pre_charge_gauge_pa != null}<th>Air</th>{/if}
          {#each best.figures as figure (figure.id)}<th class="min-w-20 whitespace-normal"
              >{figure.title}</th
            >{/each}
          <th>Verdict</th>
        </tr>
      </thead>
      {#each rows as group (group.title)}
        <tbody>
          {#if group.title}
            <tr><th colspan={columns} scope="colgroup" class="pt-4 text-left">{group.title}</th></tr
            >
          {/if}
          {#each group.ways as way (way.id)}
            <tr class="border-b-0 {way.id === 'proposed' ? 'font-bold' : ''}">
              <td rowspan={way.cost ? 2 : 1} class="pl-0">
                {#if way.id !== 'now'}
                  <button
                    type="button"
                    class="btn min-h-12"
                    aria-label="Use {way.title}"
                    onclick={() => take(way)}>Use</button
                  >
                {/if}
              </td>
              <td class="figure whitespace-nowrap">
                {bare(way.cut_in_gauge_pa)}/{bare(way.cut_out_gauge_pa)}
                {#if way.id === 'now' || way.id === 'proposed'}<span
                    class="block font-sans text-xs font-normal">{way.title}</span
                  >{/if}
                {#if way.air_renewed}<span class="block font-sans text-xs font-normal"
                    >re-aired</span
                  >{/if}
              </td>
              {#if best.pre_charge_gauge_pa != null}
                <td class="figure"
                  >{way.pre_charge_gauge_pa == null ? '–' : bare(way.pre_charge_gauge_pa)}</td
                >
              {/if}
              {#each best.figures as figure (figure.id)}
                <td class="figure whitespace-nowrap"
                  >{way.figures.find((other) => other.id === figure.id)?.text ?? '–'}</td
                >
              {/each}
              <td
                ><span class="flex items-center gap-2 whitespace-nowrap"
                  ><VerdictMark verdict={way.verdict} />{way.says}</span
                ></td
              >
            </tr>
            {#if way.cost}
              <tr
                ><td colspan={columns - 1} class="pt-0 whitespace-normal text-neutral"
                  ><div class="max-w-[68vw] sm:max-w-none">{way.cost}</div></td
                ></tr
              >
            {/if}
          {/each}
        </tbody>
      {/each}
    </table>
  </div>
{/if}
