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
type Blank = Record<string, unknown>
/** A piece of a plate: plain rows; a list of like parts; a part that may be left out; or something with a form of its own. */
export type Section =
  | { kind: 'rows'; rows: Row[] }
  | {
      kind: 'list'
      path: string
      title: string
      owner: Owner
      names: string[]
      least: number
      add: string
      blank: Blank
    }
  | {
      kind: 'part'
      path: string
      title: string
      owner: Owner
      names: string[]
      add: string
      drop: string
      blank: Blank
    }
  | { kind: 'pump' }
  | { kind: 'practice'; names: string[] }

export interface PlateKind {
  id: string
  title: string
  /** Paths whose faults belong to this plate. */
  under: string[]
  sections: (file: SystemFile) => Section[]
  summary: (file: SystemFile, system: System) => string[]
}

const rows = (owner: Owner, under: string, ...names: string[]): Section => ({
  kind: 'rows',
  rows: names.map((name) => ({ owner, name, path: `${under}.${name}` })),
})

export const kindOf = (file: SystemFile | undefined) => String(valueAt(file, 'system.kind'))
const modelOf = (file: SystemFile) => String(valueAt(file, 'system.pump.model'))

const OWNERS: Record<string, Owner> = { constant: 'ConstantFlow', rated_point: 'RatedPoint', curve: 'HeadCurve' }
const MOTOR = ['motor', 'power_w', 'max_gauge_pa', 'start_lag_s']
const PUMP_ROWS: Record<string, string[]> = {
  constant: ['flow_m3_s', 'dead_head_gauge_pa', ...MOTOR],
  rated_point: ['flow_m3_s', 'gauge_pa', 'lift_m', 'inlet_gauge_pa', 'dead_head_gauge_pa', ...MOTOR],
  curve: ['lift_m', 'inlet_gauge_pa', ...MOTOR],
}
const PIPE = ['length_m', 'diameter_m', 'c_factor']
const NEW_PIPE = { length_m: null, diameter_m: null, c_factor: 140 }

const RANGE = ['least_cut_in_gauge_pa', 'most_cut_out_gauge_pa', 'least_differential_pa', 'most_differential_pa']
const LOW_PRESSURE = ['low_pressure_cut_off', 'trip_below_cut_in_pa']

function switchPlate(settings: string[], fittings: string[], out = 'cut_out'): PlateKind {
  return {
    id: 'switch',
    title: 'Switch',
    under: ['settings', 'system.switch'],
    sections: () => [rows('Settings', 'settings', ...settings), rows('Switch', 'system.switch', ...fittings)],
    summary: (file, system) => {
      const at = (name: string) => figure(file, `settings.${name}_gauge_pa`, 'pressure', system)
      const nuts = valueAt(file, 'system.switch.nuts') === 'one' ? 'one screw' : 'two nuts'
      return [`${at('cut_in').split(' ')[0]}/${at(out)}`, nuts]
    },
  }
}
const POINTS = ['cut_in_gauge_pa', 'cut_out_gauge_pa']

function tankSummary(file: SystemFile, system: System): string[] {
  const tanks = valueAt(file, 'system.tanks') as { volume_m3: unknown }[]
  const each = tanks.map((_, at) => figure(file, `system.tanks.${at}.volume_m3`, 'volume', system))
  const most = figure(file, 'system.tanks.0.max_gauge_pa', 'pressure', system)
  // The unit stands once, at the end: plates are narrow.
  const bare = each.map((text, at) => (at < each.length - 1 ? text.split(' ')[0] : text))
  return [bare.join(' + '), `${most} at most`]
}

function tankPlate(plain: boolean): PlateKind {
  return {
    id: 'tank',
    title: 'Tank plate',
    under: ['system.tanks', 'system.relief'],
    sections: (file) => {
      const several = (valueAt(file, 'system.tanks') as unknown[]).length > 1
      const names = ['volume_m3', 'max_gauge_pa', ...(plain ? [] : ['acceptance_m3'])]
      if (several && !plain) names.push('pre_charge_gauge_pa')
      const blank = { volume_m3: null }
      return [
        {
          kind: 'list', path: 'system.tanks', title: 'Tank', owner: 'Tank', names, least: 1,
          add: 'Add a tank beside it', blank,
        },
        rows('Relief', 'system.relief', 'present', 'setting_gauge_pa'),
      ] // prettier-ignore
    },
    summary: tankSummary,
  }
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

const WATER_PUMP: PlateKind = {
  id: 'pump',
  title: 'Pump plate',
  under: ['system.pump'],
  sections: (file) => {
    const found: Section[] = [{ kind: 'pump' }]
    if (modelOf(file) === 'curve') {
      found.push(
        {
          kind: 'list', path: 'system.pump.points', title: 'Point', owner: 'CurvePoint', names: ['flow_m3_s', 'head_m'],
          least: 2, add: 'Add a point', blank: { flow_m3_s: null, head_m: null },
        },
        {
          kind: 'part', path: 'system.pump.drop_pipe', title: 'Drop pipe, for its friction', owner: 'Pipe', names: PIPE,
          add: 'Count the drop pipe’s friction', drop: 'Leave friction out', blank: NEW_PIPE,
        },
      ) // prettier-ignore
    }
    const model = modelOf(file)
    return [...found, rows(OWNERS[model] ?? 'ConstantFlow', 'system.pump', ...(PUMP_ROWS[model] ?? []))]
  },
  summary: pumpSummary,
}

const SUPPLY_ROWS: Record<string, string[]> = {
  well_bladder: ['yield_m3_s'],
  well_air: ['yield_m3_s'],
  cistern: ['treated', 'labelled'],
  boosted: ['lowest_inlet_gauge_pa', 'highest_inlet_gauge_pa'],
}

const HOUSE: PlateKind = {
  id: 'house',
  title: 'House, supply',
  under: ['system.demand', 'system.supply'],
  sections: (file) => [
    rows('Demand', 'system.demand', 'peak_draw_m3_s', 'daily_m3', 'highest_tap_m', 'wanted_tap_gauge_pa'),
    {
      kind: 'part', path: 'system.demand.highest_tap_pipe', title: 'Pipe to the highest tap', owner: 'Pipe', names: PIPE,
      add: 'Count that pipe’s friction', drop: 'Leave friction out', blank: NEW_PIPE,
    },
    rows('Demand', 'system.demand', 'lowest_tap_m', 'pressure_reducer', 'pipe_max_gauge_pa'),
    rows('Supply', 'system.supply', ...(SUPPLY_ROWS[kindOf(file)] ?? [])),
  ], // prettier-ignore
  summary: (file, system) => [
    figure(file, 'system.demand.peak_draw_m3_s', 'flow', system),
    `peak · ${figure(file, 'system.demand.daily_m3', 'volume', system)} a day`,
  ],
}

const TEMPERATURES = ['now_k', 'mean_k', 'coldest_k', 'warmest_k']

function foundPlate(plain: boolean): PlateKind {
  const found = plain
    ? ['cut_in_gauge_pa', 'cut_out_gauge_pa', 'caught_m3']
    : ['pre_charge_gauge_pa', 'last_pre_charge_gauge_pa', 'last_years_ago']
  return {
    id: 'found',
    title: 'As found, site',
    under: ['system.found', 'system.site', 'system.name', 'system.kind'],
    sections: () => [
      rows('Found', 'system.found', ...found),
      rows('Site', 'system.site', 'altitude_m', ...(plain ? [] : TEMPERATURES)),
      rows('WaterSystem', 'system', 'name', 'kind'),
    ],
    summary: (file, system) => {
      const altitude = figure(file, 'system.site.altitude_m', 'length', system)
      return plain
        ? [figure(file, 'system.found.caught_m3', 'volume', system), `caught · ${altitude} up`]
        : [figure(file, 'system.found.pre_charge_gauge_pa', 'pressure', system), `air found · ${altitude} up`]
    },
  }
}

const SCHOOLS = ['run_time_school', 'differential_school', 'check_school', 'cut_off_school']
/** The sums that a practice rests on. */
export const PRACTICE_SUMS = ['gas_exponent', 'gauge_error_pa', 'warming_k', 'loss_per_year_pa']

const whose = (file: SystemFile) =>
  valueAt(file, 'practice.follows') === 'workspace' ? 'the workspace’s' : 'of its own'
const PRACTICE: PlateKind = {
  id: 'practice',
  title: 'Practice',
  under: ['practice'],
  sections: () => [{ kind: 'practice', names: [...SCHOOLS, ...PRACTICE_SUMS] }],
  summary: (file) => [OPTION_WORDS[String(valueAt(file, 'practice.pre_charge_school'))] ?? '–', whose(file)],
}
/** Where practitioners do not differ, only the gauge's error is left of the practice. */
const GAUGE: PlateKind = {
  ...PRACTICE,
  sections: () => [{ kind: 'practice', names: ['gauge_error_pa'] }],
  summary: (file, system) => [
    `± ${figure(file, 'practice.gauge_error_pa', 'pressure', system)}`,
    `gauge · ${whose(file)}`,
  ],
}

const named = (owner: Owner): Section => rows(owner, 'system', 'name')

const RECEIVER: PlateKind = {
  id: 'tank',
  title: 'Receiver plate',
  under: ['system.receivers', 'system.relief'],
  sections: () => [
    {
      kind: 'list', path: 'system.receivers', title: 'Receiver', owner: 'Receiver', names: ['volume_m3', 'max_gauge_pa'],
      least: 1, add: 'Add a receiver beside it', blank: { volume_m3: null },
    },
    rows('Relief', 'system.relief', 'present', 'setting_gauge_pa'),
  ], // prettier-ignore
  summary: (file, system) => [
    figure(file, 'system.receivers.0.volume_m3', 'volume', system),
    `${figure(file, 'system.receivers.0.max_gauge_pa', 'pressure', system)} at most`,
  ],
}

const COMPRESSOR: PlateKind = {
  id: 'pump',
  title: 'Compressor plate',
  under: ['system.pump'],
  sections: () => [
    {
      kind: 'list', path: 'system.pump.points', title: 'Delivery', owner: 'FreeAirPoint', names: ['gauge_pa', 'flow_m3_s'],
      least: 1, add: 'Add a pressure', blank: { gauge_pa: null, flow_m3_s: null },
    },
    rows('AirPump', 'system.pump', 'max_gauge_pa', 'power_w'),
  ], // prettier-ignore
  summary: (file, system) => [
    figure(file, 'system.pump.points.0.flow_m3_s', 'air_flow', system),
    `at ${figure(file, 'system.pump.points.0.gauge_pa', 'pressure', system)} · ${figure(file, 'system.pump.power_w', 'power', system)}`,
  ],
}

const AIR_USE: PlateKind = {
  id: 'house',
  title: 'Tools, leaks',
  under: ['system.use', 'system.leak_test', 'system.click_warming_k'],
  sections: () => [
    rows('AirUse', 'system.use', 'use_m3_s', 'wanted_gauge_pa'),
    {
      kind: 'part', path: 'system.leak_test', title: 'Leak watch: compressor off, nothing used', owner: 'LeakTest',
      names: ['from_gauge_pa', 'to_gauge_pa', 'seconds'], add: 'Enter a leak watch', drop: 'Leave the leak out',
      blank: { from_gauge_pa: null, to_gauge_pa: null, seconds: null },
    },
    rows('CompressorSystem', 'system', 'click_warming_k'),
  ], // prettier-ignore
  summary: (file, system) => [
    figure(file, 'system.use.use_m3_s', 'air_flow', system),
    `tools need ${figure(file, 'system.use.wanted_gauge_pa', 'pressure', system)}`,
  ],
}

function sitePlate(owner: Owner): PlateKind {
  return {
    id: 'found',
    title: 'Site',
    under: ['system.site', 'system.name', 'system.kind'],
    sections: () => [named(owner), rows('Site', 'system.site', 'altitude_m')],
    summary: (file, system) => [figure(file, 'system.site.altitude_m', 'length', system), 'altitude'],
  }
}

const DEMAND_PUMP: PlateKind = {
  id: 'pump',
  title: 'Pump plate',
  under: ['system.pump', 'system.battery'],
  sections: () => [
    rows('DemandPump', 'system.pump', 'nominal_v', 'power_w'),
    {
      kind: 'list', path: 'system.pump.points', title: 'Point', owner: 'PressurePoint', names: ['flow_m3_s', 'gauge_pa'],
      least: 2, add: 'Add a point', blank: { flow_m3_s: null, gauge_pa: null },
    },
    rows('Battery', 'system.battery', 'least_v', 'most_v'),
  ], // prettier-ignore
  summary: (file, system) => [
    figure(file, 'system.pump.nominal_v', 'voltage', system),
    `${figure(file, 'system.battery.least_v', 'voltage', system)} to ${figure(file, 'system.battery.most_v', 'voltage', system)}`,
  ],
}

const OUTLETS: PlateKind = {
  id: 'house',
  title: 'Outlets',
  under: ['system.outlets'],
  sections: () => [
    {
      kind: 'list', path: 'system.outlets', title: 'Outlet', owner: 'Outlet', names: ['name', 'flow_m3_s', 'gauge_pa'],
      least: 1, add: 'Add an outlet', blank: { name: '', flow_m3_s: null, gauge_pa: null },
    },
  ], // prettier-ignore
  summary: (file, system) => {
    const outlets = valueAt(file, 'system.outlets') as unknown[]
    const flow = figure(file, 'system.outlets.0.flow_m3_s', 'flow', system)
    const name = String(valueAt(file, 'system.outlets.0.name') || 'first')
    return [flow, `${name}${outlets.length > 1 ? ` · ${outlets.length - 1} more` : ''}`]
  },
}

const ACCUMULATOR: PlateKind = {
  id: 'tank',
  title: 'Accumulator',
  under: ['system.accumulator', 'settings.pre_charge_gauge_pa'],
  sections: (file) => [
    {
      kind: 'part', path: 'system.accumulator', title: 'Accumulator', owner: 'Accumulator',
      names: ['volume_m3', 'max_gauge_pa'], add: 'Enter an accumulator', drop: 'There is none', blank: { volume_m3: null },
    },
    ...(valueAt(file, 'system.accumulator') ? [rows('Settings', 'settings', 'pre_charge_gauge_pa')] : []),
  ], // prettier-ignore
  summary: (file, system) =>
    valueAt(file, 'system.accumulator')
      ? [
          figure(file, 'system.accumulator.volume_m3', 'volume', system),
          `air ${figure(file, 'settings.pre_charge_gauge_pa', 'pressure', system)}`,
        ]
      : ['none', 'no tank'],
}

const AIR = 'pre_charge_gauge_pa'
const bladder = [
  tankPlate(false),
  switchPlate([...POINTS, AIR], ['nuts', ...LOW_PRESSURE, ...RANGE, 'earth_present']),
  WATER_PUMP,
  HOUSE,
  foundPlate(false),
  PRACTICE,
]
const PLATES: Record<string, PlateKind[]> = {
  well_bladder: bladder,
  cistern: bladder,
  boosted: bladder,
  well_air: [
    tankPlate(true),
    switchPlate([...POINTS, AIR, 'air_renewed'], ['nuts', ...LOW_PRESSURE, ...RANGE, 'earth_present']),
    WATER_PUMP,
    HOUSE,
    foundPlate(true),
    PRACTICE,
  ],
  compressor: [
    RECEIVER,
    switchPlate(POINTS, ['nuts', ...RANGE, 'earth_present']),
    COMPRESSOR,
    AIR_USE,
    sitePlate('CompressorSystem'),
    GAUGE,
  ],
  tankless: [
    DEMAND_PUMP,
    OUTLETS,
    ACCUMULATOR,
    switchPlate(POINTS, ['nuts', ...RANGE]),
    sitePlate('TanklessSystem'),
    GAUGE,
  ],
}

export const platesFor = (kind: string): PlateKind[] => PLATES[kind] ?? bladder

/** The plate of a kind of system on which a path is entered. */
export function plateOf(kind: string, path: string): PlateKind | undefined {
  const bare = path.replace(/^entered\./, '')
  return platesFor(kind).find((plate) => plate.under.some((under) => bare === under || bare.startsWith(under + '.')))
}

export const KIND_WORDS: Record<string, string> = {
  well_bladder: 'Well, bladder tank',
  well_air: 'Well, air-over-water tank',
  cistern: 'Cistern or rainwater',
  boosted: 'Boosted supply',
  compressor: 'Compressor',
  tankless: 'Tankless pump',
}

export const OPTION_WORDS: Record<string, string> = {
  ...KIND_WORDS,
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
  submersible: 'submersible, in the water',
  surface: 'on the surface',
  keep: 'keep the usual 20 psi',
  leave: 'leave that nut alone',
  widen: 'widen it',
  half_year: 'every half year',
  yearly: 'every year',
  five_years: 'every five years',
  measured: 'from the measured loss',
  either: 'either way',
  fit: 'fit it',
  avoid: 'avoid it',
}
