<script lang="ts">
  import type { Schemas } from '../../api/client'

  /** What is not read, most decisive first; each leads to where it is entered. */
  let { unread, onreading }: { unread: Schemas['Unread'][]; onreading: (path: string) => void } =
    $props()
  const FIRST = 4
  let all = $state(false)
  const shown = $derived(all ? unread : unread.slice(0, FIRST))
  const waits = ({ rules, stops }: Schemas['Unread']) =>
    stops
      ? stops === 1
        ? 'may be a stop'
        : `${stops} may be a stop`
      : rules === 1
        ? 'one rule waits for it'
        : `${rules} rules wait for it`
</script>

{#if unread.length}
  <h3 class="text-sm font-bold">Missing, most decisive first</h3>
  <ul class="mb-3 grid gap-x-3 sm:grid-cols-2" data-testid="unread">
    {#each shown as each (each.reading.path + each.reading.title)}
      <li>
        <button
          type="button"
          class="flex min-h-12 w-full cursor-pointer items-center justify-between gap-3 border-b border-base-300 text-left"
          onclick={() => onreading(each.reading.path)}
        >
          <span class="inline-block first-letter:uppercase">{each.reading.title}</span>
          <span class="shrink-0 text-sm {each.stops ? 'font-bold' : 'text-neutral'}"
            >{waits(each)}</span
          >
        </button>
      </li>
    {/each}
    {#if unread.length > FIRST && !all}
      <li>
        <button type="button" class="link flex min-h-12 items-center" onclick={() => (all = true)}
          >All {unread.length}</button
        >
      </li>
    {/if}
  </ul>
{/if}
