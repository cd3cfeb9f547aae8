<script lang="ts">
  import { preferences } from '../../domain/preferences.svelte'
  import { text } from '../../domain/units'
  import type { BoardState } from '../../domain/board.svelte'

  let { board }: { board: BoardState } = $props()
  const ways = $derived(board.result?.decision.ways ?? [])
  const chosen = $derived(board.value('practice.pre_charge_school'))
  const pressure = (pa: number | null | undefined) =>
    pa == null ? 'missing' : text(pa, 'pressure', preferences.units)
</script>

<fieldset class="grid gap-2">
  <legend class="mb-1">Way of pre-charging</legend>
  {#each ways as way (way.id)}
    <label
      class="flex min-h-12 cursor-pointer items-start gap-3 rounded-box border p-3 {way.id ===
      chosen
        ? 'border-base-content'
        : 'border-base-300'}"
    >
      <input
        type="radio"
        class="radio mt-0.5"
        name="pre-charge-way"
        checked={way.id === chosen}
        onchange={() => board.put('practice.pre_charge_school', way.id)}
      />
      <span class="flex-1">
        <span class="flex justify-between gap-2">
          <span>{way.title}</span><span class="figure">{pressure(way.target_gauge_pa)}</span>
        </span>
        <span class="block text-sm text-neutral">{way.reason}</span>
        {#each way.budget as item (item.title)}
          <span class="flex justify-between text-sm {item.counted ? '' : 'text-neutral'}">
            <span>{item.title}{item.counted ? '' : ', not counted'}</span>
            <span class="figure whitespace-nowrap">{pressure(item.pressure_pa)}</span>
          </span>
        {/each}
      </span>
    </label>
  {/each}
</fieldset>
