import kinds from '../../api/generated/kinds.gen'
import practice from '../../api/generated/practice.gen'
import type { System } from '../units'

/** Kinds and options in a technician's words. */
export const KIND_WORDS: Record<string, string> = kinds

export const OPTION_WORDS: Record<string, string> = {
  ...KIND_WORDS,
  two_below: 'usual',
  two_to_three_below: 'usual, wider',
  five_below: 'wide',
  computed: 'computed',
  two: 'two nuts',
  one: 'one screw',
  points: 'two set-point screws',
  constant: 'one flow, measured',
  rated_point: 'one flow at one pressure',
  curve: 'head–flow curve',
  unsaid: 'not said',
  indoors: 'indoors',
  cellar: 'in a cellar',
  pit: 'in a pit',
  outdoors: 'outdoors',
  submersible: 'submersible, in the water',
  surface: 'on the surface',
  diaphragm: 'diaphragm pump',
  centrifugal: 'centrifugal pump',
}

const PRACTICE_WORDS: Record<System, Record<string, Record<string, string>>> = practice

/** The words of a field's options: of the practice as the core has them, in the units chosen. */
export const optionWords = (name: string, system: System): Record<string, string> =>
  PRACTICE_WORDS[system][name] ?? OPTION_WORDS
