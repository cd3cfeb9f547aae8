<script lang="ts">
  import { api, outcome, parted, type Fault, type Problem, type Schemas } from '../../api/client'
  import Faults from '../../ui/Faults.svelte'

  /** Switches the second factor on: password, app, first code, recovery codes; or off. */
  let { on, left = 0, ondone }: { on: boolean; left?: number; ondone: () => void } = $props()
  let password = $state('')
  let code = $state('')
  let offer = $state.raw<Schemas['SecondFactorOffer'] | undefined>()
  let codes = $state.raw<string[]>([])
  let faults = $state.raw<Fault[]>([])
  let problem = $state<Problem | undefined>()
  const FEW = 3

  async function begin(event: SubmitEvent) {
    event.preventDefault()
    const got = await outcome(api.POST('/api/account/second-factor', { body: { password } }))
    problem = got.problem
    offer = got.data
    password = ''
  }
  async function confirm(event: SubmitEvent) {
    event.preventDefault()
    const got = await outcome(api.PUT('/api/account/second-factor', { body: { code } }))
    ;[faults, problem] = parted(got.problem)
    code = ''
    if (!got.data) return
    codes = got.data.codes
    offer = undefined
  }
  async function end(event: SubmitEvent) {
    event.preventDefault()
    const got = await outcome(api.POST('/api/account/second-factor/end', { body: { password } }))
    problem = got.problem
    password = ''
    if (!problem) ondone()
  }
</script>

{#snippet shown(title: string, press: string, act: (event: SubmitEvent) => Promise<void>)}
  <form class="flex flex-wrap items-end gap-3" onsubmit={act}>
    <label class="grid min-w-48 flex-1 gap-1 text-sm">
      {title}
      <input
        class="input input-lg w-full"
        type="password"
        autocomplete="current-password"
        required
        maxlength="200"
        bind:value={password}
      />
    </label>
    <button class="btn min-h-12" disabled={!password}>{press}</button>
  </form>
{/snippet}

{#if problem}<p role="alert" class="text-error">{problem.detail || problem.title}</p>{/if}
{#if codes.length}
  <div class="grid gap-3" role="status">
    <p>
      It is on. Keep these recovery codes away from the phone: each lets you in once when the phone
      is lost. They are shown this once.
    </p>
    <ol class="figure grid gap-1 rounded-box bg-[var(--zd-sand)] p-3 sm:grid-cols-2">
      {#each codes as each (each)}<li>{each}</li>{/each}
    </ol>
    <button
      type="button"
      class="btn min-h-12 btn-primary"
      onclick={() => {
        codes = []
        ondone()
      }}>Done, I wrote them down</button
    >
  </div>
{:else if on}
  <p>
    On: signing in asks for a code. <span class="figure">{left}</span> recovery
    {left === 1 ? 'code is' : 'codes are'} left{left < FEW
      ? '; switch it off and on again for new ones'
      : ''}.
  </p>
  {@render shown('Your password', 'Switch it off', end)}
{:else if offer}
  <form class="grid gap-3" onsubmit={confirm}>
    <p>
      Scan this with your authenticator app, or type its key there. Then give the code it shows.
    </p>
    <img
      class="w-56 rounded-box"
      src={offer.picture}
      alt="Address for an authenticator app; its key is below"
    />
    <p class="figure">{offer.secret.match(/.{1,4}/g)?.join(' ')}</p>
    <label class="grid gap-1 text-sm">
      Code
      <input
        class="figure input input-lg w-full"
        inputmode="numeric"
        autocomplete="one-time-code"
        required
        maxlength="40"
        bind:value={code}
      />
      <Faults {faults} path="code" />
    </label>
    <button class="btn min-h-12 btn-primary">Switch it on</button>
  </form>
{:else}
  {@render shown('Your password', 'Begin', begin)}
{/if}
