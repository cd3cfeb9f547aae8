<script lang="ts">
  import { typing } from '../../lib/typing'
  import Answers from './Answers.svelte'
  import type { DecideState } from './decide.svelte'
  import Findings from './Findings.svelte'
  import KeepBar from './KeepBar.svelte'
  import Plate from './Plate.svelte'
  import PlateEditor from './PlateEditor.svelte'
  import { kindOf, plateOf, platesFor, type PlateKind } from '../../lib/plates'
  import Ribbon from './Ribbon.svelte'
  import Strip from './Strip.svelte'
  import Weigh, { type WeighTab } from './Weigh.svelte'
  import Window from './Window.svelte'

  /** Plates, picture, answers and verdicts of the system on the table: a page of its own, and step 3 of a visit. */
  let { table, onnext }: { table: DecideState; onnext?: () => void } = $props()
  let open = $state<PlateKind | undefined>()
  let focus = $state('')
  let weighing = $state<WeighTab | undefined>()
  const plates = $derived(platesFor(kindOf(table.file)))
  const TABS: [WeighTab, string][] = [
    ['propose', 'Propose'],
    ['schools', 'Schools'],
    ['sizes', 'Sizes'],
  ]
  const tabs = $derived(TABS.filter(([tab]) => tab !== 'schools' || table.result?.decision.ribbon?.holds === 'water'))

  $effect(() => {
    void table.load()
  })
  function enter(path: string) {
    focus = path
    open = plateOf(kindOf(table.file), path)
  }
  function press(event: KeyboardEvent) {
    if ((event.ctrlKey || event.metaKey) && event.key === 's') {
      event.preventDefault()
      void table.save()
    }
    if (typing(event)) return
    if (event.key === 'w') table.drawAt(null)
    if (event.key === 'p' && table.result && !table.stale) weighing = 'propose'
  }
</script>

<svelte:window onkeydown={press} />

{#if table.file && table.result}
  <main class="flex min-h-0 flex-1 flex-col lg:grid lg:grid-cols-[1fr_330px]">
    <h1 class="sr-only">Decide: {table.system?.name}</h1>
    <div class="flex min-h-0 flex-col gap-2 px-4 py-3 lg:overflow-y-auto">
      <div class="-mx-4 flex gap-2 overflow-x-auto px-4 pb-1 max-sm:*:min-w-36 sm:grid sm:grid-cols-3 xl:grid-cols-6">
        {#each plates as plate (plate.id)}<Plate {plate} {table} onopen={() => ((focus = ''), (open = plate))} />{/each}
      </div>
      <div class="min-h-0 flex-1 {table.stale ? 'opacity-50' : ''}">
        {#if table.result.decision.window}<Window {table} />{:else}<Ribbon {table} />{/if}
      </div>
      {#if table.result.strip}<Strip {table} />{/if}
    </div>
    <aside class="flex flex-col border-base-300 bg-base-100 lg:min-h-0 lg:border-l" aria-label="What these settings do">
      <div class="flex-1 px-4 py-3 lg:overflow-y-auto {table.stale ? 'opacity-60' : ''}">
        <Answers answers={table.result.decision.answers} />
        <div role="group" aria-label="Weigh other ways" class="flex gap-2 py-2">
          {#each tabs as [tab, word] (tab)}
            <button
              type="button"
              class="btn min-h-12 flex-1 px-2 {tab === 'propose' ? 'border-accent text-accent btn-outline' : ''}"
              disabled={table.stale}
              onclick={() => (weighing = tab)}>{word}</button
            >
          {/each}
        </div>
        <Findings findings={table.result.decision.findings} onreading={enter} />
        <ul class="grid gap-1 border-t border-base-300 py-3 text-xs text-neutral" aria-label="Cautions">
          {#each table.result.decision.cautions as caution (caution)}<li>{caution}</li>{/each}
        </ul>
      </div>
      <KeepBar {table} onfault={enter} {onnext} />
    </aside>
  </main>
{:else if table.problem}
  <main class="p-6">
    <h1 class="text-2xl font-bold">{table.problem.title}</h1>
    <p class="my-2">{table.problem.detail}</p>
    <button class="btn" onclick={() => table.load()}>Try again</button>
    <a class="btn" href="/">Rounds</a>
  </main>
{:else if table.faults.length}
  <main class="p-6">
    <h1 class="text-2xl font-bold">This system’s file has values to correct</h1>
    <ul class="my-3 list-disc pl-5">
      {#each table.faults as fault (fault.path)}<li>{fault.message}</li>{/each}
    </ul>
    <div class="grid max-w-2xl grid-cols-2 gap-2 sm:grid-cols-3">
      {#if table.file}{#each plates as plate (plate.id)}<Plate
            {plate}
            {table}
            onopen={() => (open = plate)}
          />{/each}{/if}
    </div>
    <button class="btn mt-4" onclick={() => table.putBack()}>Put back what was kept</button>
  </main>
{:else}
  <p class="p-6 text-neutral">Reading the system…</p>
{/if}
{#if weighing && table.file}
  <Weigh {table} {tabs} tab={weighing} onclose={() => (weighing = undefined)} />
{/if}
{#if open && table.file}
  <PlateEditor plate={open} {table} {focus} onclose={() => (open = undefined)} />
{/if}
