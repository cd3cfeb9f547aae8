<script lang="ts" module>
  export type Alternative = 'propose' | 'ways' | 'sizes'
</script>

<script lang="ts">
  import { untrack } from 'svelte'
  import type { Schemas } from '../../api/client'
  import Segmented from '../../ui/Segmented.svelte'
  import type { BoardState } from '../../domain/board.svelte'
  import Propose from './Propose.svelte'
  import SideBySide from './SideBySide.svelte'
  import Sizes from './Sizes.svelte'

  /** Other ways to set, judge or size the system, beside what stands; what was `seen` is in none of their figures. */
  let {
    board,
    seen,
    when,
    tab,
    tabs,
    onreading,
    onclose,
  }: {
    board: BoardState
    seen: Schemas['Remaining'][]
    when: string
    tab: Alternative
    tabs: [Alternative, string][]
    onreading: (path: string) => void
    onclose: () => void
  } = $props()
  let dialog: HTMLDialogElement
  let shown = $state(untrack(() => tab))
  $effect(() => dialog.showModal())
</script>

<dialog
  bind:this={dialog}
  class="modal max-sm:modal-bottom"
  aria-label="Compare other ways"
  {onclose}
>
  <div class="modal-box flex max-h-[94dvh] w-full max-w-5xl flex-col p-0">
    <div class="flex items-center justify-between gap-3 border-b border-base-300 px-4 py-2">
      <Segmented
        label="What to compare"
        options={tabs.map(([id, title]) => ({ id, title }))}
        value={shown}
        onchange={(chosen) => (shown = chosen)}
      />
      <form method="dialog"><button class="btn min-h-12">Close</button></form>
    </div>
    <div class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
      {#if seen.length}
        <p class="mb-3 text-sm" data-testid="seen-too">
          Seen on {when}, and not in the figures here:
          <strong>{seen.map((each) => each.title).join(' · ')}</strong>. See to it first.
        </p>
      {/if}
      {#if shown === 'propose'}
        <Propose
          {board}
          stopSeen={seen.some((each) => each.verdict === 'stop')}
          ontaken={() => dialog.close()}
          onreading={(path) => {
            dialog.close()
            onreading(path)
          }}
        />
      {:else if shown === 'ways'}
        <SideBySide {board} />
      {:else}
        <Sizes {board} />
      {/if}
    </div>
  </div>
  <form method="dialog" class="modal-backdrop"><button aria-label="Close"></button></form>
</dialog>
