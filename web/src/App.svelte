<script lang="ts">
  import { Router } from 'sv-router'
  import type { Component } from 'svelte'
  import { connection } from './api/connection.svelte'
  import { session } from './api/session.svelte'
  import { deviceHere } from './device/ask'
  import { person } from './device/person'
  import { leaveToBrowser, preload } from './router'
  import { whenAtRest } from './ui/rest'

  void session.ask()
  void preload(location.pathname as '/') // while it is asked who is there
  // Python comes once the page is there and at rest, and only where somebody works; until then the server answers.
  let begun = false
  let Line = $state.raw<Component | undefined>()
  /** No connection in this moment: the next sign of one begins again. */
  const notNow = () => (begun = false)
  async function begin() {
    begun = true
    const [{ beginDevice }, { keepPage, onUpdate }, line] = await Promise.all([
      import('./device/begin'),
      import('./device/updates'),
      import('./ui/ConnectionLine.svelte'),
    ])
    Line = line.default
    const device = await beginDevice(true)
    device?.onchange((standing, systems) => {
      connection.hear(standing, systems)
      if (standing.signedOut) session.ended()
    })
    onUpdate(() => (connection.update = true))
    await keepPage()
  }
  $effect(() => {
    if (!session.current.signed_in) return
    const known = person()
    // Somebody else's device, from now on: what the one before had not sent waits for them.
    if (begun && known && known.name !== session.current.name) location.reload()
    else if (begun) void deviceHere()?.send()
    else if (deviceHere()) void begin().catch(notNow)
    else whenAtRest(() => void begin().catch(notNow))
  })
</script>

<svelte:document onclickcapture={leaveToBrowser} />
{#if session.known}
  {#if Line}<Line />{/if}
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
