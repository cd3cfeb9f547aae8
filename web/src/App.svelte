<script lang="ts">
  import { Router } from 'sv-router'
  import SignIn from './features/signin/SignIn.svelte'
  import Keys from './lib/controls/Keys.svelte'
  import { session } from './lib/session.svelte'
  import { leaveToBrowser } from './router'

  void session.ask()
  $effect(() => {
    document.addEventListener('click', leaveToBrowser, true)
    return () => document.removeEventListener('click', leaveToBrowser, true)
  })
  // Once entered, the pages stay: a session that ends in between must not take what is typed with it.
  let entered = $state(false)
  $effect(() => {
    if (session.current.signed_in) entered = true
  })
</script>

{#if session.known}
  {#if entered}
    <div hidden={!session.current.signed_in}><Router /></div>
  {/if}
  {#if !session.current.signed_in}
    <SignIn again={entered} />
  {/if}
{/if}
<Keys />
