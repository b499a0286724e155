import type { Schemas } from '@/api/client'
import { t } from '@/texts'

type Mask = NonNullable<Schemas['Zone']['masks']>[number]
/** A zone as it is sent: the server fills in what is left out. */
export type ZoneStart = Record<string, unknown>

/** Zones to begin from: what they mean is set by hand afterwards. */
export const STARTS: { id: string; name: string; help: string; zone: ZoneStart }[] = [
  {
    id: 'ellipse',
    name: t('grade.zones.ellipse'),
    help: t('grade.zones.insideAnEllipse'),
    zone: { masks: [mask('ellipse', { size: [0.18, 0.18], outwards: 0.05 })] },
  },
  {
    id: 'rectangle',
    name: t('grade.zones.rectangle'),
    help: t('grade.zones.insideARectangleWithRound'),
    zone: { masks: [mask('rectangle', { size: [0.18, 0.12], radius: 0.03, outwards: 0.04 })] },
  },
  {
    id: 'edge',
    name: t('grade.zones.edge'),
    help: t('grade.zones.onOneSideOfA'),
    zone: { masks: [mask('edge', { inwards: 0.06, outwards: 0.06 })] },
  },
  {
    id: 'path',
    name: t('grade.zones.pen'),
    help: t('grade.zones.insideALineOfPoints'),
    zone: { masks: [mask('path', { contours: [], inwards: 0.01, outwards: 0.02 })] },
  },
  {
    id: 'brush',
    name: t('grade.zones.brush'),
    help: t('grade.zones.whatYouPaintWithA'),
    zone: { masks: [mask('brush', {})] },
  },
  {
    id: 'bright',
    name: t('grade.zones.bright'),
    help: t('grade.zones.onlyBrightParts'),
    zone: { brightness: { low: 65, high: 100, softness: 12 } },
  },
  {
    id: 'dark',
    name: t('grade.zones.dark'),
    help: t('grade.zones.onlyDarkParts'),
    zone: { brightness: { low: 0, high: 30, softness: 12 } },
  },
  {
    id: 'skin',
    name: t('grade.zones.skin'),
    help: t('grade.zones.huesOfSkin'),
    zone: { hues: { middle: 123, width: 36 } },
  },
  {
    id: 'hue',
    name: t('grade.zones.hue'),
    help: t('grade.zones.huesOfOneKindSuch'),
    zone: { hues: { middle: 330, width: 50 } },
  },
]

function mask(kind: Mask['kind'], more: Record<string, unknown>): Mask {
  return { kind, id: newMaskId(), ...more } as Mask
}

function newMaskId(): string {
  return `mask-${Math.random().toString(36).slice(2, 10)}`
}
