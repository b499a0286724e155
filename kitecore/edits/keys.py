"""Several keys in hand, across properties and clips."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any, Final, Literal

from pydantic import Field

from kitecore.document import Document, Id, Model
from kitecore.document.ease import Ease, turned_round
from kitecore.document.properties import Key, Keys, SpotKey
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import adjusted, has, read
from kitecore.errors import EditRefused
from kitecore.model import Tick

MOST_KEYS: Final = 5000
PropertyPath = Annotated[str, Field(min_length=1, max_length=200)]
Found = list[Key[Any]]


class KeysOf(Model):
    """Keys of one property, by their times from the start of the clip."""

    clip: Id
    path: PropertyPath
    at: tuple[Tick, ...] = Field(min_length=1, max_length=MOST_KEYS)


@dataclass(frozen=True)
class Timing:
    """``start`` of the clip and times of the ``first`` and ``last`` key in hand, all on the timeline;
    the length of a frame, ``step``, and that of the clip.
    """

    start: int
    first: int
    last: int
    step: int
    length: int


@dataclass(frozen=True)
class Still:
    """A property that has no keys any more, but this value."""

    value: Any


class KeysEdit(EditBase):
    """Something done to the keys in hand; those that are not there any more are left out."""

    keys: tuple[KeysOf, ...] = Field(min_length=1, max_length=1000)

    @abstractmethod
    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found | Still:
        """All keys of a property afterwards, or that it stands still.

        Of two at the same time the later one in the list stays.
        """

    def apply(self, document: Document) -> Document:
        names = tuple(dict.fromkeys(one.clip for one in self.keys))
        starts = {clip.id: clip.start for _, clip in open_clips(document, names)}
        ats = [starts[one.clip] + at for one in self.keys for at in one.at]
        first, last = min(ats), max(ats)
        step, done = document.rate.exact.frame_ticks, False
        for one in self.keys:
            _, clip = document.find_clip(one.clip)
            prop = read(clip, one.path) if has(clip, one.path) else None
            if not isinstance(prop, Keys):
                continue
            taken = {key.at for key in prop.keys} & set(one.at)
            if not taken:
                continue
            done = True
            timing = Timing(clip.start, first, last, step, clip.length)
            after = self.changed(list(prop.keys), taken, timing)
            new = after.value if isinstance(after, Still) else merged(after)
            document = document.with_clip(adjusted(clip, {one.path: new}))
        if not done:
            raise EditRefused("Those keys are not there any more.")
        return document

    def _words(self) -> str:
        number = sum(len(one.at) for one in self.keys)
        return "key" if number == 1 else f"{number} keys"


def merged(keys: Iterable[Key[Any]]) -> dict[str, Any]:
    """Keys as plain data, in order of time; of two at the same time the later in the row stays."""
    by_time = {key.at: key for key in keys}
    return {"keys": [by_time[at].model_dump(mode="json") for at in sorted(by_time)]}


def at_tick(key: Key[Any], at: int) -> Key[Any]:
    """The same key at another time."""
    return key.model_copy(update={"at": at})


@edit_kinds.register("shift_keys")
class ShiftKeys(KeysEdit):
    """Earlier or later, by ticks."""

    kind: Literal["shift_keys"] = "shift_keys"
    by: Tick

    def label(self) -> str:
        return f"Move {self._words()}"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found:
        rest = [key for key in keys if key.at not in taken]
        return rest + [at_tick(key, key.at + self.by) for key in keys if key.at in taken]


@edit_kinds.register("stretch_keys")
class StretchKeys(KeysEdit):
    """Nearer together or further apart in time; the first of all keys in hand stays, or the last."""

    kind: Literal["stretch_keys"] = "stretch_keys"
    factor: float = Field(gt=0, le=100)
    stays: Literal["first", "last"] = "first"

    def label(self) -> str:
        return f"Stretch {self._words()} to {round(100 * self.factor)} %"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found:
        pivot = timing.first if self.stays == "first" else timing.last

        def there(at: int) -> int:
            far = (timing.start + at - pivot) * self.factor
            # Keys stay on frames.
            return pivot - timing.start + round(far / timing.step) * timing.step

        rest = [key for key in keys if key.at not in taken]
        return rest + [at_tick(key, there(key.at)) for key in keys if key.at in taken]


@edit_kinds.register("reverse_keys")
class ReverseKeys(KeysEdit):
    """The other way round in time, from the first to the last of those in hand."""

    kind: Literal["reverse_keys"] = "reverse_keys"

    def label(self) -> str:
        return f"Reverse {self._words()}"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found:
        mine = [key for key in keys if key.at in taken]
        rest = [key for key in keys if key.at not in taken]
        both = mine[0].at + mine[-1].at
        return rest + backwards(mine, lambda at: both - at)


@edit_kinds.register("mirror_keys")
class MirrorKeys(KeysEdit):
    """There and back: the way back follows after the last key in hand."""

    kind: Literal["mirror_keys"] = "mirror_keys"

    def label(self) -> str:
        return f"There and back with {self._words()}"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found:
        mine = [key for key in keys if key.at in taken]
        last = mine[-1].at
        if len(mine) < 2:
            raise EditRefused("There and back takes at least two keys of a property.")
        end = 2 * last - mine[0].at
        rest = [key for key in keys if not last < key.at <= end]
        back = backwards(mine, lambda at: 2 * last - at)
        if isinstance(mine[-1], SpotKey):
            back[0] = back[0].model_copy(update={"before": mine[-1].before})
        return rest + back


def backwards(keys: Found, there: Any) -> Found:
    """Keys at other times, in reversed order, with the ways between them gone back."""
    out: Found = []
    for index in range(len(keys) - 1, -1, -1):
        key = keys[index]
        ease = turned_round(keys[index - 1].ease) if index else keys[-1].ease
        update: dict[str, Any] = {"at": there(key.at), "ease": ease}
        if isinstance(key, SpotKey):
            update |= {"before": key.after, "after": key.before}
        out.append(key.model_copy(update=update))
    return out


@edit_kinds.register("ease_keys")
class EaseKeys(KeysEdit):
    """The pace from each key in hand to the one after it."""

    kind: Literal["ease_keys"] = "ease_keys"
    ease: Ease

    def label(self) -> str:
        return f"{self.ease.kind.capitalize()} from {self._words()}"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found:
        update = {"ease": self.ease}
        return [key.model_copy(update=update) if key.at in taken else key for key in keys]


@edit_kinds.register("remove_keys")
class RemoveKeys(KeysEdit):
    """A property that is left without keys keeps the value of its first."""

    kind: Literal["remove_keys"] = "remove_keys"

    def label(self) -> str:
        return f"Delete {self._words()}"

    def changed(self, keys: Found, taken: set[int], timing: Timing) -> Found | Still:
        rest = [key for key in keys if key.at not in taken]
        return rest or Still(keys[0].model_dump(mode="json")["value"])


@edit_kinds.register("later_keys")
class LaterKeys(EditBase):
    """Follow-through: the keys of each clip after the first are ``by`` ticks later than those of the
    one before it. With ``paths`` only those of these properties.
    """

    kind: Literal["later_keys"] = "later_keys"
    clips: tuple[Id, ...] = Field(min_length=2)
    paths: tuple[PropertyPath, ...] = ()
    by: Tick

    def label(self) -> str:
        return f"Later along {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        found = {clip.id: clip for _, clip in open_clips(document, self.clips)}
        for place, name in enumerate(self.clips):
            clip, by = found[name], place * self.by
            if not self.paths:
                document = document.with_clip(clip.with_keys_moved(by))
                continue
            moved = {
                path: prop.moved(by)
                for path in self.paths
                if has(clip, path) and isinstance(prop := read(clip, path), Keys)
            }
            document = document.with_clip(adjusted(clip, moved))
        return document
