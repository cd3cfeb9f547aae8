import { expect, test } from 'vitest'
import { screwsOf } from './screws'

test('a single switch has one screw, and one more for a deadband that can be adjusted', () => {
  expect(screwsOf([{ deadband: 'fixed' }])).toEqual([['lower', 'Screw']])
  expect(screwsOf([{ deadband: 'adjustable' }])).toEqual([
    ['lower', 'Screw'],
    ['lower_deadband', 'Deadband screw'],
  ])
})

test('a dual one has the upper first', () => {
  expect(screwsOf([{}, { deadband: 'adjustable' }]).map(([, title]) => title)).toEqual([
    'Upper screw',
    'Upper deadband screw',
    'Lower screw',
  ])
})
