<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import { parts, text } from '../../domain/units'
  import { across, arc, at, marks, TALL, WIDE } from './dial'

  /** The gauge to be read from afar: a short needle on the rim, so that the figure stays free; band, air and limits beside it. */
  let {
    dial,
    now,
    lost,
    over,
  }: {
    dial: Schemas['Dial']
    now: number | undefined
    lost: boolean
    over: boolean
  } = $props()
  const RIM = 300
  const most = $derived(dial.most_gauge_pa)
  const shown = $derived(now === undefined ? undefined : parts(now, 'pressure', preferences.units))
  const unit = $derived(parts(0, 'pressure', preferences.units).unit)
  const limit = $derived(dial.limits[0]?.gauge_pa)
  const air = $derived(dial.pre_charge_gauge_pa)
  const figure = $derived(
    shown === undefined ? '–' : unit === 'psi' ? Number(shown.number).toFixed(1) : shown.number,
  )
</script>

<svg viewBox="0 0 {WIDE} {TALL}" class="block w-full" role="img" aria-label="Pressure gauge">
  <path d={arc(0, most, most, RIM)} fill="none" stroke="var(--color-base-300)" stroke-width="17" />
  <path
    d={arc(dial.cut_in_gauge_pa, dial.cut_out_gauge_pa, most, RIM)}
    fill="none"
    stroke="var(--color-secondary)"
    stroke-width="17"
  />
  {#if limit !== undefined && limit < most}
    <path
      d={arc(limit, most, most, RIM)}
      fill="none"
      stroke="var(--color-error)"
      stroke-width="17"
      stroke-dasharray="14 5"
    />
  {/if}
  {#each marks(most, preferences.units) as mark (mark.pa)}
    <path
      d={across(mark.pa, most, RIM + 14, RIM + (mark.says ? 32 : 22))}
      stroke="var(--color-base-content)"
      stroke-width={mark.says ? 3.5 : 1.5}
    />
    {#if mark.says}
      {@const [x, y] = at(mark.pa, most, RIM + 54)}
      <text
        {x}
        y={y + 8}
        text-anchor="middle"
        class="figure text-[22px] max-sm:text-[34px]"
        fill="var(--color-neutral)">{mark.says}</text
      >
    {/if}
  {/each}
  {#if air !== null && air > 0}
    {@const [x, y] = at(air, most, RIM - 52)}
    <path d={across(air, most, RIM - 34, RIM + 8)} stroke="var(--color-accent)" stroke-width="6" />
    <text
      {x}
      y={y + 6}
      text-anchor={air < most / 2 ? 'start' : 'end'}
      class="text-[19px] max-sm:text-[30px]"
      fill="var(--color-accent)">air {parts(air, 'pressure', preferences.units).number}</text
    >
  {/if}
  {#if now !== undefined}
    <path
      data-testid="needle"
      d={across(now, most, RIM - 104, RIM - 4)}
      stroke={over ? 'var(--color-error)' : 'var(--color-base-content)'}
      stroke-width="10"
      stroke-linecap="round"
    />
  {/if}
  <text
    x={WIDE / 2}
    y="352"
    text-anchor="middle"
    class="figure text-[128px]"
    data-testid="pressure"
    fill={over ? 'var(--color-error)' : lost ? 'var(--color-neutral)' : 'var(--color-base-content)'}
    >{figure}</text
  >
  <text
    x={WIDE / 2}
    y="398"
    text-anchor="middle"
    class="text-[26px] max-sm:text-[36px]"
    fill="var(--color-neutral)">{unit}</text
  >
</svg>
<p class="sr-only" aria-live="off">
  Set for {text(dial.cut_in_gauge_pa, 'pressure', preferences.units)} to {text(
    dial.cut_out_gauge_pa,
    'pressure',
    preferences.units,
  )}
</p>
