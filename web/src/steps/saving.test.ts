import { expect, test } from 'vitest'
import { isAmiss, savingText, type Saving } from './saving'

const calm: Saving = { waiting: 0, trouble: '', online: true, step: 7 }

test.each<[Partial<Saving>, string, boolean]>([
  [{}, 'saved · step 7', false],
  [{ waiting: 1 }, 'saving', false],
  [{ waiting: 3, trouble: 'away' }, '3 steps waiting', true],
  [{ waiting: 1, trouble: 'away' }, '1 step waiting', true],
  [{ waiting: 2, trouble: 'away', online: false }, 'offline: your steps are kept here', true],
  [{ online: false }, 'offline: new pictures come later', true],
  [{ waiting: 2, trouble: 'signed-out' }, 'signed out: 2 steps kept here', true],
])('what is true is told: %o', (more, text, amiss) => {
  expect([savingText({ ...calm, ...more }), isAmiss({ ...calm, ...more })]).toEqual([text, amiss])
})
