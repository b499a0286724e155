/** Tints of poses, in their order; their names stand beside them. */
const TINTS = [
  '#8a8191',
  '#7a8fb0',
  '#d0746a',
  '#c9a15a',
  '#7b6fc4',
  '#5d9e93',
  '#c07aa5',
  '#b9b26a',
]

export function poseTint(poses: readonly string[], pose: string): string {
  const index = Math.max(0, poses.indexOf(pose))
  return TINTS[index % TINTS.length] ?? ''
}
