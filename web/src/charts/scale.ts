import { scaleLinear } from 'd3-scale'
import type { Schemas } from '../api/client'
import { fromSi, toSi, type Unit } from '../domain/units'

/** A span of SI values with ticks at a unit's round numbers. */
export type Scale = Schemas['Scale']

/** A scale in the unit's own round numbers around two SI values. */
export function niceScale(least: number, most: number, unit: Unit, count: number): Scale {
  const [low, high] = [fromSi(least, unit), fromSi(most, unit)]
  const nice = scaleLinear([low, Math.max(high, low + unit.step)], [0, 1]).nice(count)
  const [first, last] = nice.domain().map((value) => toSi(value, unit)) as [number, number]
  return { least: first, most: last, ticks: nice.ticks(count).map((value) => toSi(value, unit)) }
}

/** From SI to the height on the picture, top to bottom; a value beyond the scale stays at its end. */
export const heightsOn = (scale: Scale, top: number, bottom: number) =>
  scaleLinear([scale.least, scale.most], [bottom, top]).clamp(true)

export const height = (value: number, scale: Scale, top: number, bottom: number): number =>
  heightsOn(scale, top, bottom)(value)

/** The value at a height, on the scale or beyond its ends. */
export const valueAtHeight = (y: number, scale: Scale, top: number, bottom: number): number =>
  heightsOn(scale, top, bottom).clamp(false).invert(y)

export const within = (scale: Scale, ...values: number[]) =>
  values.every((value) => value >= scale.least && value <= scale.most)
