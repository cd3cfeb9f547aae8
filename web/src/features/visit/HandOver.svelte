<script lang="ts">
  import { preferences } from '../../lib/preferences.svelte'
  import { text } from '../../lib/units'
  import Check from './Check.svelte'
  import Confirm from './Confirm.svelte'
  import Power from './Power.svelte'
  import type { VisitState } from './visit.svelte'

  /** As found and as left, what is still open, and closing the visit. */
  let { state: at }: { state: VisitState } = $props()
  const view = $derived(at.view!)
  const last = $derived(view.set.tries.at(-1))
  const pressure = (pa: unknown) => (typeof pa === 'number' ? text(pa, 'pressure', preferences.units) : '–')
  const rows = $derived([
    ['Cut-in', at.value('found.cut_in'), last?.cut_in_gauge_pa ?? at.value('found.cut_in')],
    ['Cut-out', at.value('found.cut_out'), last?.cut_out_gauge_pa ?? at.value('found.cut_out')],
    ...(view.air
      ? [['Pre-charge', at.value('found.pre_charge'), at.value('air.left') ?? at.value('found.pre_charge')]]
      : []),
  ] as [string, unknown, unknown][])
  let remark = $state('')
  async function add() {
    await at.add('note', { text: remark })
    if (!at.faultsAt('note').length) remark = ''
  }
  const CHECKS: [string, string][] = [
    ['cover', 'Cover on.'],
    ['house_open', 'House valve open.'],
    ['customer_told', 'Told what to watch for.'],
  ]
</script>

<table class="table" data-testid="summary">
  <thead><tr><th></th><th>As found</th><th>As left</th></tr></thead>
  <tbody>
    {#each rows as [title, found, left] (title)}
      <tr>
        <th scope="row" class="font-normal">{title}</th>
        <td class="figure">{pressure(found)}</td>
        <td class="figure">{pressure(left)}</td>
      </tr>
    {/each}
  </tbody>
</table>
<Power state={at} />
<div class="grid gap-2">
  {#if at.standing.power !== 'on'}<Confirm step={view.power_up} state={at} />{/if}
  {#each CHECKS as [id, does] (id)}
    <Check
      {does}
      done={at.value(`safe.${id}`) === true}
      disabled={!at.open}
      onconfirm={(done) => at.confirm(id, done)}
    />
  {/each}
</div>
{#each at.series('note') as note (note.id)}
  <p class="rounded-box border border-base-300 px-3 py-2">{(note.value as { text: string }).text}</p>
{/each}
{#if at.open}
  <label class="grid gap-1">Remark<textarea class="textarea w-full" bind:value={remark}></textarea></label>
  {#each at.faultsAt('note') as fault (fault.message)}<p class="text-sm text-error">{fault.message}</p>{/each}
  <button type="button" class="btn min-h-12" disabled={!remark.trim()} onclick={add}>Add the remark</button>
{/if}
{#if at.visit!.may_change}
  <button
    type="button"
    class="btn min-h-16 btn-lg btn-primary"
    disabled={at.offline}
    onclick={() => at.setOpen(!at.visit!.open)}>{at.visit!.open ? 'Close the visit' : 'Open it again'}</button
  >
{/if}
