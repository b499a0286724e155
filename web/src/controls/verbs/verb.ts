import type { Component } from 'vue'
import { isPaced, type Clip, type Marker, type Step, type Take, type Track } from '@/api/types'
import type { InHand } from '@/stores/hand'

export type { InHand }

export interface Situation {
  hand: InHand[]
  /** Playhead in ticks. */
  at: number
  /** Ticks of a frame. */
  frame?: number
  tracks?: Track[]
  /** Whether a group is open. */
  inGroup?: boolean
  markers?: Marker[]
  /** Clips copied before. */
  copied?: number
  /** The take that is chosen in the library. */
  chosen?: Take | null
}

/** What verbs do that is no step of the project. */
export interface Hands {
  copy(hand: InHand[]): void
  paste(at: number): void
  takeAll(ids: string[]): void
  enter(group: string): void
  leave(): void
  loop(): void
  keepFrame(): void
  takeOut(ids: string[]): void
  giveSettings(): void
}

/** Something that can be done to what is in hand; bar, keyboard and help are made from these. */
export interface Verb {
  id: string
  label: string
  /** What will happen, as a sentence. */
  help: string
  key: string
  icon: Component
  danger?: boolean
  /** Whether holding its key does it again and again. */
  repeats?: boolean
  /** Stands in the menu instead of the bar. */
  more?: boolean
  /** Which of the clips that its step makes come in hand. */
  brings?: 'all' | 'first'
  shown(now: Situation): boolean
  ready(now: Situation): boolean
  /** The step it sends; verbs without one act by themselves. */
  step?(now: Situation): Step
  /** The tick at which what is at the playhead lies after its step; null where it stays. */
  moves?(now: Situation): number | null
  act?(now: Situation, hands: Hands): void
}

export const ids = (now: Situation) => now.hand.map(({ clip }) => clip.id ?? '')
export const inside = ({ hand, at }: Situation) =>
  hand.some(({ clip }) => (clip.start ?? 0) < at && at < (clip.start ?? 0) + clip.length)
export const over = ({ hand, at }: Situation) =>
  hand.some(({ clip }) => (clip.start ?? 0) <= at && at < (clip.start ?? 0) + clip.length)
export const any = ({ hand }: Situation) => hand.length > 0
export const always = () => true
export const single = ({ hand }: Situation) => hand.length === 1
export const onTrack = (now: Situation, kind: Track['kind']) => now.hand[0]?.track.kind === kind
export const onFree = ({ hand }: Situation) =>
  hand.length > 0 && hand.every(({ track }) => !track.closes_gaps)
export const paced = ({ hand }: Situation) => hand.some(({ clip }) => isPaced(clip))
export const ofKind = (now: Situation, kind: Clip['kind']) => now.hand[0]?.clip.kind === kind
export const frameOf = (now: Situation) => now.frame ?? 705_600_000 / 30
