<script lang="ts">
  import { Router } from 'sv-router'
  import SignIn from './features/signin/SignIn.svelte'
  import { session } from './api/session.svelte'
  import { leaveToBrowser } from './router'

  void session.ask()
</script>

<svelte:document onclickcapture={leaveToBrowser} />
{#if session.known}
  {#if session.entered}
    <div hidden={!session.current.signed_in}><Router /></div>
  {/if}
  {#if !session.current.signed_in}
    <SignIn again={session.entered} />
  {/if}
{/if}
