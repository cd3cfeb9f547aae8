<script lang="ts">
  import { onDestroy } from 'svelte'

  /** An approach timed by hand: from a pressure on until the figure is touched; how long it is to take at least. */
  let {
    from,
    least,
    since = $bindable(),
    until,
  }: {
    from: string
    least: number
    /** When the pressure was passed, and when the figure was touched first, ms of the page. */
    since: number | undefined
    until: number | undefined
  } = $props()
  let now = $state(0)
  const ticking = setInterval(() => (now = performance.now()), 200)
  onDestroy(() => clearInterval(ticking))
  const passed = $derived(since === undefined ? 0 : Math.max((until ?? now) - since, 0) / 1000)
</script>

<div class="flex flex-wrap items-center gap-3">
  <button type="button" class="btn min-h-14 flex-1" onclick={() => (since = performance.now())}
    >{since === undefined ? `Passing ${from} now` : `Passing ${from} again`}</button
  >
  {#if since !== undefined}
    <p class="flex-1">
      <span class="figure text-2xl">{Math.floor(passed)} s</span>
      <span class="text-sm"
        >{passed < least && until === undefined
          ? `on the way, not before ${Math.ceil(least)} s`
          : until === undefined
            ? 'slow enough'
            : 'timed'}</span
      >
      <progress
        class="progress h-3 w-full progress-secondary"
        value={Math.min(passed, least)}
        max={least}
        aria-label="Time of the approach"
      ></progress>
    </p>
  {/if}
</div>
