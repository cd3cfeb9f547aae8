<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { day } from '../../domain/dates'

  /** What happened to a system, newest first; each visit leads to its page, with its photos. */
  type Moment = Schemas['MomentOut']
  let { moments }: { moments: Moment[] } = $props()
  let whole = $state(false)
  const FEW = 8
  const shown = $derived(whole ? moments : moments.slice(0, FEW))
  const TITLES: Record<Moment['kind'], string> = {
    visit: 'Visit',
    decision: 'Settings decided on',
    added: 'Added',
    retired: 'Retired',
    restored: 'Brought back',
  }
</script>

{#if moments.length}
  <section aria-labelledby="timeline" class="mb-6">
    <h2 id="timeline" class="mb-2 font-bold">Timeline</h2>
    <ol class="grid gap-2 border-l-4 border-base-300 pl-3" data-testid="timeline">
      {#each shown as each, index (index)}
        <li class="rounded-box border border-base-300 bg-base-100">
          <svelte:element
            this={each.visit ? 'a' : 'div'}
            class="grid min-h-12 content-center gap-x-3 px-3 py-2 sm:grid-cols-[7.5rem_1fr_auto]"
            href={each.visit ? `/visits/${each.visit}` : undefined}
          >
            <span class="whitespace-nowrap">{day(each.at)}</span>
            <span>
              <span class="font-bold">{TITLES[each.kind]}{each.open ? ', left open' : ''}</span>
              {#if each.says}<span class="block">{each.says}</span>{/if}
            </span>
            <span class="text-sm text-neutral">{each.by}</span>
          </svelte:element>
          {#if each.visit && each.photos?.length}
            <div class="flex flex-wrap gap-2 px-3 pb-3">
              {#each each.photos as photo (photo.id)}
                <a href="/api/visits/{each.visit}/photos/{photo.id}" target="_blank"
                  ><img
                    loading="lazy"
                    class="h-20 rounded-box"
                    src="/api/visits/{each.visit}/photos/{photo.id}"
                    alt="Photo, {photo.plate || 'plate'}"
                  /></a
                >
              {/each}
            </div>
          {/if}
        </li>
      {/each}
    </ol>
    {#if moments.length > FEW}
      <button type="button" class="btn mt-2 min-h-12" onclick={() => (whole = !whole)}
        >{whole ? 'Only the latest' : `All ${moments.length}`}</button
      >
    {/if}
  </section>
{/if}
