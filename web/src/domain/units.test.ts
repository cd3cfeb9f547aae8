import { describe, expect, it } from 'vitest'
import {
  digits,
  fromSi,
  parse,
  parts,
  SCALES,
  snapped,
  SYSTEMS,
  text,
  toSi,
  unitFor,
} from './units'

const psi = unitFor('pressure', 'us')
const bar = unitFor('pressure', 'metric')

describe('units', () => {
  it.each([
    [40 * psi.factor, 'pressure', 'us', '40 psi'],
    [40 * psi.factor, 'pressure', 'metric', '2.76 bar'],
    [40 * psi.factor, 'pressure', 'kpa', '276 kPa'],
    [0.00085, 'volume', 'us', '0.22 gal'],
    [13 / 3600, 'rate', 'us', '13/h'],
    [701.04, 'length', 'us', '2,300 ft'],
  ] as const)('writes %s %s in %s as the server does', (si, dimension, system, written) => {
    expect(text(si, dimension, system)).toBe(written)
  })

  it('goes there and back in every system', () => {
    for (const { id } of SYSTEMS) {
      const unit = unitFor('temperature', id)
      expect(fromSi(toSi(41.5, unit), unit)).toBeCloseTo(41.5, 9)
    }
  })

  it('tells pressures in what an instrument is marked in, and all else in the system of that', () => {
    expect(text(-12.5 * 3386.389, 'pressure', 'inHg')).toBe('-12.5 inHg')
    expect(text(98066.5, 'pressure', 'kgf/cm2')).toBe('1 kgf/cm²')
    expect(unitFor('volume', 'inHg').id).toBe('gal')
    expect(Object.keys(SCALES)).toContain('mbar')
  })

  it('keeps number and unit apart', () => {
    expect(parts(60 * psi.factor, 'pressure', 'us')).toEqual({ number: '60', unit: 'psi' })
    expect(digits(-0.0001, psi)).toBe('0')
  })

  it.each([
    ['40', 40],
    [' 2,75 ', 2.75],
    ['.5', 0.5],
    ['-3', -3],
    ['12.', 12],
    ['4o', null],
    ['', null],
    ['1e5', null],
    ['0x10', null],
    ['Infinity', null],
  ])('reads %j as %j', (typed, number) => {
    expect(parse(typed)).toBe(number)
  })

  it('lands on whole steps', () => {
    expect(snapped(40.4 * psi.factor, psi)).toBe(40)
    expect(snapped(2.77e5, bar)).toBeCloseTo(2.75, 9)
  })
})
