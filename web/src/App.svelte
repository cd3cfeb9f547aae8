<script lang="ts">
  import { Router } from 'sv-router'
  import { session } from './api/session.svelte'
  import { leaveToBrowser } from './router'

  void session.ask()
</script>

<svelte:document onclickcapture={leaveToBrowser} />
{#if session.known}
  {#if session.entered}
    <div hidden={!session.current.signed_in || session.current.needs === 'enrol'}><Router /></div>
  {/if}
  {#if session.current.signed_in && session.current.needs === 'enrol'}
    {#await import('./features/signin/Enrol.svelte') then { default: Enrol }}<Enrol />{/await}
  {/if}
  {#if !session.current.signed_in}
    {#await import('./features/signin/SignIn.svelte') then { default: SignIn }}
      <SignIn again={session.entered} />
    {/await}
  {/if}
{/if}
