<script lang="ts">
  import type { Schemas } from '../../api/client'
  import VerdictMark from '../../ui/VerdictMark.svelte'

  /** What was seen, timed or measured on a visit: before anything that is worked out. */
  let { seen, when }: { seen: Schemas['Remaining'][]; when: string } = $props()
</script>

{#if seen.length}
  <ul class="border-t border-base-300 py-1" aria-label="Seen on {when}" data-testid="seen">
    {#each seen as each (each.id)}
      <li class="grid grid-cols-[auto_1fr] gap-x-3 py-2">
        <span class="pt-0.5"><VerdictMark verdict={each.verdict} /></span>
        <span>
          <span class="flex flex-wrap justify-between gap-x-3 leading-snug font-bold"
            >{each.title}{#if each.figure}<span class="figure text-sm">{each.figure}</span
              >{/if}</span
          >
          <span class="mt-0.5 block text-sm">Seen on {when}. {each.advice}</span>
        </span>
      </li>
    {/each}
  </ul>
{/if}
