"""How much a person does for a job: taps, drags and typed values, as the page gets them."""

from __future__ import annotations

from typing import Final, NamedTuple

from browser_tests.browser import Browser

_FAR: Final = 8
"""Pixels from which a tap is a drag."""

_COUNTED: Final = """
if (!window.hands) {
  const hands = (window.hands = { taps: 0, drags: 0, typed: 0 })
  const down = new Map()
  let far = false
  let field = null
  const on = (kind, does) =>
    window.addEventListener(kind, (event) => event.isTrusted && does(event), true)
  on('pointerdown', (event) => {
    if (!down.size) far = false
    down.set(event.pointerId, [event.clientX, event.clientY])
  })
  on('pointermove', (event) => {
    const from = down.get(event.pointerId)
    if (from && Math.hypot(event.clientX - from[0], event.clientY - from[1]) > arguments[0]) far = true
  })
  // Several fingers at once are one move of a hand.
  const up = (moved) => (event) => {
    if (!down.delete(event.pointerId) || down.size) return
    if (moved || far) hands.drags++
    else hands.taps++
  }
  on('pointerup', up(false))
  on('pointercancel', up(true))
  on('focusout', () => (field = null))
  on('input', (event) => {
    if (!event.target.matches('input:not([type=range], [type=checkbox], [type=radio]), textarea')) return
    if (field !== event.target) hands.typed++
    field = event.target
  })
  on('keydown', (event) => {
    if (!event.target.matches('input, textarea') && event.key.length === 1) hands.taps++
  })
}
return window.hands
"""


class Hands(NamedTuple):
    taps: int
    drags: int
    typed: int

    @property
    def all(self) -> int:
        return sum(self)


def counted(browser: Browser) -> Hands:
    """What was done on the page that is open since this was first asked for."""
    return Hands(**browser.run(_COUNTED, _FAR))
