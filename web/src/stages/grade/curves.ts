import { t } from '@/texts'

/** The curves of a grade, as they are offered. */
export const CURVES = [
  {
    id: 'luma',
    name: t('grade.curves.luma'),
    colour: '#e2d8ec',
    help: t('grade.curves.brightnessColoursStay'),
    hues: false,
  },
  { id: 'red', name: 'R', colour: '#ff6a5e', help: t('grade.curves.red'), hues: false },
  { id: 'green', name: 'G', colour: '#5fd980', help: t('grade.curves.green'), hues: false },
  { id: 'blue', name: 'B', colour: '#7a9dff', help: t('grade.curves.blue'), hues: false },
  {
    id: 'hue_to_hue',
    name: t('grade.curves.hueHue'),
    colour: '#e2d8ec',
    help: t('grade.curves.turnsHuesByHueThe'),
    hues: true,
  },
  {
    id: 'hue_to_saturation',
    name: t('grade.curves.hueSat'),
    colour: '#e2d8ec',
    help: t('grade.curves.strongerAboveTheMiddleWeaker'),
    hues: true,
  },
] as const
export type GradeCurve = (typeof CURVES)[number]
