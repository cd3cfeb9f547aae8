<script lang="ts">
  import GaugePick from './GaugePick.svelte'
  import ReadFields from './ReadFields.svelte'
  import SlotStepper from './SlotStepper.svelte'
  import Stopwatch from './Stopwatch.svelte'
  import VisitTrouble from './VisitTrouble.svelte'
  import type { VisitState } from '../../domain/visit.svelte'

  /** The complaint and one whole cycle as found: before anything is switched off. */
  let { state: at }: { state: VisitState } = $props()
  const watch = $derived(at.view!.watch)
  const GAUGE = ['gauge.used', 'gauge.error', 'gauge.low']
  const seen = $derived(watch.read.filter((field) => !GAUGE.includes(field.slot)))
  const gauge = $derived(watch.read.filter((field) => GAUGE.includes(field.slot)))
  const complaint = $derived(at.value('complaint'))
</script>

<div class="grid gap-1" role="group" aria-label="Complaint">
  <span class="text-sm">What is complained of?</span>
  <div class="flex flex-wrap gap-2">
    {#each watch.complaints as each (each.id)}
      <button
        type="button"
        class="btn min-h-12 flex-1 basis-36 {complaint === each.id ? 'btn-primary' : ''}"
        aria-pressed={complaint === each.id}
        disabled={!at.open}
        onclick={() => at.put('complaint', each.id)}>{each.title}</button
      >
    {/each}
  </div>
</div>
{#if watch.explains}<p class="rounded-box border-2 border-warning px-3 py-2 text-sm">
    {watch.explains}
  </p>{/if}
<ol
  class="grid list-decimal gap-1 rounded-box bg-[var(--zd-sand)] py-3 pr-4 pl-9"
  data-testid="how"
>
  {#each watch.how as line (line)}<li>{line}</li>{/each}
</ol>
<Stopwatch
  state={at}
  name={`${at.id}.found`}
  slot="found.run"
  onrun={(run) => at.put('found.run', run)}
/>
<div class="grid gap-3">
  <ReadFields state={at} fields={seen} />
  {#if at.value('found.run') != null}
    <SlotStepper
      state={at}
      slot="found.run"
      title="Pump run as found"
      dimension="duration"
      note="By the stopwatch"
    />
  {/if}
</div>
<GaugePick state={at} reads="system" />
<details class="rounded-box border border-base-300 px-3">
  <summary class="flex min-h-12 cursor-pointer items-center text-sm underline underline-offset-4"
    >How far the gauge may be off</summary
  >
  <div class="grid gap-3 pb-3">
    <ReadFields state={at} fields={gauge} />
  </div>
</details>
<VisitTrouble state={at} />
