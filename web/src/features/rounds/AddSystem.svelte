<script lang="ts">
  import type { Schemas } from '../../api/client'
  import Faults from '../../ui/Faults.svelte'
  import { KIND_WORDS } from '../../domain/plates'
  import { SYSTEMS } from '../../domain/units'
  import { AddState, NEW } from './add.svelte'

  /** Begins a system: on a site or a new one, of a kind with usual values, or out of a file. */
  let {
    rounds,
    onadded,
    onclose,
  }: { rounds: Schemas['RoundsOut']; onadded: (id: string) => void; onclose: () => void } = $props()
  const add = $derived(new AddState(rounds))
  let dialog: HTMLDialogElement
  $effect(() => dialog.showModal())
  async function submit(event: SubmitEvent) {
    event.preventDefault()
    const made = await add.send()
    if (made) onadded(made)
  }
</script>

<dialog bind:this={dialog} class="modal max-sm:modal-bottom" aria-labelledby="add-title" {onclose}>
  <div class="modal-box">
    <h2 id="add-title" class="mb-3 text-lg font-bold">Add a system</h2>
    <form class="grid gap-3" onsubmit={submit}>
      {#if !add.file}
        <label class="grid gap-1">
          Kind
          <select class="select select-lg w-full" bind:value={add.kind}>
            {#each Object.entries(KIND_WORDS) as [id, word] (id)}<option value={id}>{word}</option
              >{/each}
          </select>
        </label>
        <Faults faults={add.faults} path="kind" />
      {/if}
      <label class="grid gap-1">
        Site
        <select class="select select-lg w-full" bind:value={add.site}>
          {#if !add.site}<option value="">Choose a site</option>{/if}
          {#each add.sites as site (site.id)}<option value={site.id}>{site.name}</option>{/each}
          <option value={NEW}>A new site</option>
        </select>
      </label>
      <Faults faults={add.faults} path="site" />
      {#if add.site === NEW}
        <label class="grid gap-1">
          Name of the site <input
            class="input input-lg w-full"
            maxlength="80"
            bind:value={add.siteName}
          />
        </label>
        <Faults faults={add.faults} path="site.name" />
        <label class="grid gap-1">
          Units there
          <select class="select select-lg w-full" bind:value={add.units}>
            {#each SYSTEMS as system (system.id)}<option value={system.id}>{system.title}</option
              >{/each}
          </select>
        </label>
      {/if}
      {#if add.file}
        <p class="rounded-box bg-[var(--zd-sand)] px-3 py-2">Out of the file {add.fileName}.</p>
      {:else}
        <label class="grid gap-1">
          Name of the system <input
            class="input input-lg w-full"
            maxlength="80"
            bind:value={add.name}
          />
        </label>
        <Faults faults={add.faults} path="name" />
        <p class="text-sm text-neutral">
          Next: what its plates say. What cannot be read begins with a usual value.
        </p>
      {/if}
      <label class="btn min-h-12">
        {add.file ? 'Another file' : 'From a file'}
        <input
          type="file"
          accept=".json,application/json"
          class="sr-only"
          onchange={(event) => add.take(event)}
        />
      </label>
      {#each add.others as fault (fault.path)}<p class="text-sm text-error">
          {fault.message}
        </p>{/each}
      {#if add.problem}<p role="alert" class="text-sm text-error">
          {add.problem.title}. {add.problem.detail}
        </p>{/if}
      <button class="btn min-h-14 btn-lg btn-primary" disabled={add.sending}>Add it</button>
    </form>
    <form method="dialog" class="mt-2">
      <button class="btn min-h-12 w-full btn-ghost">Cancel</button>
    </form>
  </div>
  <form method="dialog" class="modal-backdrop"><button aria-label="Close"></button></form>
</dialog>
