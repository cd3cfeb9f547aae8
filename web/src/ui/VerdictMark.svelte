<script lang="ts" module>
  export const VERDICTS: Record<string, { word: string; colour: string }> = {
    stop: { word: 'Stop', colour: 'text-error' },
    caution: { word: 'Caution', colour: 'text-warning' },
    cannot_tell: { word: 'Missing', colour: 'text-neutral' },
    pass: { word: 'OK', colour: 'text-success' },
    not_applicable: { word: 'Does not apply', colour: 'text-neutral' },
  }

  export type Judged = { verdict: string }
  /** How many findings have a verdict. */
  export const countOf = (findings: readonly Judged[], verdict: string): number =>
    findings.filter((finding) => finding.verdict === verdict).length
  /** The first of the worst that is wrong; nothing where nothing is. */
  export const worstOf = <T extends Judged>(findings: readonly T[]): T | undefined =>
    ['stop', 'caution']
      .flatMap((verdict) => findings.filter((finding) => finding.verdict === verdict))
      .at(0)
</script>

<script lang="ts">
  let { verdict, size = 14 }: { verdict: string; size?: number } = $props()
  const shown = $derived(VERDICTS[verdict] ?? VERDICTS.cannot_tell!)
</script>

<!-- A shape for each verdict, so that colour is never alone: square, triangle, open ring, disc, dash. -->
<svg
  width={size}
  height={size}
  viewBox="0 0 16 16"
  role="img"
  aria-label={shown.word}
  class="shrink-0 {shown.colour}"
>
  {#if verdict === 'stop'}
    <rect x="1.5" y="1.5" width="13" height="13" fill="currentColor" />
  {:else if verdict === 'caution'}
    <path d="M8 1 15.5 15H.5Z" fill="currentColor" />
  {:else if verdict === 'pass'}
    <circle cx="8" cy="8" r="6.5" fill="currentColor" />
  {:else if verdict === 'not_applicable'}
    <path d="M3 8h10" stroke="currentColor" stroke-width="2.5" />
  {:else}
    <circle
      cx="8"
      cy="8"
      r="5.5"
      fill="none"
      stroke="currentColor"
      stroke-width="2.5"
      stroke-dasharray="3 2"
    />
  {/if}
</svg>
