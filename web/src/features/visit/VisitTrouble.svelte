<script lang="ts">
  import Trouble from '../trouble/Trouble.svelte'
  import { saw, type Seen } from '../../domain/trouble'
  import type { Slot, VisitState } from '../../domain/visit.svelte'

  /** The diagnosis within a visit: what is answered is kept with it, a job is added from here. */
  let { state: at }: { state: VisitState } = $props()
  const view = $derived(at.view!.trouble)
  const jobs = $derived(at.view!.jobs)

  const answer = (seen: Seen[]) => seen.forEach((each) => void at.add('saw', saw(each)))
</script>

{#if view}
  <section
    aria-labelledby="trouble"
    class="grid gap-4 rounded-box border border-base-300 px-4 py-3"
    data-testid="trouble"
  >
    <h2 id="trouble" class="text-lg font-bold">Trouble</h2>
    <Trouble
      {view}
      disabled={!at.open}
      fault={at.faultsAt('saw')[0]?.message ?? ''}
      onanswer={answer}
    >
      {#snippet remedy(suspect)}
        {@const job = jobs.find((each) => each.id === suspect.remedy)}
        {#if job && !job.added && at.open}
          <button
            type="button"
            class="btn min-h-12 justify-self-start"
            onclick={() => at.check(job.slot as Slot, true)}>Add the job: {job.title}</button
          >
        {/if}
      {/snippet}
    </Trouble>
  </section>
{/if}
