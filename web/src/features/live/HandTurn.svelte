<script lang="ts">
  import { turnWords } from '../../domain/turns'

  /** A nut or a screw of a stand-in: how far it was turned, and two buttons to turn it by a part of a turn. */
  let {
    title,
    of,
    turns,
    by,
    part,
    onturn,
  }: {
    title: string
    of: string
    turns: number
    by: number
    /** What one press is called. */
    part: string
    onturn: (turns: number) => void
  } = $props()
  const MOST = 8
</script>

<div class="flex items-center gap-2">
  <span class="flex-1"
    >{title}: <span class="turns">{turns ? turnWords(turns) : 'as found'}</span></span
  >
  {#each [[-by, 'back', '↺'], [by, 'on', '↻']] as const as [step, word, sign] (word)}
    <button
      type="button"
      class="btn min-h-12 min-w-14"
      aria-label="{title} of {of} {part} {word}"
      disabled={Math.abs(turns + step) > MOST}
      onclick={() => onturn(turns + step)}>{sign}</button
    >
  {/each}
</div>
