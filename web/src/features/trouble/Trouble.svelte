<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { Schemas } from '../../api/client'
  import QuantityInput from '../../ui/QuantityInput.svelte'
  import type { Answer } from '../../domain/trouble'
  import type { Dimension } from '../../domain/units'
  import Sketch from './Sketch.svelte'

  /** What to do first, what is seen and heard, the one check that is next, and what would explain it. */
  let {
    view,
    disabled = false,
    onanswer,
    remedy,
  }: {
    view: Schemas['TroubleView']
    disabled?: boolean
    onanswer: (item: string, answer: Answer) => void
    remedy?: Snippet<[Schemas['Suspect']]>
  } = $props()
  let figure = $state<number | null>(null)
  let all = $state(false)
  const check = $derived(view.check)
  const said = $derived(view.symptoms.filter((each) => each.said))
  const noted = $derived(
    view.evidence.filter((each) => !said.some((symptom) => symptom.item === each.item)),
  )
  const listed = $derived(all || !said.length ? view.symptoms : said)
  const percent = (share: number) => `${Math.round(share * 100)} %`

  function take(event: SubmitEvent) {
    event.preventDefault()
    if (check && figure !== null) onanswer(check.item, figure)
    figure = null
  }
</script>

{#if view.stop}
  <p role="alert" class="rounded-box border-4 border-error bg-base-100 px-4 py-3 text-lg font-bold">
    ■ {view.stop}
  </p>
{/if}
<section aria-labelledby="symptoms" class="grid gap-2">
  <h2 id="symptoms" class="font-bold">What it does</h2>
  <div class="grid gap-2 sm:grid-cols-2">
    {#each listed as each (each.item)}
      <button
        type="button"
        class="flex min-h-14 cursor-pointer items-center gap-3 rounded-box border-2 bg-base-100 px-3 py-2 text-left {each.said
          ? 'border-accent font-bold'
          : 'border-base-300'}"
        aria-pressed={each.said === true}
        {disabled}
        onclick={() => onanswer(each.item, each.said ? 'cannot' : true)}
        ><Sketch of={each.sketch} /><span class="flex-1">{each.title}</span>
        {#if each.said}<span aria-hidden="true" class="text-xl">✓</span>{/if}</button
      >
    {/each}
  </div>
  {#if said.length}
    <button
      type="button"
      class="btn min-h-12 btn-ghost justify-start"
      aria-expanded={all}
      onclick={() => (all = !all)}>{all ? 'Only what was said' : 'More'}</button
    >
  {/if}
</section>
{#if noted.length}
  <p class="text-sm" data-testid="evidence">
    {noted.map((each) => each.says).join(' · ')}
  </p>
{/if}
{#if view.odd}
  <p class="rounded-box border-2 border-warning px-4 py-2 font-bold">▲ {view.odd}</p>
{/if}
{#if check}
  <section
    aria-labelledby="check"
    class="grid gap-3 rounded-box bg-[var(--zd-sand)] px-4 py-3"
    data-testid="next-check"
  >
    <p class="text-sm">
      Next check · about {check.minutes} min{check.tools ? ` · ${check.tools}` : ''}
    </p>
    {#if check.first}<p class="font-bold">{check.first}</p>{/if}
    {#if check.caution}<p class="font-bold text-error">{check.caution}</p>{/if}
    <h2 id="check" class="text-lg font-bold">{check.asks}</h2>
    {#if check.how}<p class="text-sm">{check.how}</p>{/if}
    {#if check.dimension}
      <form class="flex flex-wrap items-center gap-2" onsubmit={take}>
        <label class="input input-lg min-w-40 flex-1">
          <span class="sr-only">{check.asks}</span>
          <QuantityInput
            class="figure"
            value={figure}
            dimension={check.dimension as Dimension}
            live
            {disabled}
            onset={(typed) => (figure = typeof typed.value === 'number' ? typed.value : null)}
          />
        </label>
        <button class="btn min-h-14 flex-1 btn-primary" disabled={disabled || figure === null}
          >Save it</button
        >
      </form>
    {:else}
      <div class="grid grid-cols-2 gap-2">
        <button
          type="button"
          class="btn min-h-16 text-lg"
          {disabled}
          onclick={() => onanswer(check.item, true)}>{check.yes}</button
        >
        <button
          type="button"
          class="btn min-h-16 text-lg"
          {disabled}
          onclick={() => onanswer(check.item, false)}>{check.no}</button
        >
      </div>
    {/if}
    <button
      type="button"
      class="btn min-h-12 btn-ghost"
      {disabled}
      onclick={() => onanswer(check.item, 'cannot')}>Cannot be done here</button
    >
  </section>
{:else if view.clear}
  <p class="rounded-box bg-[var(--zd-sand)] px-4 py-3 font-bold" data-testid="clear">
    No further check is worth its minutes. {view.suspects[0]?.remedy_says}
  </p>
{/if}
{#if view.suspects.length}
  <section aria-labelledby="suspects" class="grid gap-3">
    <h2 id="suspects" class="font-bold">What would explain it</h2>
    <ol class="grid gap-3" data-testid="suspects">
      {#each view.suspects as each (each.id)}
        <li class="grid gap-1 border-t border-base-300 pt-2">
          <span class="flex items-baseline gap-3">
            <span class="flex-1 font-bold">{each.title}</span>
            <span class="text-sm">{each.word}</span>
            <span class="figure text-xl font-bold">{percent(each.probability)}</span>
          </span>
          <span class="h-2 overflow-hidden rounded-full bg-base-300" aria-hidden="true"
            ><span class="block h-full bg-secondary" style:width={`${each.probability * 100}%`}
            ></span></span
          >
          {#if each.size}<span class="text-sm">{each.size}</span>{/if}
          {#if each.speaks_for.length}<span class="text-sm"
              ><b>For:</b> {each.speaks_for.join('; ')}</span
            >{/if}
          {#if each.against.length}<span class="text-sm"
              ><b>Against:</b> {each.against.join('; ')}</span
            >{/if}
          <span class="text-sm"
            ><b>To do:</b>
            {each.remedy_says}{each.minutes ? ` About ${each.minutes} min.` : ''}</span
          >
          {#if each.if_left}<span class="text-sm text-neutral">If left: {each.if_left}</span>{/if}
          {@render remedy?.(each)}
        </li>
      {/each}
    </ol>
    <p class="text-sm text-neutral">Something else: {percent(view.rest)}</p>
  </section>
{/if}
