/** The curves of a grade, as they are offered. */
export const CURVES = [
  { id: 'luma', name: 'Luma', colour: '#e2d8ec', help: 'Brightness; colours stay', hues: false },
  { id: 'red', name: 'R', colour: '#ff6a5e', help: 'Red', hues: false },
  { id: 'green', name: 'G', colour: '#5fd980', help: 'Green', hues: false },
  { id: 'blue', name: 'B', colour: '#7a9dff', help: 'Blue', hues: false },
  {
    id: 'hue_to_hue',
    name: 'Hue → hue',
    colour: '#e2d8ec',
    help: 'Turns hues, by hue; the middle leaves them',
    hues: true,
  },
  {
    id: 'hue_to_saturation',
    name: 'Hue → sat',
    colour: '#e2d8ec',
    help: 'Stronger above the middle, weaker below, by hue',
    hues: true,
  },
] as const
export type GradeCurve = (typeof CURVES)[number]
