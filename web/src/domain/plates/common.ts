import type { SystemFile } from '../../api/client'
import { figureAt as figure, valueAt } from '../file'
import { rows, type PlateKind } from './parts'
import { OPTION_WORDS } from './words'

/** Plates that systems of several kinds have: the switch, the practice. */
export const RANGE = [
  'least_cut_in_gauge_pa',
  'most_cut_out_gauge_pa',
  'least_differential_pa',
  'most_differential_pa',
]
export const LOW_PRESSURE = ['low_pressure_cut_off', 'trip_below_cut_in_pa']

export function switchPlate(settings: string[], fittings: string[]): PlateKind {
  return {
    id: 'switch',
    title: 'Switch',
    under: ['settings', 'system.switch'],
    sections: () => [
      rows('Settings', 'settings', ...settings),
      rows('Switch', 'system.switch', ...fittings),
    ],
    summary: (file, system) => {
      const at = (name: string) => figure(file, `settings.${name}_gauge_pa`, 'pressure', system)
      return [
        `${at('cut_in').split(' ')[0]}/${at('cut_out')}`,
        OPTION_WORDS[String(valueAt(file, 'system.switch.nuts'))] ?? '–',
      ]
    },
  }
}
export const POINTS = ['cut_in_gauge_pa', 'cut_out_gauge_pa']

const WAYS = ['run_time_school', 'differential_school', 'check_school', 'cut_off_school']
/** The sums that a practice rests on. */
const SUMS = ['gas_exponent', 'gauge_error_pa', 'warming_k', 'loss_per_year_pa']
/** Everything that a practice says, its reason apart. */
export const PRACTICE_FIELDS = ['pre_charge_school', ...WAYS, ...SUMS]

const whose = (file: SystemFile) =>
  valueAt(file, 'practice.follows') === 'workspace' ? 'the workspace’s' : 'of its own'
export const PRACTICE: PlateKind = {
  id: 'practice',
  title: 'Practice',
  under: ['practice'],
  sections: () => [{ kind: 'practice', names: [...WAYS, ...SUMS] }],
  summary: (file) => [
    OPTION_WORDS[String(valueAt(file, 'practice.pre_charge_school'))] ?? '–',
    whose(file),
  ],
}
/** Where practitioners do not differ, only the gauge's error is left of the practice. */
export const GAUGE: PlateKind = {
  ...PRACTICE,
  sections: () => [{ kind: 'practice', names: ['gauge_error_pa'] }],
  summary: (file, system) => [
    `± ${figure(file, 'practice.gauge_error_pa', 'pressure', system)}`,
    `gauge · ${whose(file)}`,
  ],
}
