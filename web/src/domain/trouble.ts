/** An answer to the diagnosis: yes or no, a figure (SI), that a time did not come to an end, or that it cannot be told here. */
export type Answer = boolean | number | 'never' | 'cannot'
/** One thing that was looked at, and what was seen, maybe once more. */
export interface Seen {
  item: string
  answer: Answer
  again: boolean
}

/** The answer as a visit records it. */
export function saw({ item, answer, again }: Seen) {
  const value = typeof answer === 'number' ? answer : null
  const yes = answer === true || answer === 'never'
  const says = answer === 'cannot' ? answer : value !== null ? 'figure' : yes ? 'yes' : 'no'
  return { item, says, value, again }
}

/** The answer as a file of evidence holds it. */
export function evidence({ item, answer, again }: Seen) {
  return { item, value: answer === 'never' ? true : answer, again }
}
