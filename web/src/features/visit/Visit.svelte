<script lang="ts">
  import { tick, untrack } from 'svelte'
  import { connection } from '../../api/connection.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import type { System } from '../../domain/units'
  import { route } from '../../router'
  import Board from '../decide/Board.svelte'
  import { BoardState } from '../../domain/board.svelte'
  import ClashBox from './Clash.svelte'
  import GaugeLink from './GaugeLink.svelte'
  import Guide from './Guide.svelte'
  import HandOver from './HandOver.svelte'
  import MakeSafe from './MakeSafe.svelte'
  import Prove from './Prove.svelte'
  import Rail from './Rail.svelte'
  import Read from './Read.svelte'
  import SetSwitch from './SetSwitch.svelte'
  import Watch from './Watch.svelte'
  import { seenOn } from '../../domain/visits'
  import { STEPS, VisitState, type Step } from '../../domain/visit.svelte'

  const at = $derived(new VisitState((route.params as { id: string }).id))
  const view = $derived(at.view)
  const here = $derived(STEPS.indexOf(at.step))
  const next = $derived(STEPS[here + 1])
  const system = $derived(at.visit?.system.id)
  const board = $derived(at.step === 'decide' && system ? new BoardState(system) : undefined)
  const seen = $derived(seenOn(at.visit))
  const BODY = {
    watch: Watch,
    safe: MakeSafe,
    read: Read,
    set: SetSwitch,
    prove: Prove,
    hand_over: HandOver,
  }
  const Body = $derived(at.step === 'decide' ? undefined : BODY[at.step])
  const held = $derived(at.waiting.length + at.photos.length)
  let heading = $state<HTMLElement | undefined>()
  const LOOK_MS = 10_000

  $effect(() => {
    const state = at
    untrack(() => void state.load())
    const again = () => void state.look()
    const heard = connection.onwrite((systems) => {
      if (system && systems.includes(system)) void state.look()
    })
    const look = () => (document.visibilityState === 'visible' ? void state.look() : undefined)
    const timer = setInterval(look, LOOK_MS)
    addEventListener('online', again)
    document.addEventListener('visibilitychange', look)
    return () => {
      heard()
      clearInterval(timer)
      removeEventListener('online', again)
      document.removeEventListener('visibilitychange', look)
    }
  })
  async function go(step: Step) {
    const decided = at.step === 'decide'
    // What was read goes into the file that Decide opens: not to clash with oneself.
    if (step === 'decide') await at.flush()
    at.go(step)
    if (decided) void at.load()
    scrollTo({ top: 0 })
    // Not on the button pressed: it now leads one step further, and Space is the stopwatch.
    void tick().then(() => heading?.focus({ preventScroll: true }))
  }
  function decided() {
    if (at.open) void at.put('decided', true)
    void go('set')
  }
  async function setUnits(units: System) {
    await at.setUnits(units)
    await board?.ask()
  }
</script>

<svelte:head><title>{at.visit?.system.name ?? 'Visit'} · Zero Dip</title></svelte:head>
<div class="flex min-h-dvh flex-col {board ? 'lg:h-dvh' : ''}" aria-busy={held > 0}>
  <TopBar onunits={setUnits}>
    {#snippet crumbs()}
      {#if at.visit}
        {at.visit.system.site.name} ›
        <a class="font-bold underline-offset-4 hover:underline" href="/systems/{at.visit.system.id}"
          >{at.visit.system.name}</a
        >
      {/if}
    {/snippet}
  </TopBar>
  {#if at.visit && view}
    <Rail state={at} ongo={go} />
    <Guide state={at} ongo={go} />
    {#if at.open}<GaugeLink state={at} />{/if}
    {#each at.clashes as clash (clash.entry + clash.slot)}<ClashBox state={at} {clash} />{/each}
    {#if at.offline}
      <p role="status" class="flex items-center gap-3 bg-[var(--zd-sand)] px-4 py-2 text-sm">
        <span class="flex-1"
          >No signal. {held
            ? `${held} saved on this phone, sent as soon as there is.`
            : 'What you enter is saved on this phone.'}</span
        >
        <button type="button" class="btn min-h-12" onclick={() => at.look()}>Try now</button>
      </p>
    {/if}
    {#if at.problem}
      <p role="alert" class="px-4 py-2 text-error">{at.problem.title}. {at.problem.detail}</p>
    {/if}
    {#if !at.visit.open}<p class="px-4 py-2 font-bold">This visit is closed.</p>
    {:else if !at.visit.may_change}<p class="px-4 py-2 font-bold">You may look only.</p>{/if}
    {#if board}
      <Board {board} {seen} onnext={decided} />
    {:else}
      <main class="mx-auto grid w-full max-w-2xl content-start gap-4 px-4 py-4">
        <h1 bind:this={heading} tabindex="-1" class="text-2xl font-bold outline-none">
          {view.rail[here]?.title}
        </h1>
        {#if view.cautions[at.step]}<p class="text-sm font-bold text-error">
            {view.cautions[at.step]}
          </p>{/if}
        <Body state={at} />
        {#if next}
          <button type="button" class="btn min-h-14 btn-lg" onclick={() => go(next)}
            >Next: {view.rail[here + 1]?.title}</button
          >
        {/if}
      </main>
    {/if}
  {:else if at.problem}
    <main class="p-6">
      <h1 class="text-2xl font-bold">{at.problem.title}</h1>
      <p class="my-2">{at.problem.detail}</p>
      <button class="btn min-h-12" onclick={() => at.load()}>Try again</button>
      <a class="btn min-h-12" href="/">Rounds</a>
    </main>
  {:else}
    <p class="p-6 text-neutral">Reading the visit…</p>
  {/if}
</div>
