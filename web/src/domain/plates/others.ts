import { figureAt as figure, partsAt, valueAt } from '../file'
import type { Owner } from '../fields'
import { rows, type PlateKind, type Section } from './parts'

/** Plates of compressors and tankless pumps. */
const named = (owner: Owner): Section => rows(owner, 'system', 'name')

export const RECEIVER: PlateKind = {
  id: 'tank',
  title: 'Receiver plate',
  under: ['system.receivers', 'system.relief'],
  sections: () => [
    {
      kind: 'list',
      path: 'system.receivers',
      title: 'Receiver',
      owner: 'Receiver',
      names: ['volume_m3', 'max_gauge_pa'],
      least: 1,
      add: 'Add a receiver beside it',
      blank: { volume_m3: null },
    },
    rows('Relief', 'system.relief', 'present', 'setting_gauge_pa'),
  ],
  summary: (file, system) => [
    figure(file, 'system.receivers.0.volume_m3', 'volume', system),
    `${figure(file, 'system.receivers.0.max_gauge_pa', 'pressure', system)} at most`,
  ],
}

export const COMPRESSOR: PlateKind = {
  id: 'pump',
  title: 'Compressor plate',
  under: ['system.pump'],
  sections: () => [
    {
      kind: 'list',
      path: 'system.pump.points',
      title: 'Delivery',
      owner: 'FreeAirPoint',
      names: ['gauge_pa', 'flow_m3_s'],
      least: 1,
      add: 'Add a pressure',
      blank: { gauge_pa: null, flow_m3_s: null },
    },
    rows('AirPump', 'system.pump', 'max_gauge_pa', 'power_w'),
  ],
  summary: (file, system) => [
    figure(file, 'system.pump.points.0.flow_m3_s', 'air_flow', system),
    `at ${figure(file, 'system.pump.points.0.gauge_pa', 'pressure', system)} · ${figure(file, 'system.pump.power_w', 'power', system)}`,
  ],
}

export const AIR_USE: PlateKind = {
  id: 'house',
  title: 'Tools, leaks',
  under: ['system.use', 'system.leak_test', 'system.click_warming_k', 'system.delivery_k'],
  sections: () => [
    rows('AirUse', 'system.use', 'use_m3_s', 'wanted_gauge_pa'),
    {
      kind: 'part',
      path: 'system.leak_test',
      title: 'Leak watch: compressor off, nothing used',
      owner: 'LeakTest',
      names: ['from_gauge_pa', 'to_gauge_pa', 'seconds'],
      add: 'Enter a leak watch',
      drop: 'Leave the leak out',
      blank: { from_gauge_pa: null, to_gauge_pa: null, seconds: null },
    },
    rows('CompressorSystem', 'system', 'delivery_k', 'click_warming_k'),
  ],
  summary: (file, system) => [
    figure(file, 'system.use.use_m3_s', 'air_flow', system),
    `tools need ${figure(file, 'system.use.wanted_gauge_pa', 'pressure', system)}`,
  ],
}

export function sitePlate(owner: Owner): PlateKind {
  return {
    id: 'found',
    title: 'Site',
    under: ['system.site', 'system.name', 'system.kind'],
    sections: () => [named(owner), rows('SiteConditions', 'system.site', 'place', 'altitude_m')],
    summary: (file, system) => [
      figure(file, 'system.site.altitude_m', 'length', system),
      'altitude',
    ],
  }
}

export const DEMAND_PUMP: PlateKind = {
  id: 'pump',
  title: 'Pump plate',
  under: ['system.pump', 'system.battery'],
  sections: () => [
    rows('DemandPump', 'system.pump', 'works', 'nominal_v', 'power_w'),
    {
      kind: 'list',
      path: 'system.pump.points',
      title: 'Point',
      owner: 'PressurePoint',
      names: ['flow_m3_s', 'gauge_pa'],
      least: 2,
      add: 'Add a point',
      blank: { flow_m3_s: null, gauge_pa: null },
    },
    rows('Battery', 'system.battery', 'least_v', 'most_v'),
    rows('DemandPump', 'system.pump', 'second_v', 'second_dead_head_gauge_pa', 'intercept_v'),
  ],
  summary: (file, system) => [
    figure(file, 'system.pump.nominal_v', 'voltage', system),
    `${figure(file, 'system.battery.least_v', 'voltage', system)} to ${figure(file, 'system.battery.most_v', 'voltage', system)}`,
  ],
}

export const OUTLETS: PlateKind = {
  id: 'house',
  title: 'Outlets',
  under: ['system.outlets'],
  sections: () => [
    {
      kind: 'list',
      path: 'system.outlets',
      title: 'Outlet',
      owner: 'Outlet',
      names: ['name', 'flow_m3_s', 'gauge_pa'],
      least: 1,
      add: 'Add an outlet',
      blank: { name: '', flow_m3_s: null, gauge_pa: null },
    },
  ],
  summary: (file, system) => {
    const outlets = partsAt(file, 'system.outlets')
    const flow = figure(file, 'system.outlets.0.flow_m3_s', 'flow', system)
    const name = String(valueAt(file, 'system.outlets.0.name') || 'first')
    return [flow, `${name}${outlets.length > 1 ? ` · ${outlets.length - 1} more` : ''}`]
  },
}

export const ACCUMULATOR: PlateKind = {
  id: 'tank',
  title: 'Accumulator',
  under: ['system.accumulator', 'settings.pre_charge_gauge_pa'],
  sections: (file) => [
    {
      kind: 'part',
      path: 'system.accumulator',
      title: 'Accumulator',
      owner: 'Accumulator',
      names: ['volume_m3', 'max_gauge_pa'],
      add: 'Enter an accumulator',
      drop: 'There is none',
      blank: { volume_m3: null },
    },
    ...(valueAt(file, 'system.accumulator')
      ? [rows('Settings', 'settings', 'pre_charge_gauge_pa')]
      : []),
  ],
  summary: (file, system) =>
    valueAt(file, 'system.accumulator')
      ? [
          figure(file, 'system.accumulator.volume_m3', 'volume', system),
          `air ${figure(file, 'settings.pre_charge_gauge_pa', 'pressure', system)}`,
        ]
      : ['none', 'no tank'],
}
