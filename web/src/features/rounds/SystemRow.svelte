<script lang="ts">
  import type { Schemas } from '../../api/client'
  import BandGlyph from '../../charts/BandGlyph.svelte'
  import VerdictMark from '../../ui/VerdictMark.svelte'
  import { KIND_WORDS } from '../../domain/plates'
  import { preferences } from '../../domain/preferences.svelte'
  import { parts } from '../../domain/units'
  import { dueWords, type Row } from './rounds'

  /** One system on the round: its glyph, what is wrong, when it is due, and the two ways in. */
  let { row, dated, onvisit }: { row: Row; dated: boolean; onvisit: () => void } = $props()
  const seen = $derived(row.system.summary)
  const drifting = $derived(row.nextCheck?.drifting[preferences.units] ?? [])
  const left = $derived(row.nextCheck?.seen[preferences.units] ?? [])
  const pressure = (pa: number) => parts(pa, 'pressure', preferences.units).number
  const unit = $derived(parts(0, 'pressure', preferences.units).unit)

  function remains(summary: Schemas['SystemSummary']): string {
    const counted: [number, string][] = [
      [summary.stops, summary.stops === 1 ? 'stop' : 'stops'],
      [summary.cautions, summary.cautions === 1 ? 'caution' : 'cautions'],
      [summary.unread, 'missing'],
    ]
    return counted.flatMap(([count, word]) => (count ? [`${count} ${word}`] : [])).join(' · ')
  }
</script>

<li class="flex items-stretch rounded-box border border-base-300 bg-base-100">
  <a
    href="/systems/{row.system.id}"
    class="flex min-h-24 min-w-0 flex-1 items-center gap-3 px-3 py-2"
  >
    <BandGlyph summary={seen} />
    <VerdictMark verdict={seen.verdict} size={18} />
    <span class="grid min-w-0 flex-1 gap-0.5">
      <span class="text-lg leading-snug font-bold">{row.system.name}</span>
      <span class="text-sm">{seen.headline[preferences.units]}</span>
      {#each drifting as line (line)}<span class="text-sm">▲ {line}</span>{/each}
      {#if row.nextCheck?.may_be_out}<span class="text-sm font-bold"
          >▲ Its air may be out of its band now</span
        >{/if}
      {#if left.length}<span class="text-sm" data-testid="left"
          >Left at the last visit: {left.map((each) => each.title).join('; ')}</span
        >{/if}
      <span class="text-sm text-neutral"
        >{[dated ? row.site : '', KIND_WORDS[seen.kind], remains(seen), dueWords(row.nextCheck)]
          .filter(Boolean)
          .join(' · ')}</span
      >
      <span class="text-sm sm:hidden"
        ><span class="figure"
          >{pressure(seen.cut_in_gauge_pa)}/{pressure(seen.cut_out_gauge_pa)}</span
        >
        {unit}{seen.pre_charge_gauge_pa == null
          ? ''
          : `, air ${pressure(seen.pre_charge_gauge_pa)}`}</span
      >
    </span>
    <span class="hidden text-right sm:block">
      <span class="figure text-2xl"
        >{pressure(seen.cut_in_gauge_pa)}/{pressure(seen.cut_out_gauge_pa)}</span
      >
      <span class="text-sm">{unit}</span>
      {#if seen.pre_charge_gauge_pa != null}
        <span class="block text-sm text-neutral"
          >air {pressure(seen.pre_charge_gauge_pa)} {unit}</span
        >
      {/if}
    </span>
  </a>
  <div class="flex w-20 flex-col border-l border-base-300 sm:w-28">
    <button
      type="button"
      class="min-h-12 flex-1 cursor-pointer font-bold text-accent"
      aria-label="{row.open ? 'Go on with the visit' : 'Visit'}, {row.system.name}"
      onclick={onvisit}>{row.open ? 'Go on' : 'Visit'}</button
    >
    <a
      href="/systems/{row.system.id}/decide"
      class="grid min-h-12 flex-1 place-items-center border-t border-base-300"
      aria-label="Decide, {row.system.name}">Decide</a
    >
  </div>
</li>
