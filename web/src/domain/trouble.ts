/** An answer to the diagnosis: yes or no, a figure (SI), or that it cannot be told here. */
export type Answer = boolean | number | 'cannot'

/** The answer as a visit records it. */
export function saw(item: string, answer: Answer) {
  const value = typeof answer === 'number' ? answer : null
  const says = answer === 'cannot' ? answer : value !== null ? 'figure' : answer ? 'yes' : 'no'
  return { item, says, value }
}
