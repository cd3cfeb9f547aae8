import type { SystemFile } from '../../api/client'
import { figureAt as figure, partsAt, valueAt } from '../file'
import type { Owner } from '../fields'
import type { System } from '../units'
import { kindOf, modelOf, rows, type PlateKind, type Section } from './parts'

/** Plates of water systems with tanks. */
const OWNERS: Record<string, Owner> = {
  constant: 'ConstantFlow',
  rated_point: 'RatedPoint',
  curve: 'HeadCurve',
}
const MOTOR = ['motor', 'power_w', 'max_gauge_pa', 'start_lag_s', 'ramp_s']
const PUMP_ROWS: Record<string, string[]> = {
  constant: ['flow_m3_s', 'dead_head_gauge_pa', ...MOTOR],
  rated_point: [
    'flow_m3_s',
    'gauge_pa',
    'lift_m',
    'inlet_gauge_pa',
    'dead_head_gauge_pa',
    ...MOTOR,
  ],
  curve: ['lift_m', 'inlet_gauge_pa', ...MOTOR],
}
const PIPE = ['length_m', 'diameter_m', 'c_factor']
const NEW_PIPE = { length_m: null, diameter_m: null, c_factor: 140 }

function tankSummary(file: SystemFile, system: System): string[] {
  const tanks = valueAt(file, 'system.tanks') as { volume_m3: unknown }[]
  const each = tanks.map((_, at) => figure(file, `system.tanks.${at}.volume_m3`, 'volume', system))
  const most = figure(file, 'system.tanks.0.max_gauge_pa', 'pressure', system)
  // The unit stands once, at the end: plates are narrow.
  const bare = each.map((text, at) => (at < each.length - 1 ? text.split(' ')[0] : text))
  return [bare.join(' + '), `${most} at most`]
}

export function tankPlate(plain: boolean): PlateKind {
  return {
    id: 'tank',
    title: 'Tank plate',
    under: ['system.tanks', 'system.tanks_above_m', 'system.relief'],
    sections: (file) => {
      const several = partsAt(file, 'system.tanks').length > 1
      const names = ['volume_m3', 'max_gauge_pa', ...(plain ? [] : ['acceptance_m3'])]
      if (several && !plain) names.push('pre_charge_gauge_pa')
      const blank = { volume_m3: null }
      return [
        {
          kind: 'list',
          path: 'system.tanks',
          title: 'Tank',
          owner: 'Tank',
          names,
          least: 1,
          add: 'Add a tank beside it',
          blank,
        },
        rows('WaterSystem', 'system', 'tanks_above_m'),
        rows('Relief', 'system.relief', 'present', 'setting_gauge_pa'),
      ]
    },
    summary: tankSummary,
  }
}

function pumpSummary(file: SystemFile, system: System): string[] {
  const power = figure(file, 'system.pump.power_w', 'power', system)
  if (modelOf(file) === 'curve') {
    const points = partsAt(file, 'system.pump.points')
    return [
      `${points.length} points`,
      `lift ${figure(file, 'system.pump.lift_m', 'length', system)} · ${power}`,
    ]
  }
  const flow = figure(file, 'system.pump.flow_m3_s', 'flow', system)
  const at =
    modelOf(file) === 'rated_point'
      ? `at ${figure(file, 'system.pump.gauge_pa', 'pressure', system)}`
      : 'constant'
  return [flow, `${at} · ${power}`]
}

export const WATER_PUMP: PlateKind = {
  id: 'pump',
  title: 'Pump plate',
  under: ['system.pump'],
  sections: (file) => {
    const found: Section[] = [{ kind: 'pump' }]
    if (modelOf(file) === 'curve') {
      found.push(
        {
          kind: 'list',
          path: 'system.pump.points',
          title: 'Point',
          owner: 'CurvePoint',
          names: ['flow_m3_s', 'head_m'],
          least: 2,
          add: 'Add a point',
          blank: { flow_m3_s: null, head_m: null },
        },
        {
          kind: 'part',
          path: 'system.pump.drop_pipe',
          title: 'Drop pipe, for its friction',
          owner: 'Pipe',
          names: PIPE,
          add: 'Count the drop pipe’s friction',
          drop: 'Leave friction out',
          blank: NEW_PIPE,
        },
      )
    }
    const model = modelOf(file)
    return [
      ...found,
      rows(OWNERS[model] ?? 'ConstantFlow', 'system.pump', ...(PUMP_ROWS[model] ?? [])),
    ]
  },
  summary: pumpSummary,
}

const SUPPLY_ROWS: Record<string, string[]> = {
  well_bladder: ['yield_m3_s'],
  well_air: ['yield_m3_s'],
  cistern: ['treated', 'labelled'],
  boosted: ['lowest_inlet_gauge_pa', 'highest_inlet_gauge_pa'],
}

export const HOUSE: PlateKind = {
  id: 'house',
  title: 'House, supply',
  under: ['system.demand', 'system.supply'],
  sections: (file) => [
    rows(
      'Demand',
      'system.demand',
      'peak_draw_m3_s',
      'daily_m3',
      'highest_tap_m',
      'wanted_tap_gauge_pa',
    ),
    {
      kind: 'part',
      path: 'system.demand.highest_tap_pipe',
      title: 'Pipe to the highest tap',
      owner: 'Pipe',
      names: PIPE,
      add: 'Count that pipe’s friction',
      drop: 'Leave friction out',
      blank: NEW_PIPE,
    },
    rows('Demand', 'system.demand', 'lowest_tap_m', 'pressure_reducer', 'pipe_max_gauge_pa'),
    rows('Supply', 'system.supply', ...(SUPPLY_ROWS[kindOf(file)] ?? [])),
  ],
  summary: (file, system) => [
    figure(file, 'system.demand.peak_draw_m3_s', 'flow', system),
    `peak · ${figure(file, 'system.demand.daily_m3', 'volume', system)} a day`,
  ],
}

const TEMPERATURES = ['now_k', 'mean_k', 'coldest_k', 'warmest_k']

export function foundPlate(plain: boolean): PlateKind {
  const found = plain
    ? ['cut_in_gauge_pa', 'cut_out_gauge_pa', 'caught_m3']
    : ['pre_charge_gauge_pa', 'last_pre_charge_gauge_pa', 'last_years_ago']
  return {
    id: 'found',
    title: 'As found, site',
    under: ['system.found', 'system.site', 'system.name', 'system.kind'],
    sections: () => [
      rows('Found', 'system.found', ...found),
      rows('SiteConditions', 'system.site', 'place', 'altitude_m', ...(plain ? [] : TEMPERATURES)),
      rows('WaterSystem', 'system', 'name', 'kind'),
    ],
    summary: (file, system) => {
      const altitude = figure(file, 'system.site.altitude_m', 'length', system)
      return plain
        ? [figure(file, 'system.found.caught_m3', 'volume', system), `caught · ${altitude} up`]
        : [
            figure(file, 'system.found.pre_charge_gauge_pa', 'pressure', system),
            `air found · ${altitude} up`,
          ]
    },
  }
}
