<script lang="ts">
  import { preferences } from '../../lib/preferences.svelte'
  import { text } from '../../lib/units'
  import type { DecideState } from './decide.svelte'

  let { table }: { table: DecideState } = $props()
  const schools = $derived(table.result?.decision.schools ?? [])
  const chosen = $derived(table.value('practice.pre_charge_school'))
  const pressure = (pa: number | null | undefined) =>
    pa == null ? 'cannot tell' : text(pa, 'pressure', preferences.units)
</script>

<fieldset class="grid gap-2">
  <legend class="mb-1">Pre-charge school</legend>
  {#each schools as school (school.id)}
    <label
      class="flex min-h-12 cursor-pointer items-start gap-3 rounded-box border p-3 {school.id === chosen
        ? 'border-base-content'
        : 'border-base-300'}"
    >
      <input
        type="radio"
        class="radio mt-0.5"
        name="school"
        checked={school.id === chosen}
        onchange={() => table.put('practice.pre_charge_school', school.id)}
      />
      <span class="flex-1">
        <span class="flex justify-between gap-2">
          <span>{school.title}</span><span class="figure">{pressure(school.target_gauge_pa)}</span>
        </span>
        <span class="block text-sm text-neutral">{school.reason}</span>
        {#each school.budget as item (item.title)}
          <span class="flex justify-between text-sm {item.counted ? '' : 'text-neutral'}">
            <span>{item.title}{item.counted ? '' : ', not counted'}</span>
            <span class="figure whitespace-nowrap">{pressure(item.pressure_pa)}</span>
          </span>
        {/each}
      </span>
    </label>
  {/each}
</fieldset>
