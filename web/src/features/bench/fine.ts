import { fromSi, toSi, unitFor, type Told } from '../../domain/units'

/** A pressure as finely as a reference can be read: its figure alone, for a box. */
export function figure(pa: number, grain: number, system: Told): string {
  const shown = fromSi(pa, unitFor('pressure', system)).toFixed(places(grain, system))
  return Number(shown) === 0 ? shown.replace('-', '') : shown
}

/** The same with its unit. */
export const fine = (pa: number, grain: number, system: Told) =>
  `${figure(pa, grain, system)} ${unitFor('pressure', system).symbol}`

/** One finest reading as a round step of the unit: 1, 2 or 5 of some decimal. */
export function stepOf(grain: number, system: Told): number {
  const unit = unitFor('pressure', system)
  const size = fromSi(grain, unit)
  const power = 10 ** Math.floor(Math.log10(size) + 1e-9)
  const round = [1, 2, 5, 10].find((each) => each * power >= size * (1 - 1e-9))! * power
  return toSi(round, unit)
}

function places(grain: number, system: Told): number {
  const size = fromSi(grain, unitFor('pressure', system))
  return Math.min(Math.max(Math.ceil(-Math.log10(size) - 1e-9), 0), 6)
}
