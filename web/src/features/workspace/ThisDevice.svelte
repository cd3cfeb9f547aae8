<script lang="ts">
  import { connection } from '../../api/connection.svelte'
  import { heldHere, type HeldHere, type Said } from '../../device/shown'
  import type { Schemas } from '../../api/client'
  import { inWords, slotTitle } from '../../domain/words'
  import { preferences } from '../../domain/preferences.svelte'

  /** What lies on this device, how old it is, what waits, and what was refused. */
  let here = $state.raw<HeldHere | undefined>()
  const standing = $derived(connection.standing)
  $effect(() => {
    if (standing) void heldHere().then((found) => (here = found))
  })
  type Slot = Schemas['Slot']
  const words = ({ what, slot, value }: Said) =>
    slot ? `${slotTitle(slot as Slot)}: ${inWords(slot as Slot, value, preferences.units)}` : what
  const mb = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`

  function take() {
    const data = JSON.stringify({ refused: here!.refused, waiting: here!.waiting }, undefined, 1)
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([data], { type: 'application/json' }))
    link.download = 'zerodip-not-sent.json'
    link.click()
    URL.revokeObjectURL(link.href)
  }
</script>

<section aria-labelledby="device" class="grid gap-3">
  <h2 id="device" class="text-xl font-bold">This device</h2>
  {#if !standing}
    <p>Nothing is held here: there was no connection yet, or this browser keeps nothing.</p>
  {:else}
    <p data-testid="held">
      {standing.systems} systems with their last visits, as of
      {new Date(standing.contact).toLocaleString()}. They go after {here?.days ?? 30} days without contact,
      and when you sign out.
    </p>
    {#if here}
      <p class="text-sm">
        {mb(here.usage)} on this device, the page and its Python included;
        {here.persistent
          ? 'kept until you sign out.'
          : 'the browser may clear it when space runs short: install Zero Dip on the home screen to prevent that.'}
      </p>
      {#if here.waiting.length}
        <h3 class="font-bold">Not sent yet ({here.waiting.length})</h3>
        <ol class="grid gap-1 text-sm">
          {#each here.waiting as each (each.id)}<li>{words(each)}, {each.when}</li>{/each}
        </ol>
      {/if}
      {#if here.refused.length}
        <h3 class="font-bold">Refused by the server ({here.refused.length})</h3>
        <ul class="grid gap-2" data-testid="refused">
          {#each here.refused as each (each.id)}
            <li class="rounded-box border border-base-300 bg-base-100 px-3 py-2 text-sm">
              <b>{each.title}.</b>
              {each.detail}
              <span class="block">{words(each)}, {each.when}</span>
            </li>
          {/each}
        </ul>
      {/if}
      {#if here.waiting.length || here.refused.length}
        <button type="button" class="btn min-h-12 justify-self-start" onclick={take}
          >Save as a file</button
        >
      {/if}
      {#if here.refused.length}
        <button type="button" class="btn min-h-12 justify-self-start" onclick={() => here!.forget()}
          >They are seen to: remove the refused</button
        >
      {/if}
    {/if}
  {/if}
</section>
