<script lang="ts">
  import Settings2 from '@lucide/svelte/icons/settings-2'
  import type { Snippet } from 'svelte'
  import { preferences, type Theme } from '../domain/preferences.svelte'
  import { session } from '../api/session.svelte'
  import { connection } from '../api/connection.svelte'
  import { command } from './typing'
  import { unanswered } from '../domain/unanswered'
  import { SYSTEMS, type System } from '../domain/units'
  import Keys from './Keys.svelte'
  import Segmented from './Segmented.svelte'

  let {
    crumbs,
    onunits = (units: System) => preferences.setUnits(units),
  }: { crumbs?: Snippet; onunits?: (units: System) => void } = $props()
  const themes: { id: Theme; title: string }[] = [
    { id: 'day', title: 'Day' },
    { id: 'cellar', title: 'Cellar' },
  ]
  let open = $state(false)
  let unsent = $state(0)

  /** Signing out takes everything off this device: what was not sent is lost, and said first. */
  function leave() {
    const waiting = (connection.standing?.waiting ?? 0) + unanswered()
    if (waiting && unsent !== waiting) unsent = waiting
    else void session.signOut()
  }
  let keys: Keys

  function press(event: KeyboardEvent) {
    if (command(event) !== 'u') return
    const at = SYSTEMS.findIndex((system) => system.id === preferences.units)
    onunits(SYSTEMS[(at + 1) % SYSTEMS.length]!.id)
  }
</script>

<svelte:window onkeydown={press} />
<header class="border-b border-base-300 bg-base-200">
  <div class="flex min-h-13 flex-wrap items-center gap-x-4 px-4 py-1.5">
    <a href="/" class="flex min-h-12 items-center gap-2 text-xl font-bold sm:min-h-9">
      <svg width="30" height="18" viewBox="0 0 30 18" aria-hidden="true">
        <path
          d="M2 3h26"
          stroke="var(--color-secondary)"
          stroke-width="3.5"
          stroke-linecap="round"
        />
        <path
          d="M2 12h8l5 4 5-4h8"
          fill="none"
          stroke="var(--color-accent)"
          stroke-width="3"
          stroke-linecap="round"
          stroke-linejoin="round"
        />
      </svg>
      Zero Dip
    </a>
    <nav
      aria-label="Where you are"
      class="order-last w-full min-w-0 truncate text-sm sm:order-none sm:w-auto sm:flex-1"
    >
      {@render crumbs?.()}
    </nav>
    <button
      type="button"
      class="ml-auto grid size-12 cursor-pointer place-items-center rounded-full border border-base-300 lg:hidden"
      aria-expanded={open}
      aria-controls="choices"
      aria-label="Units, light and account"
      onclick={() => (open = !open)}><Settings2 size={20} /></button
    >
    <div
      id="choices"
      class="flex w-full flex-wrap items-center gap-3 lg:flex lg:w-auto {open ? 'py-2' : 'hidden'}"
    >
      <Segmented label="Units" options={SYSTEMS} value={preferences.units} onchange={onunits} />
      <Segmented
        label="Light"
        options={themes}
        value={preferences.theme}
        onchange={(t) => preferences.setTheme(t)}
      />
      <a
        class="flex min-h-12 items-center px-2 text-sm underline underline-offset-4 lg:min-h-9"
        href="/practice">Practice</a
      >
      <a
        class="flex min-h-12 items-center px-2 text-sm underline underline-offset-4 lg:min-h-9"
        href="/workspace">Workspace</a
      >
      <button
        type="button"
        class="min-h-12 cursor-pointer px-2 text-sm underline underline-offset-4 max-lg:hidden lg:min-h-9"
        onclick={() => keys.show()}>Keys</button
      >
      <button
        type="button"
        class="min-h-12 cursor-pointer px-2 text-sm underline underline-offset-4 lg:min-h-9"
        onclick={leave}>{unsent ? `Lose ${unsent} not sent and sign out` : 'Sign out'}</button
      >
    </div>
  </div>
</header>
<Keys bind:this={keys} />
