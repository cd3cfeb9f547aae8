<script lang="ts">
  import { api, outcome, type Schemas } from '../../api/client'
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import type { VisitState } from '../../domain/visit.svelte'

  /** Which of the crew's gauges is used: its name, what it may be off by here, and what it shows too little by are entered at once. */
  let { state: at, reads }: { state: VisitState; reads: 'system' | 'air' } = $props()
  type Gauge = Schemas['GaugeOut']
  let gauges = $state.raw<Gauge[]>([])
  $effect(() => {
    const path = { visit_id: at.id }
    void outcome(api.GET('/api/visits/{visit_id}/gauges', { params: { path } })).then(
      ({ data }) => {
        // Gauges on the wire are used from the big gauge.
        if (data)
          gauges = data.filter(
            (each) => !each.wire && (each.gauge.reads === 'air') === (reads === 'air'),
          )
      },
    )
  })
  const used = $derived(at.value('gauge.used'))
  const LATE = {
    never: 'never checked',
    overdue: 'its check is overdue',
    soon: '',
    good: '',
  } as const

  async function use(gauge: Gauge) {
    const low = Number(gauge.gauge.low_pa)
    if (gauge.gauge.reads === 'air') return at.put('gauge.air_low', low)
    void at.put('gauge.used', gauge.gauge.name)
    void at.put('gauge.error', gauge.error_pa)
    return at.put('gauge.low', low)
  }
</script>

{#if gauges.length && at.open}
  <div class="grid gap-1" role="group" aria-label="Gauges of the crew">
    <span class="text-sm">{reads === 'air' ? 'Our air gauges' : 'Our gauges'}</span>
    <div class="flex flex-wrap gap-2">
      {#each gauges as gauge (gauge.id)}
        <button
          type="button"
          class="btn h-auto min-h-12 flex-1 basis-40 flex-col gap-0 py-1 {used === gauge.gauge.name
            ? 'btn-primary'
            : ''}"
          aria-pressed={used === gauge.gauge.name}
          onclick={() => use(gauge)}
        >
          <span>{gauge.gauge.name}</span>
          <span class="text-sm font-normal"
            >{gauge.gauge.reads === 'air'
              ? 'air'
              : `±${text(gauge.error_pa, 'pressure', preferences.units)}`}{LATE[gauge.state]
              ? ` · ▲ ${LATE[gauge.state]}`
              : ''}</span
          >
        </button>
      {/each}
    </div>
  </div>
{/if}
