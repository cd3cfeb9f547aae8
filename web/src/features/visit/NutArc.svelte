<script lang="ts">
  import { turnWords } from '../../domain/turns'

  /** The turn drawn as an arc round the nut: which way, how far. */
  let { turns }: { turns: number } = $props()
  const share = $derived(Math.min(Math.abs(turns), 1))
  const way = $derived(turns >= 0 ? 1 : -1)
  const R = 42
  const at = (part: number) => {
    const angle = -Math.PI / 2 + way * part * 2 * Math.PI
    return [60 + R * Math.cos(angle), 60 + R * Math.sin(angle)] as const
  }
  const arc = $derived.by(() => {
    const [x, y] = at(Math.min(share, 0.999))
    return `M60 18A${R} ${R} 0 ${share > 0.5 ? 1 : 0} ${way > 0 ? 1 : 0} ${x.toFixed(1)} ${y.toFixed(1)}`
  })
  const tip = $derived.by(() => {
    const [x, y] = at(Math.min(share, 0.999))
    const angle = Math.min(share, 0.999) * 360 * way
    return `translate(${x.toFixed(1)} ${y.toFixed(1)}) rotate(${(angle + (way > 0 ? 0 : 180)).toFixed(0)})`
  })
</script>

<svg width="112" height="112" viewBox="0 0 120 120" aria-hidden="true" class="shrink-0">
  <circle cx="60" cy="60" r={R} fill="none" stroke="var(--color-base-300)" stroke-width="10" />
  <path d={arc} fill="none" stroke="var(--color-accent)" stroke-width="10" />
  <path d="M-4 -13L13 0L-4 13Z" transform={tip} fill="var(--color-accent)" />
  <path d="M60 36L81 48V72L60 84L39 72V48Z" fill="var(--color-accent)" />
  <circle cx="60" cy="60" r="10" fill="var(--color-base-100)" />
  {#if Math.abs(turns) > 1}
    <text
      x="60"
      y="116"
      text-anchor="middle"
      class="figure turns text-[15px]"
      fill="var(--color-base-content)">× {turnWords(Math.abs(turns))}</text
    >
  {/if}
</svg>
