<script lang="ts">
  import FieldRow from '../../ui/FieldRow.svelte'
  import { partAt, partsAt, withoutNotes, withValue } from '../../domain/file'
  import { OPTION_WORDS } from '../../domain/plates'
  import type { BoardState } from '../../domain/board.svelte'

  let { board }: { board: BoardState } = $props()
  const PUMP = 'system.pump'
  const pump = $derived(partAt(board.file, PUMP))
  const MODEL = {
    kind: 'choice' as const,
    title: 'What is known of the pump',
    dimension: 'number' as const,
    options: ['constant', 'rated_point', 'curve'],
    optional: false,
  }

  /** Another way of knowing the pump: what both have in common is carried over, the rest waits to be read. */
  function exchange(chosen: unknown) {
    const {
      motor,
      power_w,
      start_lag_s,
      ramp_s,
      max_gauge_pa,
      lift_m = 0,
      inlet_gauge_pa = 0,
    } = pump
    const points = partsAt(pump, 'points')
    const flow_m3_s = pump.flow_m3_s ?? points[1]?.flow_m3_s ?? null
    const made: Record<string, Record<string, unknown>> = {
      constant: { flow_m3_s },
      rated_point: { flow_m3_s, gauge_pa: null, lift_m, inlet_gauge_pa },
      curve: {
        points: [
          { flow_m3_s: 0, head_m: null },
          { flow_m3_s, head_m: null },
        ],
        lift_m,
        inlet_gauge_pa,
      },
    }
    const value = {
      model: chosen,
      motor,
      power_w,
      start_lag_s,
      ramp_s,
      max_gauge_pa,
      ...made[String(chosen)],
    }
    board.change(withValue(withoutNotes(board.file!, PUMP), PUMP, value))
  }
</script>

<FieldRow
  field={MODEL}
  path="{PUMP}.model"
  value={pump.model}
  faults={board.faultsAt(`${PUMP}.model`)}
  options={OPTION_WORDS}
  ontype={() => {}}
  onput={exchange}
/>
