import { preferences } from '../../domain/preferences.svelte'
import type { Told } from '../../domain/units'

/** In what a switch's or a reference's pressures are told: what it is marked in, else as its reader chose. */
export const toldIn = ({ unit }: Record<string, unknown>) => (unit ?? preferences.units) as Told
