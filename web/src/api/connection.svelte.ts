import type { Standing } from '../device/device'

/** How this device stands to the server: what waits to be sent, whether it is reached, what is held. */
class Connection {
  standing = $state.raw<Standing | undefined>()
  /** Another version than this page is there. */
  update = $state(false)
  #watchers = new Set<(systems: string[]) => void>()

  hear(standing: Standing, systems: string[]) {
    this.standing = standing
    if (systems.length) for (const watch of this.#watchers) watch(systems)
  }
  /** Tells when something was written or sent, here or in another tab; by system. */
  onwrite(watch: (systems: string[]) => void): () => void {
    this.#watchers.add(watch)
    return () => this.#watchers.delete(watch)
  }
  get away() {
    return this.standing !== undefined && !this.standing.reached
  }
}

export const connection = new Connection()
