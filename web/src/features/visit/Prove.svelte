<script lang="ts">
  import VerdictMark from '../../ui/VerdictMark.svelte'
  import { preferences } from '../../domain/preferences.svelte'
  import { text, type Dimension } from '../../domain/units'
  import BucketTest from './BucketTest.svelte'
  import DrainSeries from './DrainSeries.svelte'
  import Laps from './Laps.svelte'
  import LeakWatch from './LeakWatch.svelte'
  import Stopwatch from './Stopwatch.svelte'
  import type { VisitState } from '../../domain/visit.svelte'
  import VisitTrouble from './VisitTrouble.svelte'
  import YesNo from '../../ui/YesNo.svelte'

  /** Runs timed, then predicted beside measured, and what a difference means. */
  let { state: at }: { state: VisitState } = $props()
  const prove = $derived(at.view!.prove)
  const say = (value: number | null | undefined, dimension: Dimension) =>
    value == null ? '–' : text(value, dimension, preferences.units)
  const MARKS: Record<string, string> = { true: 'pass', false: 'caution', null: 'cannot_tell' }
</script>

<Stopwatch
  state={at}
  name={at.id}
  slot="lap"
  onrun={(run_s, rest_s) => at.add('lap', { run_s, rest_s })}
/>
<Laps state={at} />
{#if prove.measured.length}
  <ul class="grid gap-2" data-testid="measured">
    {#each prove.measured as each, index (index)}
      <li
        class="grid grid-cols-[auto_1fr_auto] items-start gap-x-3 rounded-box border border-base-300 bg-base-100 px-3 py-2"
      >
        <span class="pt-1"><VerdictMark verdict={MARKS[String(each.agrees ?? null)]!} /></span>
        <span>
          <span class="block font-bold">{each.title}</span>
          <span class="block text-sm">{each.says}</span>
        </span>
        <span class="text-right">
          <span class="figure block text-xl">{say(each.measured, each.dimension)}</span>
          {#if each.predicted != null && each.id !== 'leak'}
            <span class="block text-sm text-neutral"
              >predicted {say(each.predicted, each.dimension)}</span
            >
          {/if}
        </span>
      </li>
    {/each}
  </ul>
{/if}
<VisitTrouble state={at} />
<YesNo
  title="Dip seen at the taps"
  value={at.value('prove.dip')}
  disabled={!at.open}
  onset={(flag) => at.put('prove.dip', flag)}
/>
{#if prove.tests.includes('bucket')}<BucketTest state={at} />{/if}
{#if prove.tests.includes('drain')}<DrainSeries state={at} />{/if}
{#if prove.tests.includes('leak')}<LeakWatch state={at} />{/if}
