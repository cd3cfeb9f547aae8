<script lang="ts">
  /** A small line of the pressure, as a symptom draws it: time to the right, pressure up. */
  let { of }: { of: string } = $props()
  const LINES: Record<string, string> = {
    sawtooth: 'M1 20 L6 4 L11 20 L16 4 L21 20 L26 4 L31 20 L36 4 L41 20 L46 4 L51 20 L55 6',
    breath: 'M1 8 L16 12 L17 21 L20 21 L21 9 L30 5 L44 12 L45 21 L48 21 L49 9 L55 7',
    creep: 'M1 5 L24 17 L30 5 L53 16 L55 14',
    never: 'M1 20 C14 9 26 8 55 7.5',
    flat: 'M1 16 L12 18 L24 17 L40 18.5 L55 18',
    still: 'M1 6 L16 17 L22 20 L55 20',
    over: 'M1 18 L20 10 L36 5 L55 1.5',
    wander: 'M1 18 L9 5 L17 16 L26 8 L33 19 L43 3 L50 14 L55 7',
  }
</script>

<svg width="56" height="24" viewBox="0 0 56 24" aria-hidden="true" class="shrink-0">
  <path d="M1 12 H55" stroke="currentColor" stroke-opacity="0.25" stroke-dasharray="2 3" />
  <path
    d={LINES[of] ?? LINES.flat}
    fill="none"
    stroke="var(--color-secondary)"
    stroke-width="2.2"
    stroke-linejoin="round"
    stroke-linecap="round"
  />
</svg>
