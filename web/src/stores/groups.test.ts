import { expect, test } from 'vitest'
import type { Track } from '@/api/types'
import { findGroup } from './groups'

const inner = { kind: 'group', id: 'inner', tracks: [{ clips: [{ kind: 'solid', id: 's' }] }] }
const outer = { kind: 'group', id: 'outer', tracks: [{ clips: [inner] }] }
const tracks = [{ clips: [{ kind: 'video', id: 'v' }, outer] }] as unknown as Track[]

test('groups are found however deep they lie', () => {
  expect(findGroup(tracks, 'outer')?.id).toBe('outer')
  expect(findGroup(tracks, 'inner')?.id).toBe('inner')
})

test('what is no group is none', () => {
  expect(findGroup(tracks, 'v')).toBeNull()
  expect(findGroup(tracks, 'gone')).toBeNull()
})
