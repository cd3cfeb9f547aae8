<script lang="ts">
  import { soundAlarm } from '../../ui/alarm'
  import { typing } from '../../ui/typing'
  import type { VisitState } from '../../domain/visit.svelte'
  import { holdWatch, readWatch, type Watch } from '../../domain/stopwatch'

  /** Click to click: one big button, or Space. It keeps going when the page is closed; laps are kept as they end. */
  let {
    state: at,
    name,
    slot,
    onrun,
  }: {
    state: VisitState
    /** Under which it is held on this device. */
    name: string
    slot: 'lap' | 'found.run'
    onrun: (run_s: number, rest_s: number | null) => unknown
  } = $props()
  let watch = $derived<Watch | undefined>(readWatch(name))
  let now = $state(Date.now())

  $effect(() => {
    if (!watch) return
    const timer = setInterval(() => (now = Date.now()), 100)
    return () => clearInterval(timer)
  })
  function hold(next: Watch | undefined) {
    watch = next
    now = Date.now()
    holdWatch(name, next)
  }
  const seconds = $derived(watch ? Math.max(now - watch.since, 0) / 1000 : 0)
  const judged = $derived(at.view!.prove.watch)
  const alarm = $derived(!!watch?.running && seconds >= judged.alarm_s)
  let short = $state(false)
  $effect(() => {
    if (alarm) soundAlarm()
  })
  const shown = $derived(
    `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`,
  )

  function press() {
    const since = Date.now()
    const passed = watch ? Math.round((since - watch.since) / 100) / 10 : null
    short = !!watch?.running && judged.wanted_s != null && passed! < judged.wanted_s
    if (watch?.running) {
      void onrun(passed!, watch.rest)
      hold({ running: false, since, rest: null })
    } else hold({ running: true, since, rest: passed })
  }
  function key(event: KeyboardEvent) {
    const control =
      event.target instanceof HTMLElement && event.target.closest('button, a, summary')
    if (event.code !== 'Space' || event.repeat || typing(event) || control || !at.open) return
    event.preventDefault()
    press()
  }
</script>

<svelte:window onkeydown={key} />
<button
  type="button"
  class="btn h-36 w-full flex-col text-xl {watch?.running ? 'btn-secondary' : 'btn-primary'}"
  disabled={!at.open}
  data-testid="stopwatch"
  onclick={press}
>
  <span class="figure text-5xl">{shown}</span>
  {watch?.running
    ? 'Running: press when it clicks off'
    : watch
      ? 'Resting: press when it clicks on'
      : 'Press when it clicks on'}
</button>
{#if alarm}
  <p role="alert" class="rounded-box border-2 border-error px-4 py-3 text-2xl font-bold text-error">
    {judged.alarm_says}
  </p>
{:else if short}
  <p role="alert" class="rounded-box border-2 border-warning px-4 py-3 text-xl font-bold">
    ▲ {judged.short_says}
  </p>
{/if}
{#if watch}
  <button type="button" class="btn min-h-12 btn-ghost" onclick={() => hold(undefined)}
    >Stop the watch; laps stay</button
  >
{/if}
{#each at.faultsAt(slot) as fault (fault.message)}<p class="text-sm text-error">
    {fault.message}
  </p>{/each}
