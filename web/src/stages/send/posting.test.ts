import { expect, test } from 'vitest'
import type { Post } from '@/stores/posts'
import { asLocal, postText, tagsOf } from './posting'

const job: Post['job'] = {
  id: 'j',
  kind: 'post',
  subject: 's',
  state: 'waiting',
  paused: false,
  priority: 0,
  doing: '',
  share: 0,
  left: null,
  problem: null,
  due_at: null,
  made_at: '',
  started_at: null,
  finished_at: null,
  remarks: [],
}
const post = (more: Partial<Post>, of: Partial<Post['job']> = {}): Post => ({
  id: 'p',
  film: null,
  title: '',
  caption: '',
  tags: [],
  cover_at: 0,
  shown_at: null,
  wanted: true,
  there: '',
  reasons: [],
  trouble: '',
  address: '',
  seen: 0,
  liked: 0,
  ...more,
  job: { ...job, ...of },
})

const NOW = Date.parse('2026-03-01T12:00:00Z')
const later = '2026-03-01T12:01:05Z'
const cut = 'The line was cut.'

test.each<[string, Post]>([
  ['waits for its turn', post({})],
  ['waits until the film is made', post({}, { doing: 'making' })],
  ['42 % sent', post({}, { state: 'working', doing: 'sending', share: 0.429 })],
  ['The line was cut. It is tried again in 1:05.', post({ trouble: cut }, { due_at: later })],
  ['The line was cut. It is tried again now.', post({ trouble: cut }, { state: 'working' })],
  ['is there, and is being looked at', post({ there: 'looked-at' }, { doing: 'looked-at' })],
  ['is being taken down', post({ wanted: false, there: 'live' })],
  ['seen 12 times, liked 3 times', post({ there: 'live', seen: 12, liked: 3 }, { state: 'done' })],
  ['was not taken', post({ there: 'refused' }, { state: 'failed' })],
  ['taken down', post({ there: 'gone', wanted: false }, { state: 'done' })],
  ['not posted', post({}, { state: 'cancelled' })],
])('%s', (text, one) => {
  expect(postText(one, NOW)).toBe(text)
})

test('what is scheduled says when', () => {
  const shown = postText(post({ there: 'waiting', shown_at: '2026-03-02T09:30:00Z' }), NOW)
  expect(shown).toMatch(/shown on .*2026/)
})

test('tags are words, however they are parted', () => {
  expect(tagsOf(' #kites, rain  ##paper ')).toEqual(['kites', 'rain', 'paper'])
  expect(tagsOf(' , # ')).toEqual([])
})

test('a moment in a field is the same moment again', () => {
  const moment = new Date('2026-07-01T10:20:00Z')
  expect(new Date(asLocal(moment)).getTime()).toBe(moment.getTime())
})
