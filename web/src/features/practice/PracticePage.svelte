<script lang="ts">
  import { api, outcome, type Problem } from '../../api/client'
  import FieldRow from '../../ui/FieldRow.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import { fieldOf } from '../../domain/fields'
  import { optionWords, PRACTICE_FIELDS } from '../../domain/plates'
  import { preferences } from '../../domain/preferences.svelte'
  import { session } from '../../api/session.svelte'
  import { unitFor } from '../../domain/units'
  import { PracticeState } from './practice.svelte'

  /** What a workspace holds to where practitioners differ, and the tank sizes it buys. */
  let workspaces = $state.raw<PracticeState[] | undefined>()
  let problem = $state.raw<Problem | undefined>()

  async function load() {
    const got = await outcome(api.GET('/api/practices'))
    if (got.problem?.status === 401) session.ended()
    problem = got.problem
    if (got.data) workspaces = got.data.map((practice) => new PracticeState(practice))
  }
  $effect(() => {
    if (session.current.signed_in) void load()
  })
</script>

{#snippet field(state: PracticeState, name: string)}
  {@const of = fieldOf('Practice', name)}
  {@const path = `practice.${name}`}
  <FieldRow
    field={of}
    {path}
    value={state.value(path)}
    entered={state.entered(path)}
    faults={state.faultsAt(path)}
    options={optionWords(name, preferences.units)}
    ontype={(text) => state.type(path, text, of.dimension)}
    onput={(value) => state.put(path, value)}
  />
{/snippet}

<svelte:head><title>Practice · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}<a class="underline-offset-4 hover:underline" href="/">Rounds</a> › Practice{/snippet}
</TopBar>
<main class="mx-auto max-w-3xl px-4 py-5">
  <h1 class="text-3xl font-bold">Practice</h1>
  <p class="mb-4 text-neutral">
    Where practitioners differ, this is what we hold to. Systems follow it unless they have a
    practice of their own.
  </p>
  {#if problem}<p role="alert" class="alert alert-error">{problem.title}. {problem.detail}</p>{/if}
  {#each workspaces ?? [] as state (state.practice.workspace)}
    <form
      class="grid gap-4"
      onsubmit={(event) => {
        event.preventDefault()
        void state.save()
      }}
    >
      <h2 class="font-bold">{state.practice.name}</h2>
      <fieldset class="grid gap-4 sm:grid-cols-2" disabled={!state.practice.may_change}>
        <legend class="sr-only">Practice of {state.practice.name}</legend>
        {#each PRACTICE_FIELDS as name (name)}{@render field(state, name)}{/each}
        <div class="sm:col-span-2">{@render field(state, 'reason')}</div>
        <div class="grid gap-1 sm:col-span-2">
          <label for="sizes">Tank sizes that can be bought</label>
          <span class="input input-lg w-full">
            <input
              id="sizes"
              class="figure"
              value={state.sizesIn(preferences.units)}
              placeholder="the usual ones"
              oninput={(event) => state.typeSizes(event.currentTarget.value)}
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
          <p class="text-sm text-neutral">
            With spaces between. Left empty, the usual round sizes are offered.
          </p>
        </div>
      </fieldset>
      {#if state.problem}
        <p role="alert" class="text-error">
          {state.problem.title}. {state.problem.detail}
          {#if state.problem.current}
            <button type="button" class="btn min-h-12" onclick={() => state.takeTheirs()}
              >Look at theirs</button
            >
          {/if}
        </p>
      {/if}
      <div
        class="sticky bottom-0 flex items-center justify-end gap-3 border-t border-base-300 bg-base-200 py-3"
      >
        {#if state.kept}<p role="status" class="text-sm">
            Saved; the systems that follow it are judged by it.
          </p>{/if}
        <button class="btn btn-lg btn-primary" disabled={!state.practice.may_change}>
          {state.practice.may_change ? 'Save this practice' : 'You may look only'}
        </button>
      </div>
    </form>
  {/each}
</main>
