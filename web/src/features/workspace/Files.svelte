<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { ImportState, type Change } from './import.svelte'

  /** Everything on record as files, out and in. */
  let { workspace, mayWrite }: { workspace: Schemas['WorkspaceMembers']; mayWrite: boolean } =
    $props()
  const of = $derived(new ImportState(workspace.id))
  const at = $derived(of.at)
  let photos = $state(true)
  const share = $derived(at?.total ? Math.round((100 * at.done) / at.total) : 100)
  const WORDS: [Change, string][] = [
    ['added', 'added'],
    ['changed', 'changed'],
    ['same', 'the same'],
    ['refused', 'refused'],
  ]
  const KINDS: Record<string, string> = {
    practice: 'Practice',
    gauge: 'Gauge',
    reference: 'Reference',
    site: 'Site',
    system: 'System',
    switch: 'Switch',
  }
  const MARKS: Record<Change, string> = { added: '+', changed: '≈', same: '=', refused: '■' }

  function pick(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0]
    event.currentTarget.value = ''
    if (file) void of.begin(file)
  }
</script>

<section aria-labelledby="files" class="grid gap-3">
  <h2 id="files" class="text-xl font-bold">Files</h2>
  <div class="flex flex-wrap items-center gap-2">
    <a
      class="btn min-h-12"
      href="/api/archive/workspaces/{workspace.id}.json?photos={photos}"
      download>Everything (JSON)</a
    >
    <a class="btn min-h-12" href="/api/tables/workspaces/{workspace.id}.zip" download
      >Tables (CSV)</a
    >
    <label class="flex min-h-12 items-center gap-2 text-sm">
      <input type="checkbox" class="checkbox checkbox-lg" bind:checked={photos} />with photos
    </label>
  </div>
  {#if mayWrite}
    {#if !at}
      <p class="text-sm">
        A file is checked first, piece by piece; nothing changes until you import it, and then all
        of it or none. What is on record here is never removed.
      </p>
      <label class="btn min-h-12 sm:w-fit {of.busy ? 'btn-disabled' : ''}">
        {of.busy ? 'Reading the file…' : 'Take in a file'}
        <input
          type="file"
          accept=".json,application/json"
          class="sr-only"
          disabled={of.busy}
          onchange={pick}
        />
      </label>
    {:else}
      <div
        class="grid gap-3 rounded-box border border-base-300 bg-base-100 p-3"
        data-testid="import"
      >
        <p class="font-bold">{at.name || 'The file'}</p>
        {#if at.state === 'checking' || at.state === 'taken'}
          <p role="status">
            {at.state === 'checking' ? 'Checked' : 'Taken in. Working out what is due:'}
            <span class="figure">{at.done.toLocaleString()} of {at.total.toLocaleString()}</span>
          </p>
          <progress
            class="progress h-4 w-full progress-secondary"
            value={share}
            max="100"
            aria-label="Done"
          ></progress>
        {:else}
          <p role="status" class="font-bold">
            {at.state === 'done' ? 'Taken in.' : 'If you import it:'}
          </p>
          <div class="flex flex-wrap gap-2" role="group" aria-label="Show">
            {#each WORDS as [change, word] (change)}
              <button
                type="button"
                class="btn min-h-12 {of.change === change ? 'btn-primary' : ''}"
                aria-pressed={of.change === change}
                onclick={() => of.show(of.change === change ? undefined : change)}
                ><span class="figure">{(at.counts[change] ?? 0).toLocaleString()}</span>
                {word}</button
              >
            {/each}
          </div>
          <ul class="grid gap-1" data-testid="pieces">
            {#each of.pieces as piece (piece.number)}
              <li class="border-b border-base-300 py-2">
                <span class="figure" aria-hidden="true">{MARKS[piece.change]}</span>
                <span class="font-bold">{KINDS[piece.kind]} {piece.name}</span>
                <span class="text-sm">{piece.change}{piece.says ? `: ${piece.says}` : ''}</span>
                {#each piece.faults as fault (fault.path + fault.message)}
                  <span class="block text-sm text-error">{fault.message}</span>
                  <span class="block text-sm break-all text-neutral"
                    >line {piece.line}, {fault.path}</span
                  >
                {/each}
              </li>
            {/each}
          </ul>
          {#if of.more}
            <button
              type="button"
              class="btn min-h-12"
              onclick={() => of.show(of.change, of.pieces.at(-1)!.number)}>More</button
            >
          {/if}
          {#if at.state === 'ready' && at.counts.refused}
            <p class="font-bold">
              ■ Nothing is taken in while a piece is refused. Put the file right and try again.
            </p>
          {:else if at.state === 'ready' && !of.mayTake}
            <p class="font-bold">● Everything in it is on record already.</p>
          {/if}
        {/if}
        <div class="flex flex-wrap gap-2">
          {#if of.mayTake}
            <button
              type="button"
              class="btn min-h-12 btn-primary"
              disabled={of.busy}
              onclick={() => of.take()}>{of.busy ? 'Taking it in…' : 'Import it'}</button
            >
          {/if}
          {#if of.problem && !of.busy}
            <button type="button" class="btn min-h-12" onclick={() => of.goOn()}>Go on</button>
          {/if}
          <button type="button" class="btn min-h-12" onclick={() => of.cancel()}
            >{at.state === 'done' || at.state === 'taken' ? 'Done' : 'Cancel'}</button
          >
        </div>
      </div>
    {/if}
    {#if of.problem}
      <p role="alert" class="text-error">
        {of.problem.title}. {of.problem.detail}
        {#each of.problem.faults as fault (fault.path + fault.message)}<span class="block"
            >{fault.message}</span
          >{/each}
      </p>
    {/if}
  {/if}
</section>
