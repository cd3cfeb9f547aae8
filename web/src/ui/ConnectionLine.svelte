<script lang="ts">
  import { connection } from '../api/connection.svelte'
  import { deviceHere } from '../device/ask'
  import { takeUpdate } from '../device/updates'

  /** One line on every page, where something is not as it should be: no connection, not sent yet, refused, full. */
  const standing = $derived(connection.standing)
  const since = $derived(standing?.contact ? new Date(standing.contact).toLocaleString() : '')
  const waits = $derived(standing?.waiting ?? 0)
  const following = $derived(standing?.following ?? 0)
  const unsent = $derived(waits - following)
  /** What is entered now would be lost without a connection: this stays in sight. */
  const lost = $derived(standing?.full !== undefined && !['', 'nearly'].includes(standing.full))
</script>

{#if connection.update}
  <div
    role="status"
    data-testid="update"
    class="flex min-h-12 flex-wrap items-center gap-x-4 border-b border-base-300 bg-base-200 px-4 py-1 text-sm"
  >
    <span>
      <b>Another version is here.</b> Change over when it suits you: nothing typed is lost, an open visit
      stays open.
    </span>
    <button type="button" class="btn btn-sm min-h-12" onclick={takeUpdate}>Change over</button>
  </div>
{/if}
{#if standing && (!standing.reached || waits || standing.refused || standing.full)}
  <div
    role="status"
    data-testid="connection"
    class="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 bg-base-200 px-4 py-1 text-sm {lost
      ? 'sticky top-0 z-30'
      : ''}"
  >
    {#if !standing.reached}
      <span><b>No connection.</b> Working from this device, as of {since}.</span>
    {/if}
    {#if waits}
      <span>
        {#if unsent}{unsent} not sent yet.{/if}
        {#if following}{following} photo{following === 1 ? '' : 's'} sent small; full size follows.{/if}
      </span>
      <button type="button" class="btn btn-sm min-h-12" onclick={() => deviceHere()?.send()}>
        {standing.reached ? 'Send now' : 'Try now'}
      </button>
    {/if}
    {#if standing.refused}
      <a class="link" href="/workspace#device">{standing.refused} refused: read why</a>
    {/if}
    {#if standing.full}
      <span class="font-bold text-error">
        {standing.full === 'nearly'
          ? '▲ This device has hardly any room left. Make room, or send what waits, before the next photos.'
          : '■ This device has no room left: what is entered now is kept only by a connection.'}
      </span>
    {/if}
  </div>
{/if}
