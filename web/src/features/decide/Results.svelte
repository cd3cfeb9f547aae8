<script lang="ts">
  import type { Schemas } from '../../api/client'

  let {
    results,
    certainty,
    onreading,
  }: {
    results: Schemas['Result'][]
    /** Within what they lie; not there while something moves. */
    certainty: Schemas['Certainty'] | undefined
    onreading: (path: string) => void
  } = $props()
  const within = $derived(new Map(certainty?.results.map((each) => [each.result, each])))
  const [first, ...rest] = $derived(results)
  /** Number and unit apart, so that the number can be large. */
  function split(text: string): [string, string] {
    const found = /^(-?[\d.,]+)\s?(.*)$/.exec(text)
    return found ? [found[1]!, found[2]!] : [text, '']
  }
</script>

{#snippet opened(result: Schemas['Result'])}
  {@const sure = within.get(result.id)}
  <div class="pb-2 text-sm">
    {#if result.formula}<p>{result.formula}</p>{/if}
    <p class="mt-1 text-neutral">{result.source}</p>
    {#if sure?.text && sure.narrow}
      <p class="mt-1">
        95 times in a hundred within {sure.text}, by what its readings may be off by. What would
        narrow it most: {sure.narrow.title}.
      </p>
    {/if}
  </div>
{/snippet}

{#snippet figure(result: Schemas['Result'], size: string)}
  {@const [number, unit] = split(result.text)}
  {@const sure = within.get(result.id)}
  <span class="block text-sm">{result.title}</span>
  <span class="figure {unit || /\d/.test(number) ? size : 'text-lg'}" data-result={result.id}
    >{number}</span
  >
  <span class="font-mono text-sm">{unit}</span>
  {#if sure?.text}
    <span class="block font-mono text-sm whitespace-nowrap text-neutral" data-within={result.id}
      >{sure.text}{#if sure.usual}<span class="ml-2 font-sans font-bold text-accent">usual</span
        >{/if}</span
    >
  {/if}
  {#if result.note}<span class="text-sm whitespace-nowrap">{result.note}</span>{/if}
{/snippet}

{#if first}
  <details class="rounded-box bg-[var(--zd-sand)] px-4 py-2">
    <summary class="cursor-pointer list-none">{@render figure(first, 'text-5xl')}</summary>
    {@render opened(first)}
  </details>
{/if}
<div class="grid grid-cols-2 gap-x-4 py-2">
  {#each rest as result (result.id)}
    <details class="min-w-0 open:col-span-2">
      <summary class="min-h-12 cursor-pointer list-none py-1 leading-tight"
        >{@render figure(result, 'text-3xl')}</summary
      >
      {@render opened(result)}
    </details>
  {/each}
</div>
{#if certainty?.narrow}
  {@const narrow = certainty.narrow}
  <button
    type="button"
    class="btn min-h-12 w-full justify-start px-3 text-left font-normal whitespace-normal"
    onclick={() => onreading(narrow.path)}
    ><span><strong>Surer by</strong> {narrow.title}</span></button
  >
{/if}
