import {
  ACCUMULATOR,
  AIR_USE,
  COMPRESSOR,
  DEMAND_PUMP,
  OUTLETS,
  RECEIVER,
  sitePlate,
} from './others'
import type { PlateKind } from './parts'
import { GAUGE, LOW_PRESSURE, POINTS, PRACTICE, RANGE, switchPlate } from './common'
import { foundPlate, HOUSE, tankPlate, WATER_PUMP } from './water'

export { kindOf, type PlateKind, type Row, type Section } from './parts'
export { PRACTICE_FIELDS } from './common'
export { KIND_WORDS, OPTION_WORDS, optionWords } from './words'

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
    switchPlate(
      [...POINTS, AIR, 'air_renewed'],
      ['nuts', ...LOW_PRESSURE, ...RANGE, 'earth_present'],
    ),
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
  return platesFor(kind).find((plate) =>
    plate.under.some((under) => bare === under || bare.startsWith(under + '.')),
  )
}
