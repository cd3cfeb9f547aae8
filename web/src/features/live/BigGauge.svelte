<script lang="ts">
  import { untrack } from 'svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import { soundAlarm } from '../../ui/alarm'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import { STEPS, VisitState } from '../../domain/visit.svelte'
  import { route } from '../../router'
  import Dial from './Dial.svelte'
  import { passed } from './dial'
  import { LiveState } from './live.svelte'
  import Seen from './Seen.svelte'
  import Strip from './Strip.svelte'

  /** A gauge on the wire beside a visit: read from afar, and filling in the work. */
  const id = $derived((route.params as { id: string }).id)
  const visit = $derived(new VisitState(id))
  const at = $derived(new LiveState(id))
  const watch = $derived(at.watch)
  const may = $derived(visit.open && at.open)
  const over = $derived(watch && passed(watch.dial, at.now))
  const limit = $derived(watch?.dial.limits[0])
  const BEEP_MS = 1000
  let quiet = $state(false)
  let clock = $state(0)

  $effect(() => {
    void preferences.units
    const [one, other] = [visit, at]
    untrack(() => void Promise.all([one.load(), other.load()]))
    return () => other.stop()
  })
  $effect(() => {
    if (!over || quiet) return
    untrack(soundAlarm)
    const timer = setInterval(soundAlarm, BEEP_MS)
    return () => clearInterval(timer)
  })
  $effect(() => {
    const timer = setInterval(() => clock++, 500)
    return () => clearInterval(timer)
  })
  const PUMP = { runs: 'Pump runs', rests: 'Pump rests', unknown: 'Watching' } as const
  const says = $derived.by(() => {
    void clock
    if (!watch) return ''
    const seconds = watch.since_s ? at.latest - watch.since_s : 0
    const time = seconds > 0 ? ` · ${text(seconds, 'duration', preferences.units)}` : ''
    return PUMP[watch.pump] + time
  })
  const title = $derived(watch ? visit.view?.rail[STEPS.indexOf(watch.step)]?.title : '')
</script>

<svelte:head><title>Big gauge · Zero Dip</title></svelte:head>
<TopBar>
  {#snippet crumbs()}
    {#if visit.visit}{visit.visit.system.name} ›
      <a class="font-bold underline-offset-4 hover:underline" href="/visits/{id}">Visit</a> › Big gauge{/if}
  {/snippet}
</TopBar>
{#if !at.loaded}
  <p class="p-6 text-neutral">Looking for the gauge…</p>
{:else if watch && (at.open || watch.recording)}
  <main class="grid gap-4 px-4 py-3 lg:grid-cols-[minmax(0,1fr)_380px]">
    <div class="grid min-w-0 content-start gap-2">
      <h1 class="sr-only">Big gauge</h1>
      {#if over}
        <p
          role="alert"
          class="rounded-box bg-error px-4 py-2 text-2xl font-bold text-error-content"
        >
          ■ Over {over.title}, {text(over.gauge_pa, 'pressure', preferences.units)}. Stop the pump.
        </p>
      {:else if at.open && at.lost}
        <p
          role="alert"
          class="rounded-box border-2 border-warning px-4 py-2 text-xl font-bold"
          data-testid="lost"
        >
          ▲ Gauge lost. {at.lost}
        </p>
      {/if}
      <div class="mx-auto w-full max-w-[min(100%,98dvh)]">
        <Dial
          dial={watch.dial}
          now={at.open ? at.now : undefined}
          lost={at.lost !== ''}
          over={over !== undefined}
        />
        <p class="text-center text-2xl font-bold text-secondary" data-testid="pump">
          {at.open ? (at.lost ? 'No reading' : says) : 'No longer watched'}
        </p>
      </div>
      <Strip {at} />
    </div>
    <aside class="grid content-start gap-3">
      <p class="text-sm text-neutral">
        {watch.gauge_name} · ± {text(watch.error_pa, 'pressure', preferences.units)} · visit at
        <a class="font-bold underline underline-offset-4" href="/visits/{id}">{title ?? 'Visit'}</a>
      </p>
      {#if at.open}<Seen {at} {may} />{/if}
      {#if at.problem}<p role="alert" class="text-error">
          {at.problem.title}. {at.problem.detail}
          {at.problem.faults.map((fault) => fault.message).join(' ')}
        </p>{/if}
      {#if at.open && limit}
        <button
          type="button"
          class="btn min-h-14 btn-lg"
          aria-pressed={!quiet}
          onclick={() => (quiet = !quiet)}
          >Alarm over {text(limit.gauge_pa, 'pressure', preferences.units)}, {limit.title}:
          {quiet ? 'silent' : 'on'}</button
        >
      {:else if at.open}
        <p class="rounded-box border-2 border-warning px-3 py-2 text-sm">
          ▲ No limit was read on this system, so nothing sounds. Watch the gauge yourself.
        </p>
      {/if}
      <a class="btn min-h-14 btn-lg btn-primary" href="/visits/{id}">Back to the visit</a>
      {#if may}
        <button type="button" class="btn min-h-12" onclick={() => at.end()}
          >Stop watching, keep the recording</button
        >
      {/if}
      {#if watch.recording}
        <a class="btn min-h-12" href="/recordings/{watch.recording}">Open its recording</a>
      {/if}
      {#if !at.open && visit.open && at.gauges.some((each) => each.id === watch.gauge)}
        <button type="button" class="btn min-h-12" onclick={() => at.begin(watch.gauge)}
          >Watch it again</button
        >
      {/if}
    </aside>
  </main>
{:else}
  <main class="mx-auto grid max-w-2xl content-start gap-4 px-4 py-4">
    <h1 class="text-2xl font-bold">Big gauge</h1>
    {#if watch}<p role="status">Watched until now. Its recording is being made.</p>{/if}
    {#if at.problem}<p role="alert" class="text-error">
        {at.problem.title}. {at.problem.detail}
        {at.problem.faults.map((fault) => fault.message).join(' ')}
      </p>{/if}
    {#if visit.open && at.gauges.length}
      <p>Which gauge hangs on this system?</p>
      <div class="grid gap-2">
        {#each at.gauges as gauge (gauge.id)}
          <button
            type="button"
            class="btn h-auto min-h-14 justify-start btn-lg"
            onclick={() => at.begin(gauge.id)}>{gauge.gauge.name}</button
          >
        {/each}
      </div>
    {:else if !at.gauges.length}
      <p>
        No gauge of this workspace is on the wire. Add one on <a
          class="underline underline-offset-4"
          href="/workspace">Workspace</a
        >.
      </p>
    {/if}
    <p class="text-sm text-neutral">
      The server reads the gauge by its network. A phone in a pit without that network shows nothing
      here: read the gauge by eye.
    </p>
    <a class="btn min-h-12" href="/visits/{id}">Back to the visit</a>
  </main>
{/if}
