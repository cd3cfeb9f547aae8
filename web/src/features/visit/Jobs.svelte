<script lang="ts">
  import Check from '../../ui/Check.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** The jobs of this visit, step by step; others can be added, those that something found asks for first. */
  let { state: at }: { state: VisitState } = $props()
  const jobs = $derived(at.view!.jobs)
  const added = $derived(jobs.filter((job) => at.value(job.slot) === true || job.added))
  const others = $derived(jobs.filter((job) => !added.includes(job)))
  const suggested = $derived(others.filter((job) => job.suggested))
  const done = (slot: string, stored: boolean) => (at.value(slot as never) ?? stored) === true
</script>

{#snippet add(job: (typeof jobs)[number])}
  <button
    type="button"
    class="btn h-auto min-h-14 w-full justify-between py-2 text-left"
    disabled={!at.open}
    onclick={() => at.check(job.slot as never, true)}
  >
    <span
      >{job.title}
      {#if job.suggested}<span class="block text-sm font-normal">{job.suggested}</span>{/if}</span
    >
    <span class="text-sm font-normal whitespace-nowrap">about {job.minutes} min</span>
  </button>
{/snippet}

{#snippet confirmed(steps: (typeof jobs)[number]['steps'])}
  {#each steps as step (step.slot)}
    <Check
      does={step.does}
      caution={step.caution}
      done={done(step.slot, step.done)}
      shut={step.shut}
      disabled={!at.open}
      onconfirm={(now) => at.check(step.slot as never, now)}
    />
  {/each}
{/snippet}

{#each added as job (job.id)}
  <details
    class="rounded-box border-2 border-base-content px-3"
    open={!job.done}
    data-testid="job-{job.id}"
  >
    <summary class="flex min-h-14 cursor-pointer items-center justify-between gap-2">
      <h2 class="font-bold">{job.title}</h2>
      <span class="text-sm">{job.done ? '● done' : `about ${job.minutes} min`}</span>
    </summary>
    <div class="grid gap-2 pb-3">
      <p class="text-sm"><span class="font-bold">Have ready:</span> {job.have.join('; ')}.</p>
      {@render confirmed(job.steps)}
      <p class="font-bold">Check after</p>
      {@render confirmed(job.checks)}
      {#if job.records.length}<p class="text-sm">On record: {job.records.join(', ')}.</p>{/if}
      {#if !job.done && at.open}
        <button
          type="button"
          class="btn min-h-12 btn-ghost"
          onclick={() => at.check(job.slot as never, false)}>Not on this visit</button
        >
      {/if}
    </div>
  </details>
{/each}
{#if at.open}
  {#each suggested as job (job.id)}{@render add(job)}{/each}
  <details class="rounded-box border border-base-300 px-3">
    <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
      >Add a job</summary
    >
    <div class="grid gap-2 pb-3">
      {#each others.filter((job) => !job.suggested) as job (job.id)}{@render add(job)}{/each}
    </div>
  </details>
{/if}
