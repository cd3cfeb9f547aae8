<script lang="ts">
  import type { Snippet } from 'svelte'
  import FieldRow from '../../lib/controls/FieldRow.svelte'
  import { fieldOf } from '../../lib/fields'
  import { withoutEntered, withValue } from '../../lib/file'
  import type { DecideState } from './decide.svelte'
  import { OPTION_WORDS, type Row } from '../../lib/plates'

  let { table, row }: { table: DecideState; row: Snippet<[Row]> } = $props()
  const PUMP = 'system.pump'
  const pump = $derived(table.value(PUMP) as Record<string, unknown>)
  const points = $derived((pump.points ?? []) as Record<string, unknown>[])

  const MODEL = {
    kind: 'choice' as const,
    title: 'What is known of the pump',
    dimension: 'number' as const,
    options: Object.keys({ constant: 1, rated_point: 1, curve: 1 }),
    optional: false,
  }
  /** Another way of knowing the pump: what both have in common is carried over, the rest waits to be read. */
  function model(chosen: unknown) {
    const { power_w, start_lag_s, lift_m = 0 } = pump
    const flow_m3_s = pump.flow_m3_s ?? points[1]?.flow_m3_s ?? null
    const made: Record<string, Record<string, unknown>> = {
      constant: { flow_m3_s },
      rated_point: { flow_m3_s, gauge_pa: null, lift_m },
      curve: {
        points: [
          { flow_m3_s: 0, head_m: null },
          { flow_m3_s, head_m: null },
        ],
        lift_m,
      },
    }
    exchange({ model: chosen, power_w, start_lag_s, ...made[String(chosen)] })
  }
  function exchange(value: unknown, path = PUMP) {
    table.change(withValue(withoutEntered(table.file!, path), path, value))
  }
  const addPoint = () => exchange([...points, { flow_m3_s: null, head_m: null }], `${PUMP}.points`)
  const dropPoint = (index: number) =>
    exchange(
      points.filter((_, at) => at !== index),
      `${PUMP}.points`,
    )
</script>

<FieldRow
  field={MODEL}
  path="{PUMP}.model"
  text=""
  value={pump.model}
  faults={table.faultsAt(`${PUMP}.model`)}
  options={OPTION_WORDS}
  ontype={() => {}}
  onput={model}
/>
{#if pump.model === 'curve'}
  <fieldset class="grid gap-3 rounded-box border border-base-300 p-3">
    <legend class="px-1 text-sm font-bold">Curve, from shut-off on</legend>
    {#each points, index (index)}
      <div class="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
        {#each ['flow_m3_s', 'head_m'] as name (name)}
          {@const field = fieldOf('CurvePoint', name)}
          {@const path = `${PUMP}.points.${index}.${name}`}
          <FieldRow
            {field}
            {path}
            title="{field.title} {index + 1}"
            text={table.shown(path, field.dimension)}
            value={table.value(path)}
            faults={table.faultsAt(path)}
            ontype={(text) => table.type(path, text, field.dimension)}
            onput={(value) => table.put(path, value)}
          />
        {/each}
        <button
          type="button"
          class="btn mt-7 size-12 btn-ghost"
          aria-label="Take point {index + 1} out"
          disabled={points.length <= 2}
          onclick={() => dropPoint(index)}>×</button
        >
      </div>
    {/each}
    {#each table.faultsAt(`${PUMP}.points`) as fault (fault.code)}<p class="text-sm text-error">
        {fault.message}
      </p>{/each}
    <button type="button" class="btn min-h-12" onclick={addPoint}>Add a point</button>
  </fieldset>
  {#if pump.drop_pipe}
    <fieldset class="grid gap-3 rounded-box border border-base-300 p-3">
      <legend class="px-1 text-sm font-bold">Drop pipe, for its friction</legend>
      {#each ['length_m', 'diameter_m', 'c_factor'] as name (name)}
        {@render row({ owner: 'DropPipe', name, path: `${PUMP}.drop_pipe.${name}` })}
      {/each}
      <button type="button" class="btn min-h-12" onclick={() => exchange(null, `${PUMP}.drop_pipe`)}
        >Leave friction out</button
      >
    </fieldset>
  {:else}
    <button
      type="button"
      class="btn min-h-12"
      onclick={() => exchange({ length_m: null, diameter_m: null, c_factor: 140 }, `${PUMP}.drop_pipe`)}
      >Count the drop pipe’s friction</button
    >
  {/if}
{/if}
