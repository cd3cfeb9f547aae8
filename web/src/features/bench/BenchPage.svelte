<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import { navigate } from '../../router'
  import TopBar from '../../ui/TopBar.svelte'
  import Due from './Due.svelte'
  import References from './References.svelte'
  import SwitchForm from './SwitchForm.svelte'

  /** The set-point bench: switches by when they are due, and the references that they are held against. */
  let switches = $state.raw<Schemas['DeviceOut'][] | undefined>()
  let rounds = $state.raw<Schemas['RoundsOut'] | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let site = $state('')

  async function load() {
    const [devices, sites] = await Promise.all([
      outcome(api.GET('/api/devices')),
      outcome(api.GET('/api/rounds')),
    ])
    problem = devices.problem ?? sites.problem
    switches = devices.data
    rounds = sites.data
  }
  $effect(() => void load())
  const writable = $derived(
    rounds?.sites.filter((each) =>
      rounds?.workspaces.some((workspace) => workspace.may_add && workspace.id === each.workspace),
    ) ?? [],
  )
</script>

<svelte:head><title>Set-point bench · Zero Dip</title></svelte:head>
<TopBar />
<main class="mx-auto grid max-w-5xl gap-6 px-4 py-5">
  <div>
    <h1 class="text-3xl font-bold">Set-point bench</h1>
    <p class="text-neutral">Process switches, proved against a reference gauge.</p>
  </div>
  {#if problem}<p role="alert" class="alert alert-error">{problem.title}. {problem.detail}</p>{/if}
  <section class="grid gap-2" aria-label="Switches">
    {#if switches?.length}
      <ul class="grid gap-2">
        {#each switches as each (each.id)}<Due device={each} />{/each}
      </ul>
    {:else if switches}
      <p>No set-point switch yet.</p>
    {/if}
    {#if site}
      <SwitchForm
        {site}
        onkept={(made) => navigate('/switches/:id', { params: { id: made.id } })}
        onclose={() => (site = '')}
      />
    {:else if writable.length}
      <label class="flex flex-wrap items-center gap-2 text-sm">
        Add a switch at
        <select
          class="select select-lg"
          value=""
          onchange={(event) => (site = event.currentTarget.value)}
        >
          <option value="">which site?</option>
          {#each writable as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
        </select>
      </label>
    {/if}
  </section>
  {#each rounds?.workspaces ?? [] as workspace (workspace.id)}
    <References workspace={workspace.id} mayWrite={workspace.may_add} />
  {/each}
</main>
