/** The shapes a project can have, besides one's own. */
export const SHAPES = [
  { name: '9:16', width: 1080, height: 1920 },
  { name: '4:5', width: 1080, height: 1350 },
  { name: '1:1', width: 1080, height: 1080 },
  { name: '16:9', width: 1920, height: 1080 },
  { name: '4:3', width: 1440, height: 1080 },
] as const

/** The name of a shape by its size, else the size. */
export function shapeName(width: number, height: number): string {
  const known = SHAPES.find((one) => one.width * height === one.height * width)
  return known?.name ?? `${width}:${height}`
}
