<script lang="ts">
  import type { LiveState } from './live.svelte'

  /** What the gauge offers at this step of the visit, one by one: used with one press, marked as the gauge's. */
  let { at, may }: { at: LiveState; may: boolean } = $props()
  const watch = $derived(at.watch!)
  const WAITS: Record<string, string> = {
    watch: 'Shut all taps, then open one slowly until the pump clicks in. Shut it again.',
    safe: 'With power off, drain slowly. The gauge finds where the pressure collapses.',
    set: 'Power on, cover on: let it run one whole cycle.',
    prove: 'Let it run one whole cycle, all taps shut. For leaks let it rest a minute and more.',
  }
</script>

<section aria-labelledby="seen" class="grid gap-2">
  <h2 id="seen" class="text-xl font-bold">Seen by the gauge</h2>
  {#each watch.offered as each (each.slot)}
    <div
      class="flex items-center gap-3 rounded-box border border-base-300 bg-base-100 px-3 py-2"
      data-testid="offered"
    >
      <div class="min-w-0 flex-1">
        <p class="text-sm">{each.title}</p>
        <p>
          <span class="figure text-2xl">{each.text}</span>
          <span class="figure ml-1 text-sm">{each.within}</span>
        </p>
        {#if each.beside}<p class="text-sm text-neutral">{each.beside}</p>{/if}
      </div>
      {#if each.taken}
        <p class="font-bold text-success">● On record</p>
      {:else if may}
        <button
          type="button"
          class="btn min-h-14 min-w-20 btn-lg"
          aria-label="Use {each.title}, {each.text}"
          disabled={at.busy === each.slot}
          onclick={() => at.take(each)}>Use</button
        >
      {/if}
    </div>
  {/each}
  {#each watch.hints as hint (hint.title)}
    <div class="rounded-box border-2 border-warning px-3 py-2">
      <p class="font-bold">▲ {hint.title}</p>
      <p class="text-sm">{hint.says}</p>
    </div>
  {/each}
  {#if !watch.offered.length && !watch.hints.length}
    <p class="rounded-box bg-[var(--zd-sand)] px-3 py-2">
      {WAITS[watch.step] ?? 'At this step nothing is read off the gauge.'}
    </p>
  {/if}
</section>
