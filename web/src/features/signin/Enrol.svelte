<script lang="ts">
  import { session } from '../../api/session.svelte'
  import SecondFactor from './SecondFactor.svelte'

  /** Where a workspace opens only by a second factor, and there is none yet. */
</script>

<svelte:head><title>Second factor · Zero Dip</title></svelte:head>
<main class="mx-auto grid min-h-dvh max-w-md content-center gap-6 p-6">
  <h1 class="text-3xl font-bold">One more step</h1>
  <p>
    A workspace of yours opens only with a second factor: a code of an app beside your password.
  </p>
  <SecondFactor on={false} ondone={() => session.ask()} />
  <button type="button" class="btn btn-outline btn-lg" onclick={() => session.dismiss()}
    >Later: go on without that workspace</button
  >
  <button type="button" class="btn btn-lg" onclick={() => session.signOut()}>Sign out</button>
</main>
