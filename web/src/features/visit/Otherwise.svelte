<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { turnWords, proposed, way } from '../../domain/turns'

  /** The turns as they really were, where they were not those proposed. */
  let {
    set,
    disabled,
    onturned,
  }: { set: Schemas['SetView']; disabled: boolean; onturned: (turns: number[]) => void } = $props()
  // By value: an answer that proposes the same must not undo what is being entered.
  const said = $derived(JSON.stringify(proposed(set)))
  let turns = $derived(JSON.parse(said) as number[])
  const least = $derived(set.finest < 0.1 ? 'a sixteenth' : 'an eighth')
</script>

<details class="rounded-box border border-base-300 px-3">
  <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
    >I turned otherwise</summary
  >
  <div class="grid gap-2 pb-3">
    {#each set.nuts as nut, at (nut.nut)}
      <div
        class="grid grid-cols-[4rem_1fr_4rem] items-center rounded-box border border-base-300 bg-base-100 text-center"
      >
        {#each [-1, 1] as by (by)}
          <button
            type="button"
            class="min-h-16 cursor-pointer rounded-box text-3xl text-accent {by < 0
              ? ''
              : 'order-last'}"
            aria-label="{nut.title}: {least} {by < 0 ? 'anticlockwise' : 'clockwise'}"
            {disabled}
            onclick={() =>
              (turns = turns.map((turn, each) => (each === at ? turn + by * set.finest : turn)))}
            >{by < 0 ? '↺' : '↻'}</button
          >
        {/each}
        <span>
          <span class="block text-sm">{nut.title}</span>
          <span class="figure turns text-2xl">{turnWords(Math.abs(turns[at]!))}</span>
          {way(turns[at]!)}
        </span>
      </div>
    {/each}
    <button type="button" class="btn min-h-14" {disabled} onclick={() => onturned(turns)}
      >Turned so</button
    >
  </div>
</details>
