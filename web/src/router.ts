import { createRouter } from 'sv-router'
import Rounds from './features/rounds/Rounds.svelte'

/** Addresses. All but Rounds are loaded when they are first opened. */
export const { p, navigate, preload, route } = createRouter({
  '/': Rounds,
  '/systems/:id': () => import('./features/system/SystemSheet.svelte'),
  '/systems/:id/decide': () => import('./features/decide/Decide.svelte'),
  '/systems/:id/trouble': () => import('./features/trouble/TroublePage.svelte'),
  '/trouble': () => import('./features/trouble/TroublePage.svelte'),
  '/visits/:id': () => import('./features/visit/Visit.svelte'),
  '/visits/:id/gauge': () => import('./features/live/BigGauge.svelte'),
  '/stand-ins': () => import('./features/live/StandIns.svelte'),
  '/recordings/:id': () => import('./features/recordings/RecordingPage.svelte'),
  '/bench': () => import('./features/bench/BenchPage.svelte'),
  '/switches/:id': () => import('./features/bench/SwitchPage.svelte'),
  '/calibrations/:id': () => import('./features/bench/CalibrationPage.svelte'),
  '/workspace': () => import('./features/workspace/Workspace.svelte'),
  '/practice': () => import('./features/practice/PracticePage.svelte'),
  '*': () => import('./features/rounds/Lost.svelte'),
})

/** Leaves to the browser the clicks that are its own: with a modifier key, addresses outside the page's router, and links in a
 * drawing, whose address the router cannot read. */
export function leaveToBrowser(event: MouseEvent) {
  const link = event.target instanceof Element ? event.target.closest('a') : null
  if (!link) return
  const modified = event.ctrlKey || event.metaKey || event.shiftKey || event.altKey
  const drawn = !(link instanceof HTMLAnchorElement)
  if (modified || drawn || /^\/(api|papers|static|media)\//.test(link.pathname))
    event.stopPropagation()
}
