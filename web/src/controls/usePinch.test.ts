import { beforeEach, expect, test, vi } from 'vitest'
import { usePinch, type Pinching } from './usePinch'

vi.stubGlobal('window', new EventTarget())

const at = (type: string, pointerId: number, x: number) =>
  Object.assign(new Event(type), {
    pointerId,
    clientX: x,
    clientY: 0,
    button: 0,
    pointerType: 'touch',
  }) as PointerEvent
const send = (...events: Event[]) => events.forEach((event) => window.dispatchEvent(event))

let said: string[] = []
beforeEach(() => (said = []))

const xs = (spots: { x: number }[]) => spots.map(({ x }) => x).join('+')
const telling: Pinching<string> = {
  joins: (what) => what === 'picture',
  move: ({ begun, now }, what) => said.push(`${what} ${xs(begun)} to ${xs(now)}`),
  settle: () => said.push('settle'),
  drop: (what) => said.push(`drop ${what}`),
  tap: ({ x }, what) => said.push(`tap ${what} ${x}`),
  cancel: (what) => said.push(`cancel ${what}`),
}

test('a second finger joins, and what was done so far stays when one is lifted', () => {
  const pinch = usePinch(telling)
  pinch.down(at('pointerdown', 1, 100), 'picture')
  send(at('pointermove', 1, 110))
  pinch.down(at('pointerdown', 2, 200), 'picture')
  send(at('pointermove', 2, 230), at('pointerup', 1, 110), at('pointermove', 2, 240))
  send(at('pointerup', 2, 240))
  expect(said).toEqual([
    'picture 100 to 110',
    'settle',
    'picture 110+200 to 110+230',
    'settle',
    'picture 230 to 240',
    'drop picture',
  ])
})

test("a second finger on what one finger holds, or a third one, is nobody's", () => {
  const pinch = usePinch(telling)
  pinch.down(at('pointerdown', 1, 100), 'corner')
  pinch.down(at('pointerdown', 2, 200), 'picture')
  send(at('pointermove', 2, 300), at('pointerup', 2, 300), at('pointercancel', 2, 300))
  expect(said).toEqual([])
  send(at('pointermove', 1, 120), at('pointerup', 1, 120))
  expect(said).toEqual(['corner 100 to 120', 'drop corner'])
})

test('trembling is a tap; what the system or Escape takes away commits nothing', () => {
  const pinch = usePinch(telling)
  pinch.down(at('pointerdown', 1, 100), 'picture')
  send(at('pointermove', 1, 102), at('pointerup', 1, 102))
  pinch.down(at('pointerdown', 1, 100), 'picture')
  send(at('pointermove', 1, 130), at('pointercancel', 1, 130), at('pointerup', 1, 130))
  pinch.down(at('pointerdown', 1, 100), 'picture')
  send(Object.assign(new Event('keydown'), { key: 'Escape' }), at('pointerup', 1, 100))
  expect(said).toEqual([
    'tap picture 102',
    'picture 100 to 130',
    'cancel picture',
    'cancel picture',
  ])
})
