import { expect, test } from 'vitest'
import { isKnown } from './known'

test('what is looked at without a line is kept, what is drawn or streamed is not', () => {
  for (const path of [
    '/api/session',
    '/api/projects',
    '/api/projects/1-2',
    '/api/projects/1-2/takes',
    '/api/kit/grade',
    '/api/takes/1-2/files/poster.jpg',
  ]) {
    expect(isKnown(path), path).toBe(true)
  }
  for (const path of [
    '/api/events',
    '/api/account/archive/file',
    '/api/projects/1-2/revisions/3/picture',
    '/api/exports/1/file',
    '/api/takes/1-2/files/proxy.mp4',
  ]) {
    expect(isKnown(path), path).toBe(false)
  }
})
