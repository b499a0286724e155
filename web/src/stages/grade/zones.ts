import type { Schemas } from '@/api/client'

type Mask = NonNullable<Schemas['Zone']['masks']>[number]
/** A zone as it is sent: the server fills in what is left out. */
export type ZoneStart = Record<string, unknown>

/** Zones to begin from: what they mean is set by hand afterwards. */
export const STARTS: { id: string; name: string; help: string; zone: ZoneStart }[] = [
  {
    id: 'ellipse',
    name: 'Ellipse',
    help: 'Inside an ellipse',
    zone: { masks: [mask('ellipse', { size: [0.18, 0.18], outwards: 0.05 })] },
  },
  {
    id: 'rectangle',
    name: 'Rectangle',
    help: 'Inside a rectangle with round corners',
    zone: { masks: [mask('rectangle', { size: [0.18, 0.12], radius: 0.03, outwards: 0.04 })] },
  },
  {
    id: 'edge',
    name: 'Edge',
    help: 'On one side of a straight edge, such as a sky',
    zone: { masks: [mask('edge', { inwards: 0.06, outwards: 0.06 })] },
  },
  {
    id: 'path',
    name: 'Pen',
    help: 'Inside a line of points that you set',
    zone: { masks: [mask('path', { contours: [], inwards: 0.01, outwards: 0.02 })] },
  },
  {
    id: 'brush',
    name: 'Brush',
    help: 'What you paint with a finger',
    zone: { masks: [mask('brush', {})] },
  },
  {
    id: 'bright',
    name: 'Bright',
    help: 'Only bright parts',
    zone: { brightness: { low: 65, high: 100, softness: 12 } },
  },
  {
    id: 'dark',
    name: 'Dark',
    help: 'Only dark parts',
    zone: { brightness: { low: 0, high: 30, softness: 12 } },
  },
  { id: 'skin', name: 'Skin', help: 'Hues of skin', zone: { hues: { middle: 123, width: 36 } } },
  {
    id: 'hue',
    name: 'Hue',
    help: 'Hues of one kind, such as the blue of a sky',
    zone: { hues: { middle: 330, width: 50 } },
  },
]

function mask(kind: Mask['kind'], more: Record<string, unknown>): Mask {
  return { kind, id: newMaskId(), ...more } as Mask
}

function newMaskId(): string {
  return `mask-${Math.random().toString(36).slice(2, 10)}`
}
