<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import { day } from '../../domain/dates'
  import { percent } from '../../domain/units'

  /** What this crew's troubles were in the end, how often that was expected, and how it shifts what is expected next. */
  let { workspace }: { workspace: string } = $props()
  let met = $state.raw<Schemas['ExperienceOut'] | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let asking = $state(false)
  const path = $derived({ workspace_id: workspace })

  async function load() {
    const got = await outcome(
      api.GET('/api/workspaces/{workspace_id}/experience', { params: { path } }),
    )
    if (got.data) met = got.data
    problem = got.problem
  }
  $effect(() => void load())
  async function setBack() {
    const got = await outcome(
      api.DELETE('/api/workspaces/{workspace_id}/experience', { params: { path } }),
    )
    if (got.data) met = got.data
    problem = got.problem
    asking = false
  }
</script>

<section aria-labelledby="experience-{workspace}" class="grid gap-3" data-testid="experience">
  <h2 id="experience-{workspace}" class="text-xl font-bold">What it was in the end</h2>
  {#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
  {#if met && !met.kinds.length}
    <p class="text-neutral">
      Nothing yet. At the end of a visit, Hand over asks what the trouble was.
    </p>
  {/if}
  {#each met?.kinds ?? [] as each (each.kind)}
    <div class="grid gap-2 rounded-box border border-base-300 bg-base-100 px-4 py-3">
      <h3 class="font-bold">{each.title}</h3>
      <p class="text-sm">
        {each.confirmed} confirmed.
        {#if each.judged}
          It stood first in {each.first} of {each.judged}, among the first three in {each.among_three}.
        {/if}
      </p>
      {#if each.causes.length}
        <table class="table table-sm">
          <thead>
            <tr><th>Cause</th><th>Times</th><th>Usually</th><th>Now</th></tr>
          </thead>
          <tbody>
            {#each each.causes as cause (cause.id)}
              <tr>
                <th scope="row" class="font-normal">{cause.title}</th>
                <td class="figure">{cause.times}</td>
                <td class="figure">{cause.usual ? percent(cause.usual) : '–'}</td>
                <td class="figure">{cause.now ? percent(cause.now) : '–'}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </div>
  {/each}
  {#if met?.kinds.some((each) => each.counted)}
    <p class="text-sm text-neutral">
      Usually, now: the cause’s share of all that goes wrong, before and with what was met here.
    </p>
  {/if}
  {#if met?.since}
    <p class="text-sm">Set back on {day(met.since)}: outcomes before that shift nothing.</p>
  {/if}
  {#if met?.may_change && met.kinds.some((each) => each.counted)}
    {#if asking}
      <div class="grid gap-2 rounded-box border-2 border-base-content p-3">
        <p class="font-bold">
          Causes are then expected as usual again. The outcomes stay on record.
        </p>
        <div class="flex gap-2">
          <button type="button" class="btn min-h-12 flex-1" onclick={() => (asking = false)}
            >Not yet</button
          >
          <button type="button" class="btn min-h-12 flex-1 btn-primary" onclick={setBack}
            >Set back</button
          >
        </div>
      </div>
    {:else}
      <button type="button" class="btn min-h-12 justify-self-start" onclick={() => (asking = true)}
        >Set back what was learned</button
      >
    {/if}
  {/if}
</section>
