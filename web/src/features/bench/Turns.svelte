<script lang="ts">
  import { turnWords, way } from '../../domain/turns'

  /** Turns of the screws, as asked for or as made: each in sixteenths, clockwise or not. */
  let {
    wanted,
    screws,
    busy,
    onset,
  }: {
    wanted: Record<string, number>
    screws: [id: string, title: string][]
    busy: boolean
    onset: (turns: Record<string, number>) => void
  } = $props()
  const SIXTEENTH = 0.0625
  // svelte-ignore state_referenced_locally
  let made = $state(Object.fromEntries(screws.map(([id]) => [id, wanted[id] ?? 0])))
</script>

<form
  class="grid gap-2"
  onsubmit={(event) => {
    event.preventDefault()
    onset({ ...made })
  }}
>
  {#each screws as [screw, title] (screw)}
    {@const turns = made[screw] ?? 0}
    <div
      class="grid grid-cols-[4rem_1fr_4rem] items-center rounded-box border border-base-300 bg-base-100 text-center"
    >
      <button
        type="button"
        class="min-h-16 cursor-pointer text-2xl text-accent"
        aria-label="{title}: less"
        onclick={() => (made[screw] = turns - SIXTEENTH)}>↺</button
      >
      <p>
        <span class="block text-sm">{title}</span>
        <span class="figure turns text-3xl">{turns ? turnWords(Math.abs(turns)) : '0'}</span>
        <span class="block text-sm font-bold">{turns ? way(turns) : 'not turned'}</span>
      </p>
      <button
        type="button"
        class="min-h-16 cursor-pointer text-2xl text-accent"
        aria-label="{title}: more"
        onclick={() => (made[screw] = turns + SIXTEENTH)}>↻</button
      >
    </div>
  {/each}
  <button
    class="btn min-h-16 btn-lg btn-primary"
    disabled={busy || !Object.values(made).some(Boolean)}>Turned</button
  >
</form>
