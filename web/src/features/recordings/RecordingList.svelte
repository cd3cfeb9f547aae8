<script lang="ts">
  import { api, type Problem } from '../../api/client'
  import { Query } from '../../api/query.svelte'
  import { connection } from '../../api/connection.svelte'
  import { day } from '../../domain/dates'
  import { uuid } from '../../domain/uuid'
  import { navigate } from '../../router'
  import FileButton from './FileButton.svelte'
  import { sendRecording, type Row } from './send'

  /** The recordings of a system, and the way to a new one. */
  let { system, maychange }: { system: string; maychange: boolean } = $props()
  const rows = new Query<Row[]>()
  let sending = $state<number | undefined>()
  let problem = $state.raw<Problem | undefined>()
  let stopped = false

  $effect(() => {
    void rows.ask(
      api.GET('/api/systems/{system_id}/recordings', { params: { path: { system_id: system } } }),
    )
    return () => (stopped = true)
  })
  async function take(file: File) {
    const id = uuid()
    stopped = false
    problem = undefined
    sending = 0
    const sent = await sendRecording(
      system,
      id,
      file,
      (share) => (sending = share),
      () => !stopped,
    )
    sending = undefined
    problem = sent.problem
    if (sent.row && sent.row.state !== 'coming') navigate('/recordings/:id', { params: { id } })
  }
  const WORDS: Record<string, string> = {
    coming: 'not all here',
    here: 'to be read',
    reading: 'being read',
    refused: 'not read',
  }
  const said = (row: Row) =>
    row.state === 'read'
      ? `${row.samples.toLocaleString('en-US')} samples`
      : (WORDS[row.state] ?? row.state)
</script>

<section aria-labelledby="recordings" class="mb-6">
  <h2 id="recordings" class="mb-2 font-bold">Recordings</h2>
  {#if rows.data?.length}
    <ul class="mb-2 grid gap-2">
      {#each rows.data as row (row.id)}
        <li>
          <a
            class="flex min-h-12 flex-wrap items-center gap-x-4 rounded-box border border-base-300 bg-base-100 px-3 py-1"
            href="/recordings/{row.id}"
          >
            <span class="min-w-0 flex-1 truncate font-bold">{row.name}</span>
            <span class="text-sm text-neutral">{said(row)}</span>
            <span class="text-sm text-neutral">{day(row.made_at)}</span>
          </a>
        </li>
      {/each}
    </ul>
  {:else}
    <p class="mb-2 text-sm text-neutral">
      A recorder’s file of pressures tells points, runs, leaks and the air left.
    </p>
  {/if}
  {#if connection.away}
    <p class="text-sm text-neutral">Recordings need a connection: the server reads them.</p>
  {:else if maychange}
    <FileButton word="Add a recording" share={sending} onfile={(file) => void take(file)} />
    {#if sending !== undefined}
      <button type="button" class="btn min-h-12" onclick={() => (stopped = true)}>Stop</button>
    {/if}
  {/if}
  {#if problem}
    <p class="mt-2 text-error">
      {problem.title}. {problem.faults.map((fault) => fault.message).join(' ') || problem.detail}
    </p>
  {/if}
</section>
