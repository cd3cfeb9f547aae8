<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { Schemas } from '../../api/client'
  import type { Seen } from '../../domain/trouble'
  import { percent } from '../../domain/units'
  import NextCheck from './NextCheck.svelte'
  import OtherSeen from './OtherSeen.svelte'
  import Sketch from './Sketch.svelte'

  /** What to do first, what is seen and heard, the one check that is next, and what would explain it. */
  let {
    view,
    disabled = false,
    fault = '',
    onanswer,
    remedy,
  }: {
    view: Schemas['TroubleView']
    disabled?: boolean
    fault?: string
    onanswer: (seen: Seen[]) => void
    remedy?: Snippet<[Schemas['Suspect']]>
  } = $props()
  let all = $state(false)
  const check = $derived(view.check)
  const said = $derived(view.symptoms.filter((each) => each.said))
  const noted = $derived(
    view.evidence.filter((each) => !said.some((symptom) => symptom.item === each.item)),
  )
  // With something measured the question is what explains it; what it does can be said as well.
  const asked = $derived(all || (!said.length && !noted.length))
  const listed = $derived(asked ? view.symptoms : said)
  const toggle = (item: string, said: boolean) =>
    onanswer([{ item, answer: said ? 'cannot' : true, again: false }])
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
        onclick={() => toggle(each.item, each.said === true)}
        ><Sketch of={each.sketch} /><span class="flex-1">{each.title}</span>
        {#if each.said}<span aria-hidden="true" class="text-xl">✓</span>{/if}</button
      >
    {/each}
  </div>
  {#if said.length || noted.length}
    <button
      type="button"
      class="btn min-h-12 justify-self-start"
      aria-expanded={all}
      onclick={() => (all = !all)}
      >{all ? 'Only what was said' : said.length ? 'More that it does' : 'Say what it does'}</button
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
{#if view.decides}
  <p class="rounded-box border-2 border-warning px-4 py-2" data-testid="decides">
    ▲ {view.decides}
  </p>
{/if}
{#if view.together}
  <p class="rounded-box border-2 border-accent px-4 py-2 font-bold" data-testid="together">
    {view.together}
  </p>
{/if}
{#if check && view.evidence.length}
  {#key `${check.again} ${check.items.map((each) => each.item).join()}`}
    <NextCheck {check} {disabled} {fault} {onanswer} />
  {/key}
{:else if view.ends}
  <p
    class="rounded-box bg-[var(--zd-sand)] px-4 py-3 font-bold"
    data-testid={view.clear ? 'clear' : 'unclear'}
  >
    {view.ends}
  </p>
{/if}
<OtherSeen others={view.others} {disabled} {fault} {onanswer} />
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
          {#if each.same_work.length}<span class="text-sm"
              ><b>Same work:</b>
              {each.same_work
                .map((other) => `${other.title} (${percent(other.probability)})`)
                .join('; ')}</span
            >{/if}
          {#if each.if_left}<span class="text-sm text-neutral">If left: {each.if_left}</span>{/if}
          {@render remedy?.(each)}
        </li>
      {/each}
    </ol>
    <p class="text-sm text-neutral">All others together: {percent(view.rest)}</p>
  </section>
{/if}
