import { afterEach, describe, expect, it, vi } from 'vitest'
import type { SoundingClip, Take } from '@/api/types'
import { stretchFor, waveOf } from '@/timeline/peaks'
import { drawWave, heard, loudnessAt, shown } from '@/timeline/waves'

const SECOND = 705_600_000
const clip = {
  kind: 'sound',
  length: 4 * SECOND,
  gain: -6,
  fade_in: SECOND,
  fade_in_shape: 'straight',
} as unknown as SoundingClip

describe('waves', () => {
  it('are as loud as gain, fades and mute make them', () => {
    expect(loudnessAt(clip, 2 * SECOND)).toBeCloseTo(0.501, 3)
    expect(loudnessAt(clip, SECOND / 2)).toBeCloseTo(0.2506, 3)
    expect(loudnessAt(clip, 0)).toBe(0)
    expect(loudnessAt({ ...clip, muted: true }, 2 * SECOND)).toBe(0)
    const keys = [0, 4].map((at) => ({
      at: at * SECOND,
      value: -10 * at,
      ease: { kind: 'steady' },
    }))
    const falling = { ...clip, gain: { keys }, fade_in: 0 } as unknown as SoundingClip
    expect(loudnessAt(falling, 2 * SECOND)).toBeCloseTo(0.1, 3)
  })

  it('have the sides that are heard', () => {
    expect(heard([-1, 1, 0, 0.5], 'left')).toEqual([-1, 1, -1, 1])
    expect(heard([-1, 1, 0, 0.5], 'swapped')).toEqual([0, 0.5, -1, 1])
    expect(heard([-1, 1, 0, 0.5], 'mono')).toEqual([-0.5, 0.75, -0.5, 0.75])
  })

  it('reach from the middle by level, or by decibels down to -60', () => {
    expect([0.5, -2].map((level) => shown(level, false))).toEqual([0.5, 1])
    expect(shown(1, true)).toBe(1)
    expect(shown(10 ** -1.5, true)).toBeCloseTo(0.5, 6)
    expect(shown(0, true)).toBe(0)
  })

  it('are drawn from stretches that are no longer than a pixel', () => {
    expect([2000, 480, 479, 64, 20, 5, 1, 0.1].map(stretchFor)).toEqual([
      480, 480, 64, 64, 16, 4, 1, 1,
    ])
  })

  it('are drawn sample by sample where there is room for each', () => {
    const spots: number[][] = []
    const context = {
      beginPath() {},
      stroke() {},
      fillRect() {},
      moveTo: (x: number, y: number) => spots.push([x, y]),
      lineTo: (x: number, y: number) => spots.push([x, y]),
    } as unknown as CanvasRenderingContext2D
    const place = { from: 0, to: 30, pxPerSecond: 480_000, top: 0, height: 100 }
    const wave = (from: number): [number, number, number, number] => {
      const value = Math.round(from) % 2 ? -0.5 : 0.5
      return [value, value, value, value]
    }
    const loud = { ...clip, gain: 0, fade_in: 0 }
    const look = { apart: false, decibels: false }
    drawWave(context, loud, wave, place, (seconds) => seconds * 48_000, look)
    expect(spots.slice(0, 3)).toEqual([
      [0, 25],
      [10, 75],
      [20, 25],
    ])
  })
})

describe('what waves are drawn from', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('is coarse until what is finer has come, asked for once', async () => {
    const answers: Record<string, ArrayBuffer> = {
      '/api/takes/t9/files/waveform.i8': new Int8Array([-64, 64, 0, 0, -127, 127, 0, 0]).buffer,
      '/api/takes/t9/waveform?first=0&count=4096&each=64': new Int16Array([-3277, 3277, 0, 0])
        .buffer,
    }
    const asked: string[] = []
    vi.stubGlobal('document', { cookie: '' })
    vi.stubGlobal('fetch', (url: string) => {
      asked.push(url)
      return Promise.resolve(new Response(answers[url]))
    })
    const take = { id: 't9' } as unknown as Take
    let redrawn = 0
    const redraw = () => (redrawn += 1)
    expect(waveOf(take, 100, redraw)).toBeNull()
    await vi.waitFor(() => expect(redrawn).toBe(1))
    const wave = waveOf(take, 100, redraw)
    expect(wave?.(0, 64)[1]).toBeCloseTo(0.504, 3)
    await vi.waitFor(() => expect(redrawn).toBe(2))
    expect(waveOf(take, 100, redraw)?.(0, 64)[1]).toBeCloseTo(0.1, 3)
    expect(asked).toHaveLength(2)
  })
})
