<script lang="ts">
  import VerdictMark from '../../ui/VerdictMark.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { text, type Dimension } from '../../domain/units'
  import Check from '../../ui/Check.svelte'
  import Confirm from './Confirm.svelte'
  import Corrections from './Corrections.svelte'
  import NextCheck from './NextCheck.svelte'
  import Documents from './Documents.svelte'
  import Outcome from './Outcome.svelte'
  import ReportPhotos from './ReportPhotos.svelte'
  import Power from './Power.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** As found and as left, what was checked, what remains and was advised, and closing the visit. */
  let { state: at }: { state: VisitState } = $props()
  const view = $derived(at.view!)
  const handover = $derived(view.handover)
  const say = (value: number | null | undefined, dimension: Dimension) =>
    value == null ? '–' : text(value, dimension, preferences.units)
  let remark = $state('')
  let closing = $state(false)

  async function add() {
    await at.add('note', { text: remark })
    if (!at.faultsAt('note').length) remark = ''
  }
</script>

<table class="table" data-testid="summary">
  <thead><tr><th></th><th>As found</th><th>As left</th></tr></thead>
  <tbody>
    {#each handover.rows as row (row.title)}
      <tr>
        <th scope="row" class="font-normal">{row.title}</th>
        <td class="figure">{say(row.found, row.dimension)}</td>
        <td class="figure">{say(row.left, row.dimension)}</td>
      </tr>
    {/each}
  </tbody>
</table>
<NextCheck visit={at.id} stamp={handover} />
<Power state={at} />
<div class="grid gap-2">
  {#if at.standing.power === 'off'}<Confirm step={view.power_up} state={at} />{/if}
  {#each handover.checks as check (check.id)}
    <Check
      does={check.does}
      done={check.done || at.value(check.slot) === true}
      disabled={!at.open}
      onconfirm={(done) => at.check(check.slot, done)}
    />
  {/each}
</div>
{#if handover.remaining.length}
  <section aria-labelledby="remaining" class="grid gap-2">
    <h2 id="remaining" class="font-bold">To see to ({handover.remaining.length})</h2>
    <ul class="grid gap-2" data-testid="remaining">
      {#each handover.remaining as each (each.id)}
        <li
          class="grid grid-cols-[auto_1fr] gap-x-3 rounded-box border border-base-300 bg-base-100 px-3 py-2 text-sm"
        >
          <span class="pt-1"><VerdictMark verdict={each.verdict} /></span>
          <span
            ><span class="block font-bold"
              >{each.title}
              {#if each.figure}<span class="figure font-normal">{each.figure}</span>{/if}</span
            >{each.advice}
            {#if each.urgent !== 'soon'}<span class="font-bold"
                >{each.urgent === 'now' ? 'Now.' : 'At the next visit.'}</span
              >{/if}</span
          >
        </li>
      {/each}
    </ul>
  </section>
{/if}
<Outcome state={at} />
<ReportPhotos state={at} />
{#each at.series('note') as note (note.id)}
  <p class="rounded-box border border-base-300 px-3 py-2">
    {(note.value as { text: string }).text}
  </p>
{/each}
{#if at.open}
  <label class="grid gap-1"
    >Remark<textarea class="textarea w-full" bind:value={remark}></textarea></label
  >
  {#each at.faultsAt('note') as fault (fault.message)}<p class="text-sm text-error">
      {fault.message}
    </p>{/each}
  <button type="button" class="btn min-h-12" disabled={!remark.trim()} onclick={add}
    >Add the remark</button
  >
{/if}
{#if at.open}
  <label class="grid gap-1">
    Signed by
    <input
      class="input input-lg w-full"
      autocomplete="name"
      value={at.value('signed') ?? ''}
      onchange={(event) => at.put('signed', event.currentTarget.value)}
    />
  </label>
{:else}
  <p>Signed by <span class="font-bold">{handover.signed || 'nobody'}</span></p>
{/if}
<Documents
  visit={at.id}
  system={at.visit!.system.id}
  mayShare={at.visit!.may_change}
  waiting={at.waiting.length + at.photos.length}
/>
{#if at.visit!.corrections}
  <Corrections state={at} />
{:else if at.open && !closing}
  <button
    type="button"
    class="btn min-h-16 btn-lg btn-primary"
    disabled={at.offline}
    onclick={() => (closing = true)}>Close the visit</button
  >
{:else if at.open}
  <div
    class="grid gap-2 rounded-box border-2 border-base-content p-3"
    role="group"
    aria-labelledby="closing"
  >
    <p id="closing" class="font-bold">
      Closing locks the record. Later, readings can only be corrected, with a date.
    </p>
    <div class="flex gap-2">
      <button type="button" class="btn min-h-14 flex-1" onclick={() => (closing = false)}
        >Not yet</button
      >
      <button
        type="button"
        class="btn min-h-14 flex-1 btn-primary"
        disabled={at.offline}
        onclick={() => at.close()}>Close and lock</button
      >
    </div>
  </div>
{/if}
