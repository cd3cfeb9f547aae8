<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import VerdictMark from '../../ui/VerdictMark.svelte'

  /** The report in words, on the screen: to be shown on site, with a connection or without one. */
  let { visit }: { visit: string } = $props()
  let report = $state.raw<Schemas['Report'] | undefined>()
  let problem = $state.raw<Problem | undefined>()

  async function show() {
    const params = { path: { visit_id: visit }, query: { units: preferences.units } }
    const got = await outcome(api.GET('/api/visits/{visit_id}/report', { params }))
    report = got.data
    problem = got.problem
  }
  const rows = $derived(report ? [...report.points, ...report.figures] : [])
</script>

<button type="button" class="btn min-h-12" onclick={show}>Show the report here</button>
{#if problem}<p role="alert" class="text-sm text-error">{problem.title}. {problem.detail}</p>{/if}
{#if report}
  <article
    class="grid gap-3 rounded-box border border-base-300 bg-base-100 p-3"
    data-testid="report"
    aria-label="Report"
  >
    <table class="table table-sm">
      <thead><tr><th></th><th>Before</th><th>After</th></tr></thead>
      <tbody>
        {#each rows as row (row.title)}
          <tr>
            <th scope="row" class="font-normal">{row.title}</th>
            <td class="figure">{row.before || '–'}</td>
            <td class="figure">{row.after || '–'}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#each report.trouble as [what, says] (what)}<p><b>{what}:</b> {says}</p>{/each}
    {#each [...report.turns, ...report.jobs, ...report.remarks] as line, at (at)}<p>
        {line}
      </p>{/each}
    {#each report.remaining as each (each.id)}
      <p class="flex gap-2">
        <VerdictMark verdict={each.verdict} /><span><b>{each.title}.</b> {each.advice}</span>
      </p>
    {/each}
    {#each report.cautions as caution (caution)}<p class="text-sm">{caution}</p>{/each}
    <p>Signed by <b>{report.signed || 'nobody'}</b></p>
  </article>
{/if}
