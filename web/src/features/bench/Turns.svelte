<script lang="ts">
  import { turnWords, way } from '../../domain/turns'

  /** Turns of the screws, as asked for or as made: each in sixteenths, clockwise or not. */
  let {
    wanted,
    dual,
    busy,
    onset,
  }: {
    wanted: Record<string, number>
    dual: boolean
    busy: boolean
    onset: (turns: { lower: number; upper: number }) => void
  } = $props()
  const SIXTEENTH = 0.0625
  const screws = $derived(dual ? (['upper', 'lower'] as const) : (['lower'] as const))
  const TITLES = { upper: 'Upper screw', lower: 'Lower screw' }
  // svelte-ignore state_referenced_locally
  let made = $state({ lower: wanted.lower ?? 0, upper: wanted.upper ?? 0 })
</script>

<form
  class="grid gap-2"
  onsubmit={(event) => {
    event.preventDefault()
    onset({ ...made })
  }}
>
  {#each screws as screw (screw)}
    {@const title = dual ? TITLES[screw] : 'Screw'}
    <div
      class="grid grid-cols-[4rem_1fr_4rem] items-center rounded-box border border-base-300 bg-base-100 text-center"
    >
      <button
        type="button"
        class="min-h-16 cursor-pointer text-2xl text-accent"
        aria-label="{title}: less"
        onclick={() => (made[screw] -= SIXTEENTH)}>↺</button
      >
      <p>
        <span class="block text-sm">{title}</span>
        <span class="figure turns text-3xl"
          >{made[screw] ? turnWords(Math.abs(made[screw])) : '0'}</span
        >
        <span class="block text-sm font-bold">{made[screw] ? way(made[screw]) : 'not turned'}</span>
      </p>
      <button
        type="button"
        class="min-h-16 cursor-pointer text-2xl text-accent"
        aria-label="{title}: more"
        onclick={() => (made[screw] += SIXTEENTH)}>↻</button
      >
    </div>
  {/each}
  <button class="btn min-h-16 btn-lg btn-primary" disabled={busy || (!made.lower && !made.upper)}
    >Turned</button
  >
</form>
