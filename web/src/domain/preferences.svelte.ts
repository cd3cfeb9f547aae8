import { SYSTEMS, type System } from './units'

export type Theme = 'day' | 'cellar'

function stored(name: string): string | null {
  try {
    return localStorage.getItem(name)
  } catch {
    return null
  }
}
function store(name: string, value: string) {
  try {
    localStorage.setItem(name, value)
  } catch {
    // A browser that keeps nothing still works for this visit.
  }
}

/** Theme and units as this person last chose them on this device; a site's own units take over when it is opened. */
class Preferences {
  theme = $state<Theme>(stored('zerodip.theme') === 'cellar' ? 'cellar' : 'day')
  units = $state<System>(SYSTEMS.find(({ id }) => id === stored('zerodip.units'))?.id ?? 'us')

  /** Whether single letters are commands: whoever dictates, or leans on the keys, can turn them off. */
  keys = $state(stored('zerodip.keys') !== 'off')

  setKeys(keys: boolean) {
    this.keys = keys
    store('zerodip.keys', keys ? 'on' : 'off')
  }
  setTheme(theme: Theme) {
    this.theme = theme
    store('zerodip.theme', theme)
    this.show()
  }
  setUnits(units: System) {
    this.units = units
    store('zerodip.units', units)
  }
  show() {
    document.documentElement.dataset.theme = this.theme
  }
}

export const preferences = new Preferences()
