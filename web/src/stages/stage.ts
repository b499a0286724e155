import type { Component } from 'vue'
import type { Binding } from '@/controls/keys'
import type { Verb } from '@/controls/verbs'

/** What a stage brings: it says so in the file `stage.ts` of its folder, and is found there. */
export interface Stage {
  /** Name of its folder, and its part of addresses. */
  id: string
  name: string
  /** Its place among the stages: the order of the job. */
  place: number
  icon: Component
  bench: Component
  /** What it puts on the picture; without one, the handles of the layer in hand. */
  overlay?: Component
  /** On a phone: what of the stage is always needed, beside the picture. */
  side?: Component
  /** On a phone: what lies over the picture, playing or not. */
  band?: Component
  /** Verbs that only it has. */
  verbs?: Verb[]
  /** Keys that only it has. */
  keys?: () => Binding[]
}

/** A stage as its file tells it; its folder says which it is. */
export const defineStage = (stage: Omit<Stage, 'id'>) => stage
