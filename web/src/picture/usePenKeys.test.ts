import { expect, test, vi } from 'vitest'
import { ref } from 'vue'
import type { DrawnPoint } from './placing'
import { usePenKeys } from './usePenKeys'

function sheet() {
  const points = ref<DrawnPoint[]>([])
  const drawn = vi.fn(() => (points.value = []))
  const pen = usePenKeys(() => ({ width: 200, height: 100 }), points, drawn)
  const press = (key: string, shiftKey = false) => {
    const event = { key, shiftKey, preventDefault: vi.fn(), stopPropagation: vi.fn() }
    pen.press(event as unknown as KeyboardEvent)
    return event
  }
  return { pen, points, drawn, press }
}

test('arrows move the pen from the middle; it draws between one Space and the next', () => {
  const { pen, points, drawn, press } = sheet()
  press('ArrowRight')
  expect(pen.pen.value).toEqual({ x: 104, y: 50 })
  expect(points.value).toEqual([])
  press(' ')
  press('ArrowDown', true)
  press('ArrowLeft')
  expect(points.value).toEqual([
    { x: 104, y: 50 },
    { x: 104, y: 70 },
    { x: 100, y: 70 },
  ])
  expect(pen.told.value).toBe('The pen draws at 50 % across, 70 % down')
  press(' ')
  expect(drawn).toHaveBeenCalledOnce()
})

test('the pen stays on the sheet; Escape forgets a line, and without one is left to others', () => {
  const { pen, points, press } = sheet()
  for (let i = 0; i < 9; i++) press('ArrowUp', true)
  expect(pen.pen.value).toEqual({ x: 100, y: 0 })
  press(' ')
  expect(press('Escape').stopPropagation).toHaveBeenCalled()
  expect(points.value).toEqual([])
  expect(press('Escape').stopPropagation).not.toHaveBeenCalled()
})
