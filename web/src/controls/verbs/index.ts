import { CUTTING } from './cutting'
import { EDGES } from './edges'
import { MOVING } from './moving'
import { SEVERAL } from './several'
import { TIMING } from './timing'
import type { Verb } from './verb'

export type { Hands, InHand, Situation, Verb } from './verb'

export const VERBS: Verb[] = [...CUTTING, ...SEVERAL, ...TIMING, ...EDGES, ...MOVING]
