import { cleanup, fireEvent, render, screen } from '@testing-library/svelte'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { preferences } from '../domain/preferences.svelte'
import { unitFor } from '../domain/units'
import FieldRow from './FieldRow.svelte'
import QuantityInput from './QuantityInput.svelte'
import Stepper from './Stepper.svelte'

const psi = unitFor('pressure', 'us').factor
const kPa = unitFor('pressure', 'kpa').factor
const box = (role = 'textbox') => screen.getByRole<HTMLInputElement>(role)

beforeEach(() => preferences.setUnits('us'))
afterEach(cleanup)

describe('the box of a quantity', () => {
  it('keeps what is typed as it is typed, and tells it in SI', async () => {
    const onset = vi.fn()
    const { rerender } = render(QuantityInput, {
      value: 30 * psi,
      dimension: 'pressure',
      live: true,
      onset,
    })
    expect(box().value).toBe('30')
    await fireEvent.input(box(), { target: { value: '30.' } })
    expect(onset).toHaveBeenLastCalledWith({ value: 30 * psi, text: '30.', unit: 'psi' })
    await rerender({ value: 30 * psi })
    expect(box().value).toBe('30.')
  })

  it('follows the value when it changes from elsewhere', async () => {
    const { rerender } = render(QuantityInput, {
      value: 30 * psi,
      dimension: 'pressure',
      live: true,
      onset: () => {},
    })
    await fireEvent.input(box(), { target: { value: '31' } })
    await rerender({ value: 45 * psi })
    expect(box().value).toBe('45')
  })

  it('converts when units are switched, and shows what was typed when they come back', async () => {
    render(QuantityInput, {
      value: 1034 * kPa,
      dimension: 'pressure',
      entered: { text: '1034', unit: 'kPa' },
      onset: () => {},
    })
    expect(box().value).toBe('150')
    preferences.setUnits('kpa')
    await Promise.resolve()
    expect(box().value).toBe('1034')
  })
})

describe('a stepper', () => {
  it('reads a thousand kilopascals back as a thousand', async () => {
    preferences.setUnits('kpa')
    const onset = vi.fn()
    render(Stepper, { id: 's', title: 'Cut-out', value: 1034 * kPa, dimension: 'pressure', onset })
    expect(box().value).toBe('1034')
    await fireEvent.change(box(), { target: { value: box().value } })
    expect(onset.mock.lastCall![0]).toBeCloseTo(1034 * kPa)
  })

  it('steps by the unit, from where it starts when nothing is entered yet', async () => {
    const onset = vi.fn()
    const props = { id: 's', title: 'Cut-in', dimension: 'pressure' as const, onset }
    const { rerender } = render(Stepper, { ...props, value: null, start: 38 * psi })
    await fireEvent.click(screen.getByRole('button', { name: 'Cut-in: more' }))
    expect(onset.mock.lastCall).toEqual([38 * psi, false])
    await rerender({ value: 38 * psi })
    await fireEvent.click(screen.getByRole('button', { name: 'Cut-in: less' }))
    expect(onset.mock.lastCall![0]).toBeCloseTo(37 * psi)
  })

  it('passes on what is no number, to be refused by name', async () => {
    const onset = vi.fn()
    render(Stepper, { id: 's', title: 'Cut-in', value: null, dimension: 'pressure', onset })
    await fireEvent.change(box(), { target: { value: 'forty' } })
    expect(onset).toHaveBeenLastCalledWith('forty', true)
    await fireEvent.change(box(), { target: { value: '1,034' } })
    expect(onset).toHaveBeenLastCalledWith('1,034', true)
  })
})

describe('a field', () => {
  const field = {
    kind: 'quantity' as const,
    title: 'Volume',
    dimension: 'volume' as const,
    options: [],
    optional: true,
  }
  it('tells the text of every key, and its faults beside it', async () => {
    const ontype = vi.fn()
    const fault = { path: 'a', code: 'range', message: 'Volume is too large.', allowed: '' }
    const props = { field, path: 'a', value: null, ontype, onput: () => {} }
    render(FieldRow, { ...props, faults: [fault] })
    await fireEvent.input(box(), { target: { value: '4400' } })
    expect(ontype).toHaveBeenLastCalledWith('4400')
    expect(box().getAttribute('aria-invalid')).toBe('true')
    expect(screen.getByText('Volume is too large.')).toBeTruthy()
  })

  it('keeps a yes, a no and a “not seen” apart', async () => {
    const onput = vi.fn()
    const flag = { ...field, kind: 'flag' as const, title: 'Relief valve' }
    render(FieldRow, { field: flag, path: 'b', value: null, faults: [], ontype: () => {}, onput })
    for (const [name, value] of [
      ['Yes', true],
      ['No', false],
      ['Not seen', null],
    ] as const) {
      await fireEvent.click(screen.getByRole('button', { name }))
      expect(onput).toHaveBeenLastCalledWith(value)
    }
  })
})
