"""Keys repeated to the end of their clip."""

from __future__ import annotations

from itertools import count as numbers
from typing import Any, Final, Literal

from kitecore.document.properties import Key, SpotKey
from kitecore.edits._base import edit_kinds
from kitecore.edits.keys import Found, KeysEdit, Timing, at_tick, backwards
from kitecore.errors import EditRefused

Way = Literal["again", "on", "back"]
MOST_REPEATED: Final = 2000
"""Keys that one property gets by this."""


@edit_kinds.register("repeat_keys")
class RepeatKeys(KeysEdit):
    """What the keys in hand do, over and over until the clip ends; later keys give way.

    ``again``: from the first value each time, with a jump of one frame unless the last is the same;
    ``on``: each time from where the last one ended; ``back``: there and back.
    """

    kind: Literal["repeat_keys"] = "repeat_keys"
    way: Way = "again"

    def label(self) -> str:
        return f"Repeat {self._words()}"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found:
        mine = [key for key in keys if key.at in taken]
        if len(mine) < 2:
            raise EditRefused("Repeating takes at least two keys of a property.")
        out = [key for key in keys if key.at <= mine[-1].at]
        for number in numbers(1):
            if out[-1].at >= timing.length:
                return out
            if len(out) + len(mine) > MOST_REPEATED:
                raise EditRefused("That would be too many keys.", todo="Repeat longer stretches.")
            self._add(out, mine, number, timing.step)
        raise AssertionError("numbers do not end")

    def _add(self, out: Found, mine: Found, number: int, step: int) -> None:
        """One more round, the last key there becoming its first where they are the same."""
        last, span = out[-1].at, mine[-1].at - mine[0].at
        if self.way == "back" and number % 2:
            fresh = backwards(mine, lambda at: last + mine[-1].at - at)
        else:
            fresh = [at_tick(key, last + key.at - mine[0].at) for key in mine]
        if self.way == "on":
            fresh = [_on(key, mine[0].value, mine[-1].value, number) for key in fresh]
        elif self.way == "again" and mine[0].value != mine[-1].value:
            out.extend(at_tick(key, key.at + step) for key in fresh)
            return
        assert fresh[-1].at == last + span
        out[-1] = _joined(out[-1], fresh[0])
        out.extend(fresh[1:])


def _joined(before: Key[Any], after: Key[Any]) -> Key[Any]:
    """One key that ends a round and begins the next."""
    update: dict[str, Any] = {"ease": after.ease}
    if isinstance(after, SpotKey):
        update["after"] = after.after
    return before.model_copy(update=update)


def _on(key: Key[Any], first: Any, last: Any, rounds: int) -> Key[Any]:
    """A key whose value is farther by what so many rounds make."""
    if isinstance(key.value, int | float):
        return key.model_copy(update={"value": key.value + rounds * (last - first)})
    try:
        parts = zip(key.value, first, last, strict=True)
        value = tuple(here + rounds * (b - a) for here, a, b in parts)
    except TypeError as error:
        raise EditRefused("Only numbers and places can go on and on.") from error
    return key.model_copy(update={"value": value})
