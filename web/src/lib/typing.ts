/** Whether a key press belongs to a field or to the browser, so that single-key commands leave it alone. */
export function typing(event: KeyboardEvent): boolean {
  const field = event.target instanceof HTMLElement && event.target.matches('input:not([type=range]), select, textarea')
  return field || event.ctrlKey || event.metaKey || event.altKey
}
