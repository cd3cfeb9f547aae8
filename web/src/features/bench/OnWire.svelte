<script lang="ts">
  import { onDestroy } from 'svelte'
  import type { Schemas } from '../../api/client'
  import { fine } from './fine'
  import type { Told } from '../../domain/units'
  import type { WireState } from './wire.svelte'

  /** The reference on the wire while a point is approached: what it shows, how fast that moves, how the contact stands. */
  let {
    wire,
    grain,
    units,
    told,
    contact,
    onacted,
  }: {
    wire: WireState
    grain: number
    units: Told
    told: NonNullable<Schemas['Next']['instruction']>
    contact: boolean
    onacted: (gauge_pa: number, rate_pa_s: number) => void
  } = $props()
  // svelte-ignore state_referenced_locally
  void wire.begin()
  onDestroy(() => wire.stop())
  /** An approach is slow from its beginning on; before that, anybody pumps fast. */
  const begun = $derived(
    told.from_pa == null ||
      ((wire.now ?? 0) - told.from_pa) * ((told.expected_pa ?? 0) - told.from_pa) >= 0,
  )
  const fast = $derived(begun && told.most_pa_s != null && Math.abs(wire.rate) > told.most_pa_s)
  const rate = $derived(fine(wire.rate, grain, units))
</script>

<div class="grid gap-2 rounded-box border border-base-300 bg-base-100 p-3" data-testid="wire">
  {#if wire.problem}
    <p role="alert" class="text-error">
      {wire.problem.title}. {wire.problem.faults.map((each) => each.message).join(' ') ||
        wire.problem.detail}
    </p>
  {:else if wire.now === undefined}
    <p class="text-lg">▲ {wire.lost || 'Waiting for the gauge…'}</p>
  {:else}
    <div class="flex flex-wrap items-baseline gap-x-6">
      <span class="figure text-5xl">{fine(wire.now, grain, units)}</span>
      <span class="text-lg"
        ><span class="figure">{wire.rate > 0 ? '+' : ''}{rate}</span> a second{#if fast}<strong
            class="ml-2 text-error">▲ too fast to read</strong
          >{/if}</span
      >
    </div>
    {#if contact}
      <p class="text-lg">
        Contact <strong>{wire.closed ? '● closed' : '○ open'}</strong>
        <span class="text-sm">The reading is taken when it changes.</span>
      </p>
    {:else}
      <button
        type="button"
        class="btn min-h-16 btn-lg btn-primary"
        onclick={() => onacted(wire.now!, Math.abs(wire.rate))}>It changed now</button
      >
    {/if}
  {/if}
  <p class="text-sm text-neutral">{wire.name}</p>
</div>
