<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { dayOn } from '../../domain/dates'
  import { percent, type Told } from '../../domain/units'
  import { fine } from './fine'

  /** How a calibration stands: each point as found and as left, what is said of it, and when the next is due. */
  let {
    judged,
    names,
    grain,
    units,
    adjusted,
  }: {
    judged: Schemas['Judgement']
    names: string[]
    grain: number
    units: Told
    adjusted: boolean
  } = $props()
  const SHAPES: Record<string, [string, string]> = {
    danger: ['■', 'text-error'],
    warning: ['▲', 'text-warning'],
    notice: ['▲', 'text-warning'],
    good: ['●', 'text-success'],
  }
  const DUE_BY: Record<string, string> = {
    interval: ', by its interval',
    drift: ', before drift may bring it out',
    failed: ', at once: it is out of tolerance',
  }
  const phases = $derived(
    adjusted
      ? ([
          ['As found', judged.found],
          ['As left', judged.left],
        ] as const)
      : ([['As found and left', judged.left]] as const),
  )
  const pressure = (pa: number) => fine(pa, grain / 5, units)
</script>

<section aria-labelledby="judged" class="grid gap-3">
  <h2 id="judged" class="text-xl font-bold">{judged.left_says}</h2>
  {#each judged.says as said (said.title + said.text)}
    <div>
      <p class="font-bold">
        <span class={SHAPES[said.weight]![1]} aria-hidden="true">{SHAPES[said.weight]![0]}</span>
        {said.title}
      </p>
      <p class="text-sm">{said.text}</p>
    </div>
  {/each}
  {#each phases as [phase, points] (phase)}
    <table class="table table-sm">
      <caption class="text-left text-sm font-bold">{phase}</caption>
      <thead>
        <tr
          ><th>Point</th><th class="text-right">Error</th><th class="text-right">±</th><th
            class="text-right">Within</th
          ></tr
        >
      </thead>
      <tbody>
        {#each points as point (point.at)}
          <tr>
            <td
              >{names[point.at]}<span class="block text-xs"
                >{point.runs} {point.runs === 1 ? 'run' : 'runs'}</span
              ></td
            >
            <td class="figure px-1 text-right whitespace-nowrap">{pressure(point.error_pa)}</td>
            <td class="figure px-1 text-right whitespace-nowrap"
              >{pressure(point.budget.expanded_pa)}</td
            >
            <td class="text-right text-sm"
              >{point.verdict === 'open' ? '' : percent(point.inside)}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/each}
  {#if judged.left_verdict !== 'open'}<p class="text-sm">
      Next due {dayOn(judged.next_due.on)}{DUE_BY[judged.next_due.by]}.
    </p>{/if}
  <details>
    <summary class="min-h-12 cursor-pointer py-3 text-sm">How it is decided</summary>
    <p class="text-sm">{judged.rule}</p>
    {#each judged.left as point (point.at)}
      <p class="mt-2 text-sm font-bold">{names[point.at]}: what it may be off by</p>
      <ul class="text-sm">
        {#each point.budget.components as part (part.title)}
          <li class="flex justify-between gap-3">
            <span>{part.title}</span><span class="figure">{pressure(part.standard_pa)}</span>
          </li>
        {/each}
        <li class="flex justify-between gap-3 font-bold">
          <span>Together, 95 %</span><span class="figure">{pressure(point.budget.expanded_pa)}</span
          >
        </li>
      </ul>
    {/each}
  </details>
</section>
