<script lang="ts">
  import type { Problem } from '../../api/client'
  import { session } from '../../api/session.svelte'

  let { again = false }: { again?: boolean } = $props()
  let username = $state('')
  let password = $state('')
  let code = $state('')
  let busy = $state(false)
  let problem = $state<Problem | undefined>()

  async function enter(way: () => Promise<Problem | undefined>) {
    busy = true
    problem = await way()
    busy = false
  }
  function submit(event: SubmitEvent) {
    event.preventDefault()
    void enter(() => session.signIn(username, password))
  }
  function show(event: SubmitEvent) {
    event.preventDefault()
    void enter(() => session.showCode(code)).then(() => (code = ''))
  }
  const said = $derived(problem ? problem.detail || problem.title : '')
</script>

<svelte:head><title>Sign in · Zero Dip</title></svelte:head>
<main class="mx-auto grid min-h-dvh max-w-md content-center gap-6 p-6">
  <div>
    <svg width="112" height="56" viewBox="0 0 112 56" aria-hidden="true" class="mb-3">
      <path d="M0 8C40 8 50 22 112 16V40C60 44 50 34 0 34Z" fill="var(--zd-water)" />
      <path d="M0 34C50 34 60 44 112 40V48C60 54 40 42 0 42Z" fill="var(--zd-sand)" />
      <path
        d="M0 8C40 8 50 22 112 16M0 34C50 34 60 44 112 40"
        fill="none"
        stroke="var(--color-secondary)"
        stroke-width="3"
      />
      <path
        d="M0 42C40 42 60 54 112 48"
        fill="none"
        stroke="var(--color-accent)"
        stroke-width="3"
        stroke-dasharray="6 5"
      />
    </svg>
    <h1 class="text-4xl font-bold">Zero Dip</h1>
    <p class="mt-2">
      Makes the pressure switch, the tank and the pump match, and proves that they do.
    </p>
  </div>
  {#if session.away}
    <p class="alert">
      No connection. Signing in for the first time, or again after signing out, needs one.
    </p>
  {/if}
  {#if again}<p class="text-sm">Your sign-in has ended. What you typed is still there.</p>{/if}
  {#if session.current.needs === 'code'}
    <form class="grid gap-4" onsubmit={show}>
      <label class="grid gap-1">
        Code of your authenticator app, or a recovery code
        <!-- svelte-ignore a11y_autofocus (the one thing to do here) -->
        <input
          class="figure input input-lg w-full"
          autocomplete="one-time-code"
          autocapitalize="none"
          spellcheck="false"
          autofocus
          bind:value={code}
          required
          maxlength="40"
        />
      </label>
      <p role="alert" class="min-h-6 text-error">{said}</p>
      <button class="btn btn-lg btn-primary" disabled={busy}>Go on</button>
      <button type="button" class="btn btn-outline btn-lg" onclick={() => session.dismiss()}
        >Other name</button
      >
    </form>
  {:else}
    <form class="grid gap-4" onsubmit={submit}>
      <label class="grid gap-1">
        Name
        <input
          class="input input-lg w-full"
          autocomplete="username"
          bind:value={username}
          required
          maxlength="150"
        />
      </label>
      <label class="grid gap-1">
        Password
        <input
          class="input input-lg w-full"
          type="password"
          autocomplete="current-password"
          bind:value={password}
          required
          maxlength="200"
        />
      </label>
      <p role="alert" class="min-h-6 text-error">{said}</p>
      <button class="btn btn-lg btn-primary" disabled={busy}>Sign in</button>
    </form>
    {#if session.current.demo}
      <button
        class="btn btn-outline btn-lg"
        disabled={busy}
        onclick={() => enter(() => session.enterDemo())}
      >
        Open the demo
      </button>
    {/if}
  {/if}
</main>
