<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { text, type Dimension } from '../../domain/units'
  import type { Figure, Told, Within } from './recording.svelte'

  /** What the line says: what stands out, the figures with their intervals, and the one reading that would settle the rest. */
  let { told }: { told: Told } = $props()
  const SIGNS: Record<string, { sign: string; colour: string }> = {
    danger: { sign: '■', colour: 'text-error' },
    warning: { sign: '▲', colour: 'text-warning' },
    notice: { sign: '○', colour: 'text-neutral' },
    good: { sign: '●', colour: 'text-success' },
  }
  const shown = (value: number, dimension: Dimension) => text(value, dimension, preferences.units)
  const bare = (value: number, dimension: Dimension) => shown(value, dimension).split(' ')[0]
  type Ends = { least: number; most: number }
  type Row = { title: string; value: string; note: string; between: string }
  function row(title: string, value: number, dimension: Dimension, note: string, of?: Ends): Row {
    const between = of ? `${bare(of.least, dimension)} to ${bare(of.most, dimension)}` : ''
    return { title, value: shown(value, dimension), note, between }
  }
  const figure = (title: string, of: Figure | null, dimension: Dimension) =>
    of ? [row(title, of.usual, dimension, `${of.cycles} times`, of)] : []
  const within = (title: string, of: Within | null | undefined, dimension: Dimension) =>
    of ? [row(title, of.value, dimension, 'fitted to the line', of)] : []
  const starts = $derived(told.days.map((day) => day.starts.reduce((sum, each) => sum + each, 0)))
  const largest = $derived(Math.max(0, ...told.draws.map((each) => each.volume_m3 ?? 0)))
  const drawn = $derived<Row[]>(
    told.draws.length
      ? [
          {
            title: largest ? 'Largest draw' : 'Draws',
            value: largest ? shown(largest, 'volume') : String(told.draws.length),
            note: largest ? `of ${told.draws.length} seen` : 'their size needs the air',
            between: '',
          },
        ]
      : [],
  )
  const rows = $derived<Row[]>([
    ...figure('Cut-in', told.points.cut_in, 'pressure'),
    ...(told.empties && !told.points.cut_in
      ? [
          {
            ...row('Cut-in', told.empties.from_pa, 'pressure', 'not seen: the tank is empty there'),
            value: `below ${shown(told.empties.from_pa, 'pressure')}`,
          },
        ]
      : []),
    ...figure('Cut-out', told.points.cut_out, 'pressure'),
    ...figure('Run', told.run, 'duration'),
    ...figure('Rest', told.rest, 'duration'),
    ...within('Pre-charge', told.plates?.pre_charge_gauge_pa, 'pressure'),
    ...within('Tank', told.plates?.volume_m3, 'volume'),
    ...within('Pump, at mid-band', told.plates?.flow_m3_s, 'flow'),
    ...(told.knee
      ? [row('Knee of a drain', told.knee.gauge_pa, 'pressure', 'the pre-charge')]
      : []),
    ...(told.leak?.is_there && told.leak.flow_m3_s != null
      ? [row('Leak', told.leak.flow_m3_s, 'flow', `${told.leak.windows} quiet times`)]
      : []),
    ...drawn,
    ...(starts.length
      ? [
          {
            title: 'Starts, most in a day',
            value: String(Math.max(...starts)),
            note: '',
            between: '',
          },
        ]
      : []),
  ])
</script>

<div class="grid gap-4">
  <ul class="grid gap-3">
    {#each told.says as each (each.title + each.text)}
      <li>
        <p class="text-lg font-bold">
          <span class={SIGNS[each.weight]?.colour}>{SIGNS[each.weight]?.sign}</span>
          {each.title}
        </p>
        <p>{each.text}</p>
      </li>
    {/each}
  </ul>
  <section aria-labelledby="figures">
    <h2 id="figures" class="font-bold">What the line says</h2>
    <dl>
      {#each rows as row (row.title)}
        <div class="grid grid-cols-[1fr_auto] gap-x-3 border-t border-base-300 py-1.5">
          <dt>{row.title}</dt>
          <dd class="figure text-right text-lg">{row.value}</dd>
          <dd class="text-sm text-neutral">{row.note}</dd>
          <dd class="text-right text-sm text-neutral">{row.between}</dd>
        </div>
      {/each}
    </dl>
  </section>
  {#if told.plates?.settles_by}
    <div class="rounded-box bg-(--zd-sand) px-3 py-2">
      <p class="font-bold">
        {told.plates.settles_all ? 'One reading would settle it' : 'This would tell most'}
      </p>
      <p>
        {told.plates.settles_by}
        {#if told.plates.then_pre_charge}
          Then the pre-charge is known to ±{bare(
            (told.plates.then_pre_charge.most - told.plates.then_pre_charge.least) / 2,
            'pressure',
          )}
          {shown(0, 'pressure').split(' ')[1]}.
        {/if}
      </p>
    </div>
  {/if}
  {#if told.not_sure.length || told.faults.length}
    <details>
      <summary class="min-h-12 cursor-pointer py-3 font-bold"
        >Not sure, and faults of the recording</summary
      >
      <ul class="grid gap-1 text-sm">
        {#each told.not_sure as each (each)}<li>{each}</li>{/each}
        {#each told.faults as each (each.id)}<li>
            <b>{each.title}.</b>
            {each.text}
          </li>{/each}
      </ul>
    </details>
  {/if}
</div>
