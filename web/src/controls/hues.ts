type Rgb = [number, number, number]

/** Red, green and blue 0..255 of a colour difference at a luma (BT.709). */
export function colourOf(cb: number, cr: number, luma: number): Rgb {
  const red = luma + 1.5748 * cr
  const blue = luma + 1.8556 * cb
  const green = (luma - 0.2126 * red - 0.0722 * blue) / 0.7152
  const byte = (one: number) => Math.round(Math.min(1, Math.max(0, one)) * 255)
  return [byte(red), byte(green), byte(blue)]
}

/** A CSS colour for an angle on the vectorscope, in degrees. */
export function hueColour(angle: number, strength = 0.28): string {
  const turn = (angle * Math.PI) / 180
  const rgb = colourOf(Math.cos(turn) * strength, Math.sin(turn) * strength, 0.6)
  return `rgb(${rgb.join(' ')})`
}
