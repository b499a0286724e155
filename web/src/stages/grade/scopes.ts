import { colourOf } from '@/controls/hues'
import type { Counts, ScopeArray } from '@/player/measured'
import { t } from '@/texts'

export type ScopeKind = 'luma' | 'rgb' | 'parade' | 'vectors' | 'histogram'

export const SCOPES: { id: ScopeKind; name: string; help: string; array: ScopeArray }[] = [
  {
    id: 'luma',
    name: t('grade.scopes.luma'),
    help: t('grade.scopes.brightnessAcrossTheFrame'),
    array: 'luma',
  },
  {
    id: 'rgb',
    name: t('grade.scopes.rgb'),
    help: t('grade.scopes.redGreenAndBlueAcross'),
    array: 'rgb',
  },
  {
    id: 'parade',
    name: t('grade.scopes.parade'),
    help: t('grade.scopes.redGreenAndBlueSide'),
    array: 'rgb',
  },
  {
    id: 'vectors',
    name: t('grade.scopes.vectors'),
    help: t('grade.scopes.coloursByHueAndStrength'),
    array: 'vectorscope',
  },
  {
    id: 'histogram',
    name: t('grade.scopes.histogram'),
    help: t('grade.scopes.howManyPixelsHaveWhich'),
    array: 'histogram',
  },
]

export const MOST_SCOPES = 3
export const LEVELS = 256

type Rgb = readonly [number, number, number]

const LIGHT: Rgb = [226, 216, 236]
const CHANNELS: readonly Rgb[] = [
  [255, 82, 70],
  [70, 222, 110],
  [84, 130, 255],
]

/** Brightness 0..1 of a count: a few pixels can be seen, many do not drown the rest. */
export function glow(count: number, expected: number): number {
  return count ? 1 - Math.exp((-1.6 * count) / expected - 0.12) : 0
}

/** A waveform as pixels, light on black; `side` puts channels beside each other. */
export function waveformImage(counts: Counts, pixels: number, side: boolean): ImageData {
  const [channels = 1, columns = 1, levels = LEVELS] = counts.shape
  const image = new ImageData(side ? columns * channels : columns, levels)
  const expected = Math.max(1, pixels / columns / 24)
  for (let channel = 0; channel < channels; channel++) {
    const colour = channels === 1 ? LIGHT : (CHANNELS[channel] ?? LIGHT)
    for (let column = 0; column < columns; column++) {
      const x = side ? channel * columns + column : column
      for (let level = 0; level < levels; level++) {
        const count = counts.data[(channel * columns + column) * levels + level] ?? 0
        if (count) add(image, x, levels - 1 - level, colour, glow(count, expected))
      }
    }
  }
  return opaque(image)
}

/** The vectorscope as pixels: each spot in its own colour. */
export function vectorImage(counts: Counts, pixels: number): ImageData {
  const [size = LEVELS] = counts.shape
  const image = new ImageData(size, size)
  const expected = Math.max(1, pixels / 6000)
  for (let up = 0; up < size; up++) {
    for (let across = 0; across < size; across++) {
      const count = counts.data[up * size + across] ?? 0
      if (!count) continue
      const colour = colourOf((across - size / 2) / size, (up - size / 2) / size, 0.62)
      add(image, across, size - 1 - up, colour, 0.25 + 0.75 * glow(count, expected))
    }
  }
  return opaque(image)
}

function add(image: ImageData, x: number, y: number, colour: Rgb, strength: number) {
  const at = (y * image.width + x) * 4
  for (let k = 0; k < 3; k++) {
    image.data[at + k] = Math.min(255, (image.data[at + k] ?? 0) + (colour[k] ?? 0) * strength)
  }
}

function opaque(image: ImageData): ImageData {
  for (let at = 3; at < image.data.length; at += 4) image.data[at] = 255
  return image
}

/** Outlines of a histogram, one a channel, in a box of 256 × 100. The ends do not set the scale. */
export function histogramPaths(counts: Counts): string[] {
  const [channels = 4, levels = LEVELS] = counts.shape
  const inner: number[] = []
  for (let channel = 1; channel < channels; channel++) {
    for (let level = 2; level < levels - 2; level++) {
      inner.push(counts.data[channel * levels + level] ?? 0)
    }
  }
  inner.sort((a, b) => a - b)
  const top = Math.max(1, inner[Math.floor(inner.length * 0.995)] ?? 1)
  return Array.from({ length: channels - 1 }, (_, index) => {
    const spots = Array.from({ length: levels }, (_, level) => {
      const count = counts.data[(index + 1) * levels + level] ?? 0
      return `L${(level / levels) * 256} ${(100 - Math.min(1, count / top) * 94).toFixed(1)}`
    })
    return `M0 100${spots.join('')}L256 100Z`
  })
}

export function percent(share: number): string {
  const value = share * 100
  return value > 0 && value < 0.1 ? '< 0.1 %' : `${value.toFixed(1)} %`
}
