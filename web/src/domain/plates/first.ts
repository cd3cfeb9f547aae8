import type { SystemFile } from '../../api/client'
import type { Owner } from '../fields'
import { kindOf, type Row } from './parts'

/** The readings that matter most of a new system, as they stand on the things themselves: one plate a step. */
export interface FirstPlate {
  id: 'switch' | 'tank' | 'pump'
  title: string
  /** Where one looks. */
  hint: string
  rows: Row[]
}
const row = (owner: Owner, path: string): Row => ({
  owner,
  name: path.slice(path.lastIndexOf('.') + 1),
  path,
})
const SWITCH: FirstPlate = {
  id: 'switch',
  title: 'Under the switch cover',
  hint: 'On a sticker in the cover, as 40/60, or watched on the gauge.',
  rows: [row('Settings', 'settings.cut_in_gauge_pa'), row('Settings', 'settings.cut_out_gauge_pa')],
}
const RELIEF = row('Relief', 'system.relief.setting_gauge_pa')
const WATER: FirstPlate[] = [
  SWITCH,
  {
    id: 'tank',
    title: 'On the tank and its tee',
    hint: 'Plate on the tank; tag on the relief valve; tyre gauge, tank drained.',
    rows: [
      row('Tank', 'system.tanks.0.volume_m3'),
      row('Tank', 'system.tanks.0.max_gauge_pa'),
      RELIEF,
      row('Found', 'system.found.pre_charge_gauge_pa'),
    ],
  },
  {
    id: 'pump',
    title: 'On the pump',
    hint: 'Plate of the pump or its control box; or time a bucket at an open tap.',
    rows: [
      row('ConstantFlow', 'system.pump.flow_m3_s'),
      row('ConstantFlow', 'system.pump.dead_head_gauge_pa'),
    ],
  },
]
const PLAIN = WATER.map((plate) => ({
  ...plate,
  rows: plate.rows.filter((each) => each.name !== 'pre_charge_gauge_pa'),
}))
const FIRST: Record<string, FirstPlate[]> = {
  well_air: PLAIN,
  compressor: [
    SWITCH,
    {
      id: 'tank',
      title: 'On the receiver',
      hint: 'Plate of the receiver; tag on the safety valve.',
      rows: [
        row('Receiver', 'system.receivers.0.volume_m3'),
        row('Receiver', 'system.receivers.0.max_gauge_pa'),
        RELIEF,
      ],
    },
    {
      id: 'pump',
      title: 'On the compressor',
      hint: 'Free air delivered at a pressure, not displacement.',
      rows: [
        row('FreeAirPoint', 'system.pump.points.0.flow_m3_s'),
        row('FreeAirPoint', 'system.pump.points.0.gauge_pa'),
        row('AirPump', 'system.pump.max_gauge_pa'),
      ],
    },
  ],
  tankless: [
    SWITCH,
    {
      id: 'tank',
      title: 'The battery and the smallest outlet',
      hint: 'Volts with the charger off and on; what the smallest tap gives.',
      rows: [
        row('Battery', 'system.battery.least_v'),
        row('Battery', 'system.battery.most_v'),
        row('Outlet', 'system.outlets.0.flow_m3_s'),
      ],
    },
    {
      id: 'pump',
      title: 'On the pump',
      hint: 'The pressure at which it stands with all taps shut.',
      rows: [row('PressurePoint', 'system.pump.points.0.gauge_pa')],
    },
  ],
}

export const firstPlates = (file: SystemFile): FirstPlate[] => FIRST[kindOf(file)] ?? WATER
