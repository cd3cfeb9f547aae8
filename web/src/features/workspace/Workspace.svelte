<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import TopBar from '../../ui/TopBar.svelte'
  import { session } from '../../api/session.svelte'
  import Account from './Account.svelte'
  import Calendar from './Calendar.svelte'
  import Experience from './Experience.svelte'
  import Files from './Files.svelte'
  import Gauges from './Gauges.svelte'
  import Members from './Members.svelte'
  import Sites from './Sites.svelte'
  import ThisDevice from './ThisDevice.svelte'
  import { connection } from '../../api/connection.svelte'

  /** What belongs to the crew: sites, gauges, members, files out and in, the calendar of what is due. */
  let workspaces = $state.raw<Schemas['WorkspaceMembers'][] | undefined>()
  let rounds = $state.raw<Schemas['RoundsOut'] | undefined>()
  let problem = $state<Problem | undefined>()

  async function load() {
    ;({ data: workspaces, problem } = await outcome(api.GET('/api/workspaces')))
    if (problem?.status === 401) session.ended()
    ;({ data: rounds } = await outcome(api.GET('/api/rounds')))
  }
  $effect(() => {
    if (session.current.signed_in) void load()
  })
  const mayWrite = (id: string) =>
    rounds?.workspaces.some((each) => each.id === id && each.may_add) ?? false
</script>

<svelte:head><title>Workspace · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}<a class="underline-offset-4 hover:underline" href="/">Rounds</a> › Workspace{/snippet}
</TopBar>
<main class="mx-auto grid max-w-3xl gap-8 px-4 py-5">
  <h1 class="text-3xl font-bold">Workspace</h1>
  {#if connection.away}
    <p class="alert">
      Without a connection, members, gauges, practice, files in and out and the calendar cannot be
      seen or changed. Rounds, visits and Decide go on.
    </p>
  {:else if problem}<p role="alert" class="alert alert-error">
      {problem.title}. {problem.detail}
    </p>{/if}
  {#each workspaces ?? [] as workspace (workspace.id)}
    <div class="grid gap-8">
      {#if workspaces!.length > 1}<h2 class="text-2xl font-bold">{workspace.name}</h2>{/if}
      <Sites
        sites={rounds?.sites.filter((site) => site.workspace === workspace.id) ?? []}
        mayWrite={mayWrite(workspace.id)}
        onchanged={load}
      />
      <Gauges workspace={workspace.id} mayWrite={mayWrite(workspace.id)} />
      <Experience workspace={workspace.id} />
      <Members {workspace} onchanged={load} />
      <Files {workspace} mayWrite={mayWrite(workspace.id)} />
    </div>
  {/each}
  <ThisDevice />
  {#if !connection.away}<Calendar />{/if}
  {#if session.current.signed_in && !connection.away}<Account />{/if}
</main>
