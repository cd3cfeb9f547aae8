<script lang="ts">
  import type { VisitState } from '../../domain/visit.svelte'

  /** What the trouble was in the end: the customer's report says so. */
  let { state: at }: { state: VisitState } = $props()
  const outcomes = $derived(at.view!.outcomes)
  const was = $derived(at.value('was'))
  const likely = $derived(outcomes.filter((each) => each.likely))
  const others = $derived(outcomes.filter((each) => !each.likely))
  const said = $derived(others.some((each) => each.id === was) || was === 'other' ? was : '')
</script>

{#if !at.open && was}
  <p>
    In the end it was <span class="font-bold"
      >{outcomes.find((each) => each.id === was)?.title ?? 'something else'}</span
    >.
  </p>
{:else if at.open && outcomes.length}
  <section aria-labelledby="was" class="grid gap-2">
    <h2 id="was" class="font-bold">What was it in the end?</h2>
    {#each likely as each (each.id)}
      <button
        type="button"
        class="btn min-h-12 justify-start text-left {was === each.id ? 'btn-primary' : ''}"
        aria-pressed={was === each.id}
        onclick={() => at.put('was', was === each.id ? '' : each.id)}>{each.title}</button
      >
    {/each}
    <select
      class="select select-lg w-full {said ? 'border-2 border-accent' : ''}"
      aria-label="It was something else"
      value={said}
      onchange={(event) => at.put('was', event.currentTarget.value)}
    >
      <option value="">Something else…</option>
      {#each others as each (each.id)}<option value={each.id}>{each.title}</option>{/each}
      <option value="other">None of these</option>
    </select>
  </section>
{/if}
