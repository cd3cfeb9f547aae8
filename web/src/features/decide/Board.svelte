<script lang="ts">
  import type { Schemas } from '../../api/client'
  import Seen from './Seen.svelte'
  import { command } from '../../ui/typing'
  import InTurn from '../../ui/InTurn.svelte'
  import { whenAtRest } from '../../ui/rest'
  import Results from './Results.svelte'
  import type { BoardState } from '../../domain/board.svelte'
  import Counts from './Counts.svelte'
  import Findings from './Findings.svelte'
  import KeepBar from './KeepBar.svelte'
  import PlateButton from './PlateButton.svelte'
  import { assumedUnder } from '../../domain/file'
  import { kindOf, plateOf, platesFor, type PlateKind } from '../../domain/plates'
  import Ribbon from '../../charts/Ribbon.svelte'
  import SimulationChart from '../../charts/Simulation.svelte'
  import type { Alternative } from './Alternatives.svelte'
  import Window from '../../charts/Window.svelte'

  /** Plates, chart, results and verdicts of one system: a page of its own, and step 3 of a visit, with what was seen on it. */
  let {
    board,
    onnext,
    seen = [],
    when = 'this visit',
  }: {
    board: BoardState
    onnext?: () => void
    seen?: Schemas['Remaining'][]
    when?: string
  } = $props()
  let open = $state<PlateKind | undefined>()
  let focus = $state('')
  let comparing = $state<Alternative | undefined>()
  let closed = $state(false)
  // What opens over the page comes after it.
  const editor = () => import('./PlateEditor.svelte')
  const alternatives = () => import('./Alternatives.svelte')
  $effect(() =>
    whenAtRest(() => void Promise.all([editor(), alternatives()]).catch(() => undefined)),
  )
  /** A system on which nobody decided yet and nothing was read: its plates first. */
  const fresh = $derived(
    !closed &&
      !onnext &&
      board.system?.may_change === true &&
      !board.system.decisions.length &&
      board.result !== undefined &&
      assumedUnder(board.system.document, 'settings').length > 0,
  )
  /** What was seen counts like what is worked out, and before it. */
  const told = $derived([...seen, ...(board.result?.decision.findings ?? [])])
  const plates = $derived(platesFor(kindOf(board.file)))
  const TABS: [Alternative, string][] = [
    ['propose', 'Propose'],
    ['ways', 'Ways'],
    ['sizes', 'Sizes'],
  ]
  const tabs = $derived(TABS.filter(([tab]) => tab !== 'ways' || board.ribbon?.holds === 'water'))

  $effect(() => {
    void board.load()
  })
  function enter(path: string) {
    focus = path
    open = plateOf(kindOf(board.file), path)
  }
  function press(event: KeyboardEvent) {
    if ((event.ctrlKey || event.metaKey) && event.key === 's') {
      event.preventDefault()
      void board.save()
    }
    const key = command(event)
    if (key === 'w') board.drawAt(null)
    if (key === 'p' && board.result && !board.stale) comparing = 'propose'
  }
</script>

<svelte:window onkeydown={press} />

{#snippet compare()}
  <div role="group" aria-label="Compare other ways" class="flex gap-2">
    {#each tabs as [tab, word] (tab)}
      <button
        type="button"
        class="btn min-h-12 flex-1 px-2 {tab === 'propose'
          ? 'border-accent text-accent btn-outline'
          : ''}"
        disabled={board.stale}
        onclick={() => (comparing = tab)}>{word}</button
      >
    {/each}
  </div>
{/snippet}

{#if board.file && board.result}
  <main
    class="flex min-h-0 flex-1 flex-col lg:grid lg:grid-cols-[1fr_330px] lg:grid-rows-[minmax(0,1fr)_auto]"
  >
    <h1 class="sr-only">Decide: {board.system?.name}</h1>
    <div class="flex min-h-0 flex-col gap-2 px-4 py-3 lg:row-span-2 lg:overflow-y-auto">
      <div
        class="-mx-4 flex min-h-19 gap-2 overflow-x-auto px-4 pb-1 max-sm:*:min-w-36 sm:grid sm:min-h-37 sm:grid-cols-3 xl:min-h-18 xl:grid-cols-6"
      >
        <InTurn at={1}>
          {#each plates as plate (plate.id)}<PlateButton
              {plate}
              {board}
              onopen={() => ((focus = ''), (open = plate))}
            />{/each}
        </InTurn>
      </div>
      <div class="min-h-85 flex-1 sm:min-h-80 {board.stale ? 'opacity-50' : ''}">
        <InTurn at={2}
          >{#if board.window}<Window {board} />{:else}<Ribbon {board} />{/if}</InTurn
        >
      </div>
      {#if board.result.simulation}<div class="min-h-52">
          <InTurn at={3}><SimulationChart {board} /></InTurn>
        </div>{/if}
    </div>
    <aside
      class="flex flex-col border-base-300 bg-base-100 lg:min-h-0 lg:border-l"
      aria-label="What these settings do"
    >
      <div class="flex-1 px-4 py-3 lg:overflow-y-auto {board.stale ? 'opacity-60' : ''}">
        <Counts {told} verdict={board.result.decision.verdict} />
        <Seen {seen} {when} />
        <InTurn at={4}>
          <Results
            results={board.result.decision.results}
            leading={board.result.decision.leading}
            certainty={board.certainty}
            onreading={enter}
          />
          <div class="py-2 lg:hidden">{@render compare()}</div>
        </InTurn>
        <InTurn at={5}>
          <Findings findings={board.result.decision.findings} onreading={enter} />
          <ul
            class="grid gap-1 border-t border-base-300 py-3 text-xs text-neutral"
            aria-label="Cautions"
          >
            {#each board.result.decision.cautions as caution (caution)}<li>{caution}</li>{/each}
          </ul>
        </InTurn>
      </div>
    </aside>
    <InTurn at={6}>
      <KeepBar {board} {told} onfault={enter} {onnext}>
        <div class="max-lg:hidden">{@render compare()}</div>
      </KeepBar>
    </InTurn>
  </main>
{:else if board.problem}
  <main class="p-6">
    <h1 class="text-2xl font-bold">{board.problem.title}</h1>
    <p class="my-2">{board.problem.detail}</p>
    <button class="btn" onclick={() => board.load()}>Try again</button>
    <a class="btn" href="/">Rounds</a>
  </main>
{:else if board.faults.length}
  <main class="p-6">
    <h1 class="text-2xl font-bold">This system’s file has values to correct</h1>
    <ul class="my-3 list-disc pl-5">
      {#each board.faults as fault (fault.path)}<li>{fault.message}</li>{/each}
    </ul>
    <div class="grid max-w-2xl grid-cols-2 gap-2 sm:grid-cols-3">
      {#if board.file}{#each plates as plate (plate.id)}<PlateButton
            {plate}
            {board}
            onopen={() => (open = plate)}
          />{/each}{/if}
    </div>
    <button class="btn mt-4" onclick={() => board.putBack()}>Back to what was saved</button>
  </main>
{:else}
  <p class="p-6 text-neutral">Reading the system…</p>
{/if}
{#if fresh && board.file}
  {#await import('./FirstPlates.svelte') then { default: FirstPlates }}
    <FirstPlates
      {board}
      onpropose={() => (comparing = 'propose')}
      onclose={() => (closed = true)}
    />
  {/await}
{/if}
{#if comparing && board.file}
  {#await alternatives() then { default: Alternatives }}
    <Alternatives
      {seen}
      {when}
      {board}
      {tabs}
      tab={comparing}
      onreading={enter}
      onclose={() => (comparing = undefined)}
    />
  {/await}
{/if}
{#if open && board.file}
  {#await editor() then { default: PlateEditor }}
    <PlateEditor plate={open} {board} {focus} onclose={() => (open = undefined)} />
  {/await}
{/if}
