<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import { startVisit } from '../../domain/visits'

  /** What the recording offers the visit: shown with its spread, taken with one press, marked as from the recording. */
  let { recording }: { recording: Schemas['RecordingOut'] } = $props()
  let taken = $state.raw<{ visit: string; taken: string[]; left: string[] } | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let busy = $state(false)
  const offered = $derived(recording.offers.filter((each) => each.slot !== 'note'))

  async function take() {
    busy = true
    const started = await startVisit(recording.system)
    problem = started.problem
    if (started.visit) {
      const path = { recording_id: recording.id, visit_id: started.visit }
      const answer = await outcome(
        api.PUT('/api/recordings/{recording_id}/readings/{visit_id}', {
          params: { path, query: { units: preferences.units } },
        }),
      )
      problem = answer.problem
      if (answer.data) taken = { visit: started.visit, ...answer.data }
    }
    busy = false
  }
</script>

{#if taken}
  <div class="rounded-box border border-base-300 px-3 py-2" role="status">
    <p><b>● Taken into the visit.</b> {taken.taken.join(', ')}.</p>
    {#if taken.left.length}
      <p>
        Left, since something else stands there or the system has no place for it: {taken.left.join(
          ', ',
        )}.
      </p>
    {/if}
    <a class="btn mt-2 min-h-12 w-full" href="/visits/{taken.visit}">To the visit</a>
  </div>
{:else if offered.length}
  <section aria-labelledby="offers">
    <h2 id="offers" class="font-bold">For the visit</h2>
    <ul class="mb-2 text-sm">
      {#each offered as each (each.slot + each.title)}<li>{each.title} {each.text}</li>{/each}
    </ul>
    <button type="button" class="btn w-full btn-lg btn-primary" disabled={busy} onclick={take}
      >Take these as readings</button
    >
  </section>
{/if}
{#if problem}<p class="text-error">{problem.title}. {problem.detail}</p>{/if}
