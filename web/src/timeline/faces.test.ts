import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Clip, Take } from '@/api/types'
import { drawFace } from '@/timeline/faces'

const loading: { onload?: () => void; complete: boolean; naturalWidth: number }[] = []

class SlowImage {
  onload?: () => void
  complete = false
  naturalWidth = 0
  src = ''
  constructor() {
    loading.push(this)
  }
}

const take = {
  id: 't1',
  strip: { width: 40, height: 40, count: 3, columns: 3, step: 1 },
  has_peaks: false,
} as unknown as Take
const clip = { kind: 'still', length: 100 } as unknown as Clip
const seen = { from: 0, to: 40, pxPerSecond: 10, height: 40, slip: 0 }

function face() {
  const drawn = { count: 0 }
  const context = { scale() {}, translate() {}, drawImage: () => (drawn.count += 1) }
  const canvas = { style: {}, getContext: () => context } as unknown as HTMLCanvasElement
  const draw = () => drawFace(canvas, clip, take, seen, draw)
  return { draw, drawn }
}

describe('faces of clips', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('are all drawn when what they show has come, and it is asked for once', () => {
    vi.stubGlobal('Image', SlowImage)
    vi.stubGlobal('window', { devicePixelRatio: 1 })
    const faces = [face(), face(), face()]
    for (const one of faces) one.draw()
    expect(loading).toHaveLength(1)
    expect(faces.map(({ drawn }) => drawn.count)).toEqual([0, 0, 0])
    Object.assign(loading[0] ?? {}, { complete: true, naturalWidth: 120 })
    loading[0]?.onload?.()
    expect(faces.map(({ drawn }) => drawn.count)).toEqual([1, 1, 1])
  })
})
