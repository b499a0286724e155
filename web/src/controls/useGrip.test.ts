import { effectScope } from 'vue'
import { beforeEach, expect, test, vi } from 'vitest'
import { useGrip, type Holding } from './useGrip'

vi.stubGlobal('window', new EventTarget())

const at = (type: string, pointerId: number, x: number, button = 0) =>
  Object.assign(new Event(type), { pointerId, clientX: x, clientY: 0, button }) as PointerEvent
const key = (name: string) => Object.assign(new Event('keydown'), { key: name })

let said: string[] = []
beforeEach(() => (said = []))

const telling: Holding<string> = {
  move: ({ dx }, what) => said.push(`move ${what} ${dx}`),
  drop: ({ dx }, what) => said.push(`drop ${what} ${dx}`),
  tap: (_, what) => said.push(`tap ${what}`),
  cancel: (what) => said.push(`cancel ${what}`),
}
const send = (...events: Event[]) => events.forEach((event) => window.dispatchEvent(event))

test('a press that moves is dropped where it is let go', () => {
  const grip = useGrip(telling)
  grip.down(at('pointerdown', 1, 100), 'pin')
  send(at('pointermove', 1, 102), at('pointermove', 1, 110), at('pointerup', 1, 112))
  expect(said).toEqual(['move pin 10', 'drop pin 12'])
  expect(grip.held.value).toBeNull()
})

test('a press that stays is a tap, however the finger trembles', () => {
  const grip = useGrip(telling)
  grip.down(at('pointerdown', 1, 100), 'pin')
  send(at('pointermove', 1, 103), at('pointerup', 1, 103))
  expect(said).toEqual(['tap pin'])
})

test('a second finger neither drops nor steals what is held', () => {
  const grip = useGrip(telling)
  grip.down(at('pointerdown', 1, 100), 'first')
  grip.down(at('pointerdown', 2, 300), 'second')
  send(at('pointermove', 2, 400), at('pointerup', 2, 400), at('pointercancel', 2, 400))
  expect([said, grip.held.value?.what]).toEqual([[], 'first'])
  send(at('pointermove', 1, 120), at('pointerup', 1, 120))
  expect(said).toEqual(['move first 20', 'drop first 20'])
})

test('a pointer that is taken away commits nothing', () => {
  const grip = useGrip(telling)
  grip.down(at('pointerdown', 1, 100), 'pin')
  send(at('pointermove', 1, 120), at('pointercancel', 1, 130), at('pointerup', 1, 130))
  expect(said).toEqual(['move pin 20', 'cancel pin'])
})

test('Escape puts back what is being dragged, and goes no further', () => {
  const grip = useGrip(telling)
  grip.down(at('pointerdown', 1, 100), 'pin')
  const escape = key('Escape')
  send(at('pointermove', 1, 120), key('a'), escape, at('pointerup', 1, 130))
  expect(said).toEqual(['move pin 20', 'cancel pin'])
})

test('what is refused, and other buttons, hold nothing', () => {
  const grip = useGrip<string>({ ...telling, begin: (what) => what !== 'locked' })
  grip.down(at('pointerdown', 1, 100), 'locked')
  grip.down(at('pointerdown', 1, 100, 2), 'pin')
  send(at('pointermove', 1, 120), at('pointerup', 1, 120))
  expect(said).toEqual([])
})

test('without slop the press itself moves', () => {
  const grip = useGrip({ ...telling, slop: 0 })
  grip.down(at('pointerdown', 1, 100), 'ruler')
  send(at('pointerup', 1, 100))
  expect(said).toEqual(['move ruler 0', 'drop ruler 0'])
})

test('a control that goes away lets go without committing', () => {
  const scope = effectScope()
  const grip = scope.run(() => useGrip(telling))
  grip?.down(at('pointerdown', 1, 100), 'pin')
  scope.stop()
  send(at('pointermove', 1, 120), at('pointerup', 1, 120))
  expect(said).toEqual(['cancel pin'])
})

test('a finger that scrolls lifts nothing, one that rests does', () => {
  vi.useFakeTimers()
  const touch = (type: string, x: number) => Object.assign(at(type, 1, x), { pointerType: 'touch' })
  const grip = useGrip({
    ...telling,
    rest: () => 260,
    lift: (_, what) => said.push(`lift ${what}`),
  })
  grip.down(touch('pointerdown', 100), 'clip')
  send(touch('pointermove', 120), touch('pointerup', 120))
  expect(said).toEqual(['cancel clip'])

  said = []
  grip.down(touch('pointerdown', 100), 'clip')
  vi.advanceTimersByTime(300)
  expect(grip.isLifted()).toBe(true)
  send(touch('pointermove', 120), touch('pointerup', 120))
  expect(said).toEqual(['lift clip', 'move clip 20', 'drop clip 20'])
  vi.useRealTimers()
})

test('arrow keys pull what has the focus by a pixel, with Shift by ten', () => {
  vi.stubGlobal(
    'PointerEvent',
    class extends Event {
      clientX: number
      clientY: number
      constructor(type: string, init: { clientX: number; clientY: number }) {
        super(type)
        this.clientX = init.clientX
        this.clientY = init.clientY
      }
    },
  )
  const grip = useGrip(telling)
  const pressed = (name: string, shiftKey = false) => {
    const box = { left: 10, top: 20, width: 8, height: 8 }
    const currentTarget = { getBoundingClientRect: () => box }
    const event = { key: name, shiftKey, currentTarget, preventDefault() {}, stopPropagation() {} }
    grip.key(event as unknown as KeyboardEvent, 'pin')
  }
  pressed('ArrowRight')
  pressed('ArrowLeft', true)
  pressed('Enter')
  expect(said).toEqual(['move pin 1', 'drop pin 1', 'move pin -10', 'drop pin -10'])
})
