import type { Stage } from './stage'

const found = import.meta.glob<Omit<Stage, 'id'>>('./*/stage.ts', {
  eager: true,
  import: 'default',
})

/** All stages there are, in the order of the job. */
export const STAGES: Stage[] = Object.entries(found)
  .map(([path, stage]) => ({ ...stage, id: path.split('/')[1] ?? '' }))
  .sort((a, b) => a.place - b.place)

export function stageOf(id: string): Stage {
  const stage = STAGES.find((one) => one.id === id) ?? STAGES[0]
  if (!stage) throw new Error('There is no stage.')
  return stage
}
