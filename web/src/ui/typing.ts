import { preferences } from '../domain/preferences.svelte'

/** Whether a key press belongs to a field or to the browser. */
export function typing(event: KeyboardEvent): boolean {
  const field =
    event.target instanceof HTMLElement &&
    event.target.matches('input:not([type=range]), select, textarea')
  return field || event.ctrlKey || event.metaKey || event.altKey
}

/** The letter pressed as a command; none while somebody types, or where such commands are turned off (WCAG 2.1.4). */
export function command(event: KeyboardEvent): string | undefined {
  return preferences.keys && !typing(event) ? event.key : undefined
}
