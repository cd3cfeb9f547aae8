<script lang="ts">
  import type { Schemas } from '../../lib/api/client'

  let { answers }: { answers: Schemas['Answer'][] } = $props()
  const [first, ...rest] = $derived(answers)
  /** Number and unit apart, so that the number can be large. */
  function split(text: string): [string, string] {
    const found = /^(-?[\d.,]+)\s?(.*)$/.exec(text)
    return found ? [found[1]!, found[2]!] : [text, '']
  }
</script>

{#snippet opened(answer: Schemas['Answer'])}
  <div class="pb-2 text-sm">
    {#if answer.formula}<p>{answer.formula}</p>{/if}
    <p class="mt-1 text-neutral">{answer.source}</p>
  </div>
{/snippet}

{#snippet figure(answer: Schemas['Answer'], size: string)}
  {@const [number, unit] = split(answer.text)}
  <span class="block text-sm">{answer.title}</span>
  <span class="figure {unit || /\d/.test(number) ? size : 'text-lg'}" data-answer={answer.id}>{number}</span>
  <span class="font-mono text-sm">{unit}</span>
  {#if answer.note}<span class="text-sm whitespace-nowrap">{answer.note}</span>{/if}
{/snippet}

{#if first}
  <details class="rounded-box bg-[var(--zd-sand)] px-4 py-2">
    <summary class="cursor-pointer list-none">{@render figure(first, 'text-5xl')}</summary>
    {@render opened(first)}
  </details>
{/if}
<div class="grid grid-cols-2 gap-x-4 py-2">
  {#each rest as answer (answer.id)}
    <details class="min-w-0 open:col-span-2">
      <summary class="min-h-12 cursor-pointer list-none py-1 leading-tight"
        >{@render figure(answer, 'text-3xl')}</summary
      >
      {@render opened(answer)}
    </details>
  {/each}
</div>
