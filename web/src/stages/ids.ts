/** The names of all stages, without loading them: for addresses. */
export const STAGE_IDS = Object.keys(import.meta.glob('./*/stage.ts')).map(
  (path) => path.split('/')[1] ?? '',
)
