import type { SystemFile } from './api/client'
import { figureAt as figure, valueAt } from './file'
import type { Owner } from './fields'
import type { System } from './units'

/** What stands on which plate, and what is read on it at a glance. Words only. */
export interface Row {
  owner: Owner
  name: string
  path: string
}
export interface PlateKind {
  id: string
  title: string
  /** Paths whose faults belong to this plate. */
  under: string[]
  rows: (file: SystemFile) => Row[]
  summary: (file: SystemFile, system: System) => string[]
}

const rows =
  (owner: Owner, under: string, ...names: string[]) =>
  () =>
    names.map((name) => ({ owner, name, path: `${under}.${name}` }))

const OWNERS: Record<string, Owner> = { constant: 'ConstantFlow', rated_point: 'RatedPoint', curve: 'HeadCurve' }
const PUMP_ROWS: Record<string, string[]> = {
  constant: ['flow_m3_s', 'dead_head_gauge_pa', 'power_w', 'start_lag_s'],
  rated_point: ['flow_m3_s', 'gauge_pa', 'lift_m', 'dead_head_gauge_pa', 'power_w', 'start_lag_s'],
  curve: ['lift_m', 'inlet_gauge_pa', 'power_w', 'start_lag_s'],
}

const modelOf = (file: SystemFile) => String(valueAt(file, 'system.pump.model'))

function tankSummary(file: SystemFile, system: System): string[] {
  const tanks = valueAt(file, 'system.tanks') as { volume_m3: unknown }[]
  const each = tanks.map((_, at) => figure(file, `system.tanks.${at}.volume_m3`, 'volume', system))
  const most = figure(file, 'system.tanks.0.max_gauge_pa', 'pressure', system)
  return [each.join(' + '), `${most} at most`]
}

function pumpSummary(file: SystemFile, system: System): string[] {
  const power = figure(file, 'system.pump.power_w', 'power', system)
  if (modelOf(file) === 'curve') {
    const points = valueAt(file, 'system.pump.points') as unknown[]
    return [`${points.length} points`, `lift ${figure(file, 'system.pump.lift_m', 'length', system)} · ${power}`]
  }
  const flow = figure(file, 'system.pump.flow_m3_s', 'flow', system)
  const at =
    modelOf(file) === 'rated_point' ? `at ${figure(file, 'system.pump.gauge_pa', 'pressure', system)}` : 'constant'
  return [flow, `${at} · ${power}`]
}

function foundSummary(file: SystemFile, system: System): string[] {
  const altitude = figure(file, 'system.site.altitude_m', 'length', system)
  return [figure(file, 'system.found.pre_charge_gauge_pa', 'pressure', system), `air found · ${altitude} up`]
}

export const PLATES: PlateKind[] = [
  {
    id: 'tank',
    title: 'Tank plate',
    under: ['system.tanks', 'system.relief'],
    rows: rows('Relief', 'system.relief', 'present', 'setting_gauge_pa'),
    summary: tankSummary,
  },
  {
    id: 'switch',
    title: 'Switch',
    under: ['settings', 'system.switch'],
    rows: () => [
      ...rows('Settings', 'settings', 'cut_in_gauge_pa', 'cut_out_gauge_pa', 'pre_charge_gauge_pa')(),
      ...rows('Switch', 'system.switch', 'nuts', 'low_pressure_cut_off', 'trip_below_cut_in_pa', 'earth_present')(),
    ],
    summary: (file, system) => {
      const at = (name: string) => figure(file, `settings.${name}_gauge_pa`, 'pressure', system)
      const nuts = valueAt(file, 'system.switch.nuts') === 'one' ? 'one screw' : 'two nuts'
      return [`${at('cut_in').split(' ')[0]}/${at('cut_out')}`, nuts]
    },
  },
  {
    id: 'pump',
    title: 'Pump plate',
    under: ['system.pump'],
    rows: (file) => rows(OWNERS[modelOf(file)] ?? 'ConstantFlow', 'system.pump', ...(PUMP_ROWS[modelOf(file)] ?? []))(),
    summary: pumpSummary,
  },
  {
    id: 'house',
    title: 'House',
    under: ['system.demand'],
    rows: rows('Demand', 'system.demand', 'peak_draw_m3_s', 'daily_m3', 'lowest_tap_m', 'pressure_reducer'),
    summary: (file, system) => [
      figure(file, 'system.demand.peak_draw_m3_s', 'flow', system),
      `peak · ${figure(file, 'system.demand.daily_m3', 'volume', system)} a day`,
    ],
  },
  {
    id: 'found',
    title: 'As found, site',
    under: ['system.found', 'system.site', 'system.name'],
    rows: () => [
      ...rows('Found', 'system.found', 'pre_charge_gauge_pa', 'last_pre_charge_gauge_pa', 'last_years_ago')(),
      ...rows('Site', 'system.site', 'altitude_m')(),
      ...rows('System', 'system', 'name')(),
    ],
    summary: foundSummary,
  },
  {
    id: 'practice',
    title: 'Practice',
    under: ['practice'],
    rows: rows(
      'Practice',
      'practice',
      'run_time_school',
      'gas_exponent',
      'gauge_error_pa',
      'warming_k',
      'loss_per_year_pa',
      'check_interval_years',
    ),
    summary: (file) => [OPTION_WORDS[String(valueAt(file, 'practice.pre_charge_school'))] ?? '–', 'pre-charge school'],
  },
]

/** The plate on which a path is entered. */
export function plateOf(path: string): PlateKind | undefined {
  const bare = path.replace(/^entered\./, '')
  return PLATES.find((plate) => plate.under.some((under) => bare === under || bare.startsWith(under + '.')))
}

export const OPTION_WORDS: Record<string, string> = {
  two_below: 'usual',
  two_to_three_below: 'usual, wider',
  five_below: 'wide',
  computed: 'computed',
  two: 'two nuts',
  one: 'one screw',
  minute: 'a minute or more',
  half_minute: 'half a minute is tolerable',
  by_power: 'a minute, two from 1 hp up',
  constant: 'one flow, measured',
  rated_point: 'one flow at one pressure',
  curve: 'head–flow curve',
}
