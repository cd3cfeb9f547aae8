<script lang="ts">
  import { api, outcome, type Problem, type Schemas } from '../../api/client'
  import SecondFactor from '../signin/SecondFactor.svelte'
  import Password from './Password.svelte'

  /** One's own account: password, second factor, where one is signed in. */
  let account = $state.raw<Schemas['AccountOut'] | undefined>()
  let problem = $state<Problem | undefined>()
  async function load() {
    const got = await outcome(api.GET('/api/account'))
    problem = got.problem
    account = got.data ?? account
  }
  $effect(() => void load())

  async function end(id?: string) {
    const got = id
      ? await outcome(
          api.DELETE('/api/account/sessions/{session_id}', {
            params: { path: { session_id: id } },
          }),
        )
      : await outcome(api.DELETE('/api/account/sessions'))
    problem = got.problem
    if (!problem) await load()
  }
  const when = (at: string | null) =>
    at ? new Date(at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' }) : 'not known'
</script>

<Password onchanged={load} />
{#if problem}<p role="alert" class="text-error">{problem.title}. {problem.detail}</p>{/if}
{#if account}
  <section aria-labelledby="factor" class="grid gap-2">
    <h2 id="factor" class="text-xl font-bold">Second factor</h2>
    {#if !account.second_factor}<p>
        A code of an authenticator app beside the password: whoever learns the password alone does
        not get in.
      </p>{/if}
    <SecondFactor on={account.second_factor} left={account.recovery_left} ondone={load} />
  </section>
  <section aria-labelledby="sessions" class="grid gap-2">
    <h2 id="sessions" class="text-xl font-bold">Where you are signed in</h2>
    <ul class="grid gap-2" data-testid="sessions">
      {#each account.sessions as each (each.id)}
        <li
          class="flex flex-wrap items-center gap-2 rounded-box border border-base-300 bg-base-100 px-3 py-2"
        >
          <span class="min-w-40 flex-1">
            <span class="font-bold">{each.on}</span>{each.here ? ' (here)' : ''}
            <span class="block text-sm text-neutral"
              >since {when(each.began)}; last seen {when(each.seen)}, to the hour</span
            >
          </span>
          {#if !each.here}<button type="button" class="btn min-h-12" onclick={() => end(each.id)}
              >Sign out there</button
            >{/if}
        </li>
      {/each}
    </ul>
    {#if account.sessions.length > 1}<button
        type="button"
        class="btn min-h-12 sm:w-fit"
        onclick={() => end()}>Sign out everywhere else</button
      >{/if}
  </section>
{/if}
