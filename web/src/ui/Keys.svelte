<script lang="ts">
  import { preferences } from '../domain/preferences.svelte'
  import { command } from './typing'

  const KEYS = [
    ['?', 'This list'],
    ['Tab', 'From grip to grip: cut-out, cut-in, pre-charge where there is one'],
    ['↑ ↓', 'Move a grip by one step; Page Up and Page Down by five; Home and End to its limits'],
    ['W', 'The quarter of an hour at the worst draw'],
    ['P', 'Propose settings'],
    ['Space', 'The stopwatch, in Prove'],
    ['Ctrl S', 'Save the settings'],
    ['U', 'Next units'],
    ['L', 'Day or Cellar'],
    ['Esc', 'Close what is open'],
  ]

  let dialog: HTMLDialogElement

  /** Opens the list, from wherever it is asked for. */
  export function show() {
    dialog.showModal()
  }

  function press(event: KeyboardEvent) {
    const key = command(event)
    if (key === '?') dialog.showModal()
    if (key === 'l') preferences.setTheme(preferences.theme === 'day' ? 'cellar' : 'day')
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
    <label class="mt-3 flex min-h-12 items-center gap-3">
      <input
        type="checkbox"
        class="checkbox checkbox-lg"
        checked={preferences.keys}
        onchange={(event) => preferences.setKeys(event.currentTarget.checked)}
      />Single letters are commands
    </label>
    <form method="dialog" class="mt-4 text-right">
      <button class="btn btn-lg btn-primary">Close</button>
    </form>
  </div>
</dialog>
