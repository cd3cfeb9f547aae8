<script lang="ts">
  import { preferences } from '../preferences.svelte'
  import { typing } from '../typing'

  const KEYS = [
    ['?', 'This list'],
    ['Tab', 'From grip to grip: cut-out, cut-in, pre-charge where there is one'],
    ['↑ ↓', 'Move a grip by one step; Page Up and Page Down by five; Home and End to its limits'],
    ['W', 'Strip at the worst draw'],
    ['P', 'Propose settings'],
    ['Space', 'The stopwatch, in Prove'],
    ['Ctrl S', 'Keep the settings'],
    ['U', 'Next units'],
    ['L', 'Day or Cellar'],
    ['Esc', 'Close what is open'],
  ]

  let dialog: HTMLDialogElement

  function press(event: KeyboardEvent) {
    if (typing(event)) return
    if (event.key === '?') dialog.showModal()
    if (event.key === 'l') preferences.setTheme(preferences.theme === 'day' ? 'cellar' : 'day')
  }
</script>

<svelte:window onkeydown={press} />
<dialog bind:this={dialog} class="modal" aria-labelledby="keys-title">
  <div class="modal-box">
    <h2 id="keys-title" class="mb-3 text-lg font-bold">Keys</h2>
    <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
      {#each KEYS as [key, what] (key)}
        <dt><kbd class="kbd">{key}</kbd></dt>
        <dd>{what}</dd>
      {/each}
    </dl>
    <form method="dialog" class="mt-4 text-right"><button class="btn btn-lg btn-primary">Close</button></form>
  </div>
</dialog>
