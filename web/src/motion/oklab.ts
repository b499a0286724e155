/** Colours mixed through OKLab (B. Ottosson, 2020), as the core does it. */

type Triple = [number, number, number]

const TO_LMS: Triple[] = [
  [0.4122214708, 0.5363325363, 0.0514459929],
  [0.2119034982, 0.6806995451, 0.1073969566],
  [0.0883024619, 0.2817188376, 0.6299787005],
]
const TO_LAB: Triple[] = [
  [0.2104542553, 0.793617785, -0.0040720468],
  [1.9779984951, -2.428592205, 0.4505937099],
  [0.0259040371, 0.7827717662, -0.808675766],
]
const FROM_LMS = inverse(TO_LMS)
const FROM_LAB = inverse(TO_LAB)

const times = (rows: Triple[], [x, y, z]: Triple) =>
  rows.map(([a, b, c]) => a * x + b * y + c * z) as Triple
const each = (values: Triple, change: (one: number) => number) => values.map(change) as Triple

const linear = (coded: number) =>
  coded <= 0.04045 ? coded / 12.92 : ((coded + 0.055) / 1.055) ** 2.4

function coded(value: number): number {
  const within = Math.min(1, Math.max(0, value))
  return within <= 0.0031308 ? within * 12.92 : 1.055 * within ** (1 / 2.4) - 0.055
}

function labOf(colour: string): Triple {
  const bytes = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)) as Triple
  return times(
    TO_LAB,
    each(
      times(
        TO_LMS,
        each(bytes, (byte) => linear(byte / 255)),
      ),
      Math.cbrt,
    ),
  )
}

/** The colour a share (kept within 0..1) of the way from one `#rrggbb` to another. */
export function mixed(first: string, second: string, share: number): string {
  const [a, b] = [labOf(first), labOf(second)]
  const part = Math.min(1, Math.max(0, share))
  const lab = a.map((one, index) => one + ((b[index] ?? 0) - one) * part) as Triple
  const rgb = times(
    FROM_LMS,
    each(times(FROM_LAB, lab), (one) => one ** 3),
  )
  const hex = (one: number) =>
    Math.round(coded(one) * 255)
      .toString(16)
      .padStart(2, '0')
  return `#${rgb.map(hex).join('')}`
}

function inverse([[a, b, c], [d, e, f], [g, h, i]]: Triple[] | [Triple, Triple, Triple]): Triple[] {
  const [A, B, C] = [e * i - f * h, f * g - d * i, d * h - e * g]
  const det = a * A + b * B + c * C
  const row = (...cells: Triple) => cells.map((cell) => cell / det) as Triple
  return [
    row(A, c * h - b * i, b * f - c * e),
    row(B, a * i - c * g, c * d - a * f),
    row(C, b * g - a * h, a * e - b * d),
  ]
}
