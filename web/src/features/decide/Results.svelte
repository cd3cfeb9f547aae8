<script lang="ts">
  import type { Schemas } from '../../api/client'

  let {
    results,
    leading,
    certainty,
    onreading,
  }: {
    results: Schemas['Result'][]
    /** Ids of those that decide; the others are one press away. */
    leading: readonly string[]
    /** Within what they lie; not there while something moves. */
    certainty: Schemas['Certainty'] | undefined
    onreading: (path: string) => void
  } = $props()
  const within = $derived(new Map(certainty?.results.map((each) => [each.result, each])))
  const [first, ...others] = $derived(results)
  const four = $derived(others.filter((result) => leading.includes(result.id)))
  const more = $derived(others.filter((result) => !leading.includes(result.id)))
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
        95 % sure: within {sure.text}, by what its readings may be off by. What would narrow it
        most: {sure.narrow.title}.
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

{#snippet grid(some: Schemas['Result'][], size: string)}
  <div class="grid grid-cols-2 gap-x-4 py-1">
    {#each some as result (result.id)}
      <details class="min-w-0 open:col-span-2">
        <summary class="min-h-12 cursor-pointer list-none py-1 leading-tight"
          >{@render figure(result, size)}</summary
        >
        {@render opened(result)}
      </details>
    {/each}
  </div>
{/snippet}

{#if first}
  <details class="rounded-box bg-[var(--zd-sand)] px-4 py-2">
    <summary class="cursor-pointer list-none">{@render figure(first, 'text-4xl')}</summary>
    {@render opened(first)}
  </details>
{/if}
{@render grid(four, 'text-3xl')}
{#if more.length}
  <details class="border-t border-base-300">
    <summary
      class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      data-testid="more-figures">{more.length} more figure{more.length > 1 ? 's' : ''}</summary
    >
    {@render grid(more, 'text-2xl')}
    {#if certainty?.narrow}
      {@const narrow = certainty.narrow}
      <button
        type="button"
        class="btn mb-2 min-h-12 w-full justify-start px-3 text-left font-normal whitespace-normal"
        onclick={() => onreading(narrow.path)}
        ><span><strong>Surer by</strong> {narrow.title}</span></button
      >
    {/if}
  </details>
{/if}
