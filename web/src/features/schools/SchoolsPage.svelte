<script lang="ts">
  import { api, outcome, type Problem } from '../../lib/api/client'
  import FieldRow from '../../lib/controls/FieldRow.svelte'
  import TopBar from '../../lib/controls/TopBar.svelte'
  import { fieldOf } from '../../lib/fields'
  import { OPTION_WORDS, PRACTICE_SUMS } from '../../lib/plates'
  import { preferences } from '../../lib/preferences.svelte'
  import { session } from '../../lib/session.svelte'
  import { unitFor } from '../../lib/units'
  import { HabitsState } from './habits.svelte'

  /** What a workspace holds to where practitioners differ, and the tank sizes it buys. */
  let workspaces = $state.raw<HabitsState[] | undefined>()
  let problem = $state.raw<Problem | undefined>()
  const SCHOOLS = ['pre_charge_school', 'run_time_school', 'differential_school', 'check_school', 'cut_off_school']

  const WORDS = {
    ...OPTION_WORDS,
    two_below: '2 psi (0.14 bar) below cut-in, the usual',
    two_to_three_below: '2 to 3 psi (0.14 to 0.2 bar) below',
    five_below: '5 psi (0.35 bar) below cut-in',
    computed: 'computed from draw, start lag, tank',
    keep: 'keep the usual 20 psi (1.4 bar)',
    widen: 'widen it, to 30 psi (2 bar)',
  }

  async function load() {
    const got = await outcome(api.GET('/api/habits'))
    if (got.problem?.status === 401) session.ended()
    problem = got.problem
    if (got.data) workspaces = got.data.map((habits) => new HabitsState(habits))
  }
  $effect(() => {
    if (session.current.signed_in) void load()
  })
</script>

{#snippet field(state: HabitsState, name: string)}
  {@const of = fieldOf('Practice', name)}
  {@const path = `practice.${name}`}
  <FieldRow
    field={of}
    {path}
    text={state.shown(path, of.dimension)}
    value={state.value(path)}
    faults={state.faultsAt(path)}
    options={WORDS}
    ontype={(text) => state.type(path, text, of.dimension)}
    onput={(value) => state.put(path, value)}
  />
{/snippet}

<svelte:head><title>Schools · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}<a class="underline-offset-4 hover:underline" href="/">Rounds</a> › Schools{/snippet}
</TopBar>
<main class="mx-auto max-w-3xl px-4 py-5">
  <h1 class="text-3xl font-bold">Schools</h1>
  <p class="mb-4 text-neutral">
    Where practitioners differ, this is what we hold to. Systems follow it unless they have a practice of their own.
  </p>
  {#if problem}<p role="alert" class="alert alert-error">{problem.title}. {problem.detail}</p>{/if}
  {#each workspaces ?? [] as state (state.habits.workspace)}
    <form
      class="grid gap-4"
      onsubmit={(event) => {
        event.preventDefault()
        void state.save()
      }}
    >
      <h2 class="font-bold">{state.habits.name}</h2>
      <fieldset class="grid gap-4 sm:grid-cols-2" disabled={!state.habits.may_change}>
        <legend class="sr-only">Practice of {state.habits.name}</legend>
        {#each [...SCHOOLS, ...PRACTICE_SUMS] as name (name)}{@render field(state, name)}{/each}
        <div class="sm:col-span-2">{@render field(state, 'reason')}</div>
        <div class="grid gap-1 sm:col-span-2">
          <label for="sizes">Tank sizes that can be bought</label>
          <span class="input input-lg w-full">
            <input
              id="sizes"
              class="figure"
              bind:value={state.sizes}
              placeholder="the usual ones"
              oninput={() => (state.kept = false)}
              aria-describedby="sizes-faults"
            />
            <span class="text-sm text-neutral">{unitFor('volume', preferences.units).symbol}</span>
          </span>
          <p id="sizes-faults" class="text-sm text-error">
            {state.faults
              .filter((fault) => fault.path.startsWith('sizes_m3'))
              .map((fault) => fault.message)
              .join(' ')}
          </p>
          <p class="text-sm text-neutral">With spaces between. Left empty, the usual round sizes are offered.</p>
        </div>
      </fieldset>
      {#if state.problem}
        <p role="alert" class="text-error">
          {state.problem.title}. {state.problem.detail}
          {#if state.problem.current}
            <button type="button" class="btn min-h-12" onclick={() => state.takeTheirs()}>Look at theirs</button>
          {/if}
        </p>
      {/if}
      <div class="sticky bottom-0 flex items-center justify-end gap-3 border-t border-base-300 bg-base-200 py-3">
        {#if state.kept}<p role="status" class="text-sm">Kept; the systems that follow it are judged by it.</p>{/if}
        <button class="btn btn-lg btn-primary" disabled={!state.habits.may_change}>
          {state.habits.may_change ? 'Keep this practice' : 'You may look only'}
        </button>
      </div>
    </form>
  {/each}
</main>
