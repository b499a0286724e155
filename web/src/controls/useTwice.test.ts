import { expect, test, vi } from 'vitest'
import { useTwice } from './useTwice'

const tap = (timeStamp: number, clientX = 0, clientY = 0) =>
  ({ timeStamp, clientX, clientY }) as PointerEvent

test('two taps soon and near each other belong together; a third begins anew', () => {
  const run = vi.fn()
  const twice = useTwice(run)
  for (const at of [0, 200, 380]) twice(tap(at))
  expect(run).toHaveBeenCalledTimes(1)
  twice(tap(700))
  expect(run).toHaveBeenCalledTimes(2)
})

test('taps that are late or elsewhere do not', () => {
  const run = vi.fn()
  const twice = useTwice(run)
  twice(tap(0))
  twice(tap(400))
  twice(tap(500, 60))
  expect(run).not.toHaveBeenCalled()
})
