<script lang="ts">
  import { isCounted, byClock } from './times'
  import type { RecordingState } from './recording.svelte'

  /** Each day as a strip of starts an hour; an hour that is pressed is looked at. */
  let { at }: { at: RecordingState } = $props()
  const days = $derived(at.told?.days.slice(-31) ?? [])
  const most = $derived(Math.max(1, ...days.flatMap((day) => day.starts)))
  const HOUR = 3600
  const WIDE = 960
  const TALL = 22
  const name = (from: number) =>
    isCounted(from)
      ? `Day ${Math.round(from / 86400) + 1}`
      : byClock(from, 'UTC', { weekday: 'short', day: 'numeric', month: 'short' })
  /** Days are told by the zone's clock; the line by the recording's times. */
  const zoned = $derived.by(() => {
    const zone = at.recording?.zone
    if (!zone || !days.length) return 0
    const probe = new Date(days[0]!.from_s * 1000)
    const there = new Date(probe.toLocaleString('en-US', { timeZone: zone })).getTime()
    const here = new Date(probe.toLocaleString('en-US', { timeZone: 'UTC' })).getTime()
    return (there - here) / 1000
  })
  const total = (starts: number[]) => starts.reduce((sum, each) => sum + each, 0)
</script>

<section aria-labelledby="strips">
  <h2 id="strips" class="mb-1 text-sm text-neutral">Starts an hour</h2>
  <div class="grid grid-cols-[auto_1fr_auto] items-center gap-x-2">
    {#each days as day (day.from_s)}
      <span class="text-sm whitespace-nowrap">{name(day.from_s)}</span>
      <svg
        viewBox="0 0 {WIDE} {TALL}"
        preserveAspectRatio="none"
        class="h-6 w-full"
        aria-hidden="true"
      >
        <path d="M0 {TALL - 0.5}H{WIDE}" stroke="var(--color-base-300)" />
        {#each day.starts as count, hour (hour)}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <rect
            x={(hour * WIDE) / 24}
            y="0"
            width={WIDE / 24}
            height={TALL}
            fill="transparent"
            class="cursor-pointer"
            onclick={() => {
              const from = day.from_s + hour * HOUR - zoned
              at.look(from, from + HOUR)
            }}
          />
          <rect
            x={(hour * WIDE) / 24 + 4}
            y={TALL - (count / most) * TALL}
            width={WIDE / 24 - 8}
            height={(count / most) * TALL}
            fill="var(--color-secondary)"
            class="pointer-events-none"
          />
        {/each}
      </svg>
      <span class="figure text-right text-sm">{total(day.starts)}</span>
    {/each}
    <span></span>
    <div class="flex justify-between text-sm text-neutral">
      {#each ['0:00', '6:00', '12:00', '18:00', '24:00'] as hour (hour)}<span>{hour}</span>{/each}
    </div>
    <span class="text-right text-sm text-neutral">a day</span>
  </div>
  <details>
    <summary class="min-h-12 cursor-pointer py-3 text-sm">As a table</summary>
    <div class="overflow-x-auto">
      <table class="table">
        <thead
          ><tr
            ><th>Day</th><th class="text-right">Starts</th><th class="text-right">Pump ran</th><th
              >Busiest hour</th
            ></tr
          ></thead
        >
        <tbody>
          {#each days as day (day.from_s)}
            {@const busiest = day.starts.indexOf(Math.max(...day.starts))}
            <tr>
              <td>{name(day.from_s)}</td>
              <td class="figure text-right">{total(day.starts)}</td>
              <td class="figure text-right">{Math.round(day.run_s / 60)} min</td>
              <td>{busiest}:00, {day.starts[busiest]} starts</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </details>
</section>
