<script lang="ts">
  import type { VisitState } from '../../domain/visit.svelte'

  /** How power stands, by what was confirmed last. */
  let { state: at }: { state: VisitState } = $props()
  const WORDS = {
    unknown: ['▲', 'Power: not confirmed off', 'border-warning'],
    off: ['●', 'Power off, proved dead', 'border-success'],
    on: ['▲', 'Power on', 'border-warning'],
  }
  const [mark, word, border] = $derived(WORDS[at.standing.power])
</script>

<p
  role="status"
  class="flex items-center gap-2 rounded-box border-2 px-4 py-2 font-bold {border}"
  data-testid="power"
>
  <span aria-hidden="true">{mark}</span>{word}
</p>
