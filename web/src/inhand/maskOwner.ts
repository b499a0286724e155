import type { ComputedRef } from 'vue'
import type { BrushStrokeOf, Mask, Step } from '@/api/types'
import { valueAt } from '@/motion/keys'
import { t } from '@/texts'

/** Something in hand that has masks on its picture: a layer, or a zone of a grade. */
export interface MaskOwner {
  masks: ComputedRef<Mask[]>
  /** Index of the mask in hand. */
  taken: ComputedRef<number>
  take: (index: number) => void
  /** Tick at the playhead from the start of the clip. */
  local: ComputedRef<number>
  add: (mask: object) => Promise<boolean>
  remove: (index: number) => void
  /** The step that sets values of the mask at an index, as they are. */
  step: (values: Record<string, unknown>, index: number) => Step
  send: (step: Step) => Promise<boolean>
  addStroke: (index: number, stroke: BrushStrokeOf) => void
  removeStroke: (index: number, stroke: number) => void
}

const soft = { inwards: 0.02, outwards: 0.03 }

/** Masks to begin from. */
export const FRESH_MASKS = [
  {
    id: 'ellipse',
    name: t('inhand.maskOwner.ellipse'),
    mask: { kind: 'ellipse', size: [0.16, 0.16], ...soft },
  },
  {
    id: 'rectangle',
    name: t('inhand.maskOwner.rectangle'),
    mask: { kind: 'rectangle', size: [0.16, 0.12], radius: 0.02, ...soft },
  },
  { id: 'edge', name: t('inhand.maskOwner.straightEdge'), mask: { kind: 'edge', ...soft } },
  { id: 'path', name: t('inhand.maskOwner.penPath'), mask: { kind: 'path', contours: [] } },
  { id: 'brush', name: t('inhand.maskOwner.brush'), mask: { kind: 'brush' } },
  {
    id: 'leave-out',
    name: t('inhand.maskOwner.roughAreaToLeaveOut'),
    mask: {
      kind: 'rectangle',
      size: [0.1, 0.5],
      centre: [-0.2, 0],
      invert: true,
      join: 'intersect',
      ...soft,
    },
  },
] as const

/** What was painted of a mask, as it stands at a tick; nothing of one that is not painted. */
export function strokesAt(mask: Mask | null, tick: number): BrushStrokeOf[] {
  if (mask?.kind !== 'brush') return []
  return (valueAt(mask.strokes, tick) as BrushStrokeOf[] | undefined) ?? []
}

/** How a mask goes together with those before it. */
export const JOINS = [
  { id: 'add', name: t('inhand.maskOwner.add') },
  { id: 'subtract', name: t('inhand.maskOwner.subtract') },
  { id: 'intersect', name: t('inhand.maskOwner.intersect') },
] as const

/** The tool that belongs to a kind of mask. */
export const TOOLS: Partial<Record<Mask['kind'], 'pen' | 'brush'>> = { path: 'pen', brush: 'brush' }
