<script lang="ts">
  import type { Schemas } from '../../api/client'
  import QuantityInput from '../../ui/QuantityInput.svelte'
  import type { Answer, Seen } from '../../domain/trouble'
  import type { Dimension } from '../../domain/units'

  /** The one check that is next: all that is looked at in one place. One question is answered by one tap, several are saved together; a yes that stops all is sent at once. */
  let {
    check,
    disabled,
    fault,
    onanswer,
  }: {
    check: Schemas['CheckAsked']
    disabled: boolean
    fault: string
    onanswer: (seen: Seen[]) => void
  } = $props()
  let answers = $state<Record<string, Answer>>({})
  const alone = $derived(check.items.length === 1)
  const many = $derived(Object.keys(answers).length)

  const send = (given: [string, Answer][]) =>
    onanswer(given.map(([item, answer]) => ({ item, answer, again: check.again })))
  const atOnce = (item: string, answer: Answer) =>
    alone || (answer === true && check.items.some((each) => each.item === item && each.stops))
  function give(item: string, answer: Answer) {
    answers = { ...answers, [item]: answer }
    if (atOnce(item, answer)) send(Object.entries(answers))
  }
  function type(item: string, value: unknown) {
    const others = Object.entries(answers).filter(([id]) => id !== item)
    answers = Object.fromEntries(
      typeof value === 'number' ? [...others, [item, value]] : others,
    ) as Record<string, Answer>
  }
  function save(event: SubmitEvent) {
    event.preventDefault()
    if (many) send(Object.entries(answers))
  }
</script>

{#snippet option(item: string, answer: Answer, says: string)}
  <button
    type="button"
    class="btn min-h-16 text-lg {answers[item] === answer ? 'btn-secondary' : ''}"
    aria-pressed={atOnce(item, answer) ? undefined : answers[item] === answer}
    {disabled}
    onclick={() => give(item, answer)}>{says}</button
  >
{/snippet}

<form
  aria-labelledby={`check-${check.items[0]?.item}`}
  class="grid gap-3 rounded-box bg-[var(--zd-sand)] px-4 py-3"
  data-testid={check.minutes ? 'next-check' : 'other-check'}
  onsubmit={save}
>
  <p id={`check-${check.items[0]?.item}`} class="text-sm">
    {check.again ? 'Once more, to be sure' : check.minutes ? 'Next check' : 'Seen'}{check.minutes
      ? ` · about ${check.minutes} min`
      : ''}{check.tools ? ` · ${check.tools}` : ''}
  </p>
  {#if check.first}<p class="font-bold">{check.first}</p>{/if}
  {#if check.caution}<p class="font-bold text-error">{check.caution}</p>{/if}
  {#each check.items as each (each.item)}
    <div class="grid gap-2" role="group" aria-labelledby={`asks-${each.item}`}>
      <h2 id={`asks-${each.item}`} class="text-lg font-bold">{each.asks}</h2>
      {#if each.how}<p class="text-sm">{each.how}</p>{/if}
      {#if each.dimension}
        <div class="grid grid-cols-2 gap-2">
          <label class="input input-lg {each.never ? '' : 'col-span-2'} w-full">
            <span class="sr-only">{each.asks}</span>
            <QuantityInput
              class="figure"
              value={typeof answers[each.item] === 'number' ? (answers[each.item] as number) : null}
              dimension={each.dimension as Dimension}
              live
              {disabled}
              onset={(typed) => type(each.item, typed.value)}
            />
          </label>
          {#if each.never}{@render option(each.item, 'never', each.never)}{/if}
        </div>
      {:else}
        <div class="grid grid-cols-2 gap-2">
          {@render option(each.item, true, each.yes)}
          {@render option(each.item, false, each.no)}
        </div>
      {/if}
    </div>
  {/each}
  {#if fault}<p role="alert" class="font-bold text-error">{fault}</p>{/if}
  {#if !alone || check.items[0]?.dimension}
    <button class="btn min-h-14 btn-primary" disabled={disabled || !many}>Save</button>
  {/if}
  {#if check.minutes}
    <button
      type="button"
      class="btn min-h-12 btn-ghost"
      {disabled}
      onclick={() => send(check.items.map((each) => [each.item, 'cannot']))}
      >Cannot be done here</button
    >
  {/if}
</form>
