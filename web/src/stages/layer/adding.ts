import { TICKS_PER_SECOND, type Clip, type Step } from '@/api/types'

/** Layers that are not made of takes, as they are first placed. */

export interface Fresh {
  id: string
  name: string
  help: string
  clip: Record<string, unknown>
}

const SECONDS = 3

export const FRESH: Fresh[] = [
  {
    id: 'text',
    name: 'Text',
    help: 'Words, in any font and script',
    clip: { kind: 'text', name: 'Text', text: 'Your words', width: 860 },
  },
  ...(
    [
      ['rectangle', 'Rectangle', 'With round corners if wanted'],
      ['ellipse', 'Ellipse', 'Or a circle'],
      ['polygon', 'Polygon', 'Three corners and more'],
      ['star', 'Star', 'With as many points as wanted'],
      ['line', 'Line', 'Straight, with dashes if wanted'],
    ] as const
  ).map(([form, name, help]) => ({ id: form, name, help, clip: shape(form, name) })),
  {
    id: 'path',
    name: 'Pen path',
    help: 'Set point by point on the picture',
    clip: {
      ...shape('path', 'Path'),
      form: { kind: 'path', contours: [] },
      stroke: { fill: { kind: 'plain', colour: '#fff4e2' }, width: 10 },
    },
  },
  {
    id: 'colour',
    name: 'Colour',
    help: 'One colour over the whole canvas',
    clip: { kind: 'solid', name: 'Colour', fill: { kind: 'plain', colour: '#5d4384' } },
  },
  {
    id: 'gradient',
    name: 'Gradient',
    help: 'From one colour to another; its ends are dragged on the picture',
    clip: { kind: 'solid', name: 'Gradient', fill: { kind: 'straight' } },
  },
  {
    id: 'adjustment',
    name: 'Adjustment',
    help: 'Its grade and effects work on all that lies below',
    clip: { kind: 'adjustment', name: 'Adjustment' },
  },
]

function shape(form: string, name: string): Record<string, unknown> {
  const line = form === 'line'
  const fill = { kind: 'plain', colour: line ? '#fff4e2' : '#e5604d' }
  return {
    kind: 'shape',
    name,
    form: { kind: form },
    fill: line || form === 'path' ? null : fill,
    stroke: line ? { fill, width: 12 } : null,
  }
}

/** What fresh texts and shapes are made for; on other canvases they are sized to fit. */
const SHORT_SIDE = 1080

/** The step that lays a fresh clip above everything at a tick. */
export function placeStep(
  fresh: Record<string, unknown>,
  at: number,
  canvas = { width: SHORT_SIDE, height: SHORT_SIDE },
): Step {
  const factor = Math.min(canvas.width, canvas.height) / SHORT_SIDE
  const drawn = fresh.kind === 'text' || (fresh.kind === 'shape' && !fresh.place)
  const size = [factor, factor].map((one) => Math.round(one * 1000) / 1000)
  const clip = drawn && factor !== 1 ? { ...fresh, place: { size } } : fresh
  const whole = { length: SECONDS * TICKS_PER_SECOND, ...clip } as unknown as Clip
  return { kind: 'place', clip: whole as never, mode: 'above', at }
}

/** The step that pastes a kept element, fitted from the canvas it was made on to another one. */
export function elementStep(
  content: Record<string, unknown>,
  at: number,
  canvas: { width: number; height: number },
): Step {
  const copies = (content.copies ?? []) as { clip: Record<string, unknown> }[]
  const factor = Math.min(
    canvas.width / Number(content.width ?? canvas.width),
    canvas.height / Number(content.height ?? canvas.height),
  )
  return {
    kind: 'paste',
    at,
    copies: copies.map((one) => ({ ...one, clip: fitted(one.clip, factor) })) as never,
  }
}

/** A clip whose place stands still, made larger about the middle of the canvas. */
function fitted(clip: Record<string, unknown>, factor: number): Record<string, unknown> {
  const place = clip.place as { position?: unknown; size?: unknown; fit?: string } | undefined
  const ownSize = clip.kind === 'text' || clip.kind === 'shape' || place?.fit === 'own'
  if (!place || factor === 1) return clip
  const times = (value: unknown, by: number) =>
    Array.isArray(value) ? value.map((one) => Number(one) * by) : value
  return {
    ...clip,
    place: {
      ...place,
      position: times(place.position, factor),
      size: ownSize ? times(place.size, factor) : place.size,
    },
  }
}
