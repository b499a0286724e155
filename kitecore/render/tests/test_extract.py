"""What is kept is kept by what it depends on, and by nothing else."""

from __future__ import annotations

from pathlib import Path
from typing import Any
from unittest import TestCase

from kitecore.document import ClipBase, Document, Track, can_sound, empty_document
from kitecore.document.clips import clip_kinds
from kitecore.edits._properties import adjusted
from kitecore.media.folder import MediaFolder
from kitecore.render.extract import content_key
from kitecore.ticks import Span

SECOND = 705_600_000
SOLID = {"kind": "solid", "id": "inner", "length": 3 * SECOND}
INNER = [{"id": "in", "kind": "main", "clips": [SOLID]}]
ANGLES = [
    {
        "id": f"t{n}",
        "kind": kind,
        "clips": [
            {
                "kind": "group",
                "id": f"g{n}",
                "length": 3 * SECOND,
                "opacity": 1 - n / 2,
                "gain": -n,
                "tracks": INNER,
            }
        ],
    }
    for n, kind in enumerate(("main", "picture"))
]
TURNS = [{"at": 0, "pose": "open"}, {"at": 3 * SECOND // 2, "pose": "closed"}]
POSES = [
    {"id": name, "kind": "picture", "name": name, "clips": [SOLID | {"id": name, "fill": fill}]}
    for name, fill in (
        ("closed", {"kind": "plain", "colour": "#112233"}),
        ("open", {"kind": "plain", "colour": "#445566"}),
    )
]
SMALLEST: dict[str, dict[str, Any]] = {
    "video": {"media": "a" * 32, "source_length": 9 * SECOND},
    "sound": {"media": "a" * 32, "source_length": 9 * SECOND},
    "still": {"media": "a" * 32},
    "sequence": {"pictures": ["a" * 32, "b" * 32], "each": SECOND},
    "group": {"tracks": INNER},
    "multicam": {"tracks": ANGLES, "switches": [{"at": 0, "angle": 0}], "hears": [0, 1]},
    "mouth": {"tracks": POSES, "turns": TURNS},
    "text": {"text": "Kite"},
    "shape": {},
    "solid": {},
    "adjustment": {},
}
"""What a clip of each kind needs, besides its length."""

CORNERS = ((-0.1, -0.1), (0.1, -0.1), (0.1, 0.1), (-0.1, 0.1))
OTHER: dict[str, Any] = {
    "id": "another",
    "name": "Another",
    "start": SECOND // 2,
    "length": SECOND,
    "tag": "sea",
    "markers": [{"id": "m", "at": 0}],
    "transition": {"kind": "dissolve", "length": SECOND},
    "rides": "elsewhere",
    "source_in": SECOND,
    "speed": {"points": [{"at": 0, "speed": 2.0}]},
    "between": "blended",
    "trackers": [{"id": "t", "views": [{"at": 0, "corners": CORNERS}], "first": 0, "last": SECOND}],
    "media": "c" * 32,
    "source_length": 8 * SECOND,
    "pictures": ["b" * 32, "a" * 32],
    "each": SECOND // 2,
    "order": "backward",
    "first": 1,
    "tracks": [{"id": "in", "kind": "main", "clips": [SOLID | {"opacity": 0.5}]}],
    "canvas": {"width": 640, "height": 360},
    "scene": "other",
    "switches": [{"at": 0, "angle": 1}],
    "hears": [1, 1],
    "turns": [{"at": 2 * SECOND, "pose": "closed"}],
    "way": {"kind": "bouncing"},
    "place": {"turn": 5},
    "opacity": 0.5,
    "blend": "screen",
    "clipped": "alpha",
    "key": {"kind": "luma"},
    "grade": {"light": {"exposure": 1}},
    "crop": {"left": 0.2},
    "masks": [{"kind": "ellipse", "id": "k"}],
    "effects": [{"kind": "glow", "id": "e"}],
    "strokes": [{"kind": "light_stroke", "id": "k", "points": [(0, 0)]}],
    "retouched": False,
    "steady": {"tracker": "t"},
    "cutout": {"strokes": [{"points": [(0, 0)]}]},
    "taken_off": [{"strokes": [{"points": [(0, 0)]}]}],
    "cell": {"screen": "s", "rows": [1, 1], "place": 0},
    "warp": {"kind": "grid"},
    "moves": {"comes": {"kind": "rise"}},
    "gain": -6,
    "pan": 0.5,
    "pitch": 3.0,
    "channels": "mono",
    "fade_in_shape": "late",
    "fade_out_shape": "early",
    "chain": [{"kind": "gate"}],
    "muted": True,
    "fade_in": SECOND // 10,
    "fade_out": SECOND // 10,
    "keep_pitch": False,
    "silent_below": 0.5,
    "fill": {"kind": "plain", "colour": "#123456"},
    "stroke": {"width": 9, "fill": {"kind": "plain", "colour": "#123456"}},
    "form": {"kind": "ellipse"},
    "text": "Wind",
    "font": "another",
    "size": 33,
    "bold": False,
    "italic": True,
    "width": 300,
    "align": "end",
    "letter_space": 4,
    "line_height": 2,
    "outline": {"kind": "plain", "colour": "#123456"},
    "outline_width": 5,
    "plate": {"fill": {"kind": "plain", "colour": "#123456"}},
    "lit": {"kind": "plain", "colour": "#123456"},
    "lit_stays": True,
    "said": 1,
}
"""Another value of every field that a clip has."""
OF_KIND: dict[tuple[str, str], Any] = {
    ("multicam", "tracks"): [
        ANGLES[0] | {"clips": [ANGLES[0]["clips"][0] | {"tracks": OTHER["tracks"]}]},
        ANGLES[1],
    ],
    ("video", "cutout"): {"views": [{"at": 0, "strokes": [{"points": [(0, 0)]}]}]},
    ("mouth", "tracks"): [POSES[0], POSES[1] | {"clips": [SOLID]}],
}
"""The same where a kind needs its own."""

NEITHER = {"id", "name", "tag", "markers", "rides", "source_length", "scene", "trackers"}
BOTH = {"start", "length", "transition", "source_in", "speed", "media", "switches"}
HEARD = {"gain", "pan", "pitch", "channels", "muted", "chain", "hears"}
HEARD |= {"fade_in", "fade_out", "fade_in_shape", "fade_out_shape", "keep_pitch", "silent_below"}
"""Fields that sound alone depends on. Whatever is in none of these is only seen."""


def clip_of(kind: str, **more: Any) -> ClipBase:
    data = {"kind": kind, "id": "it", "length": 3 * SECOND} | SMALLEST[kind] | more
    return clip_kinds[kind].model_validate(data)


def document_with(clip: ClipBase) -> Document:
    kind = "sound" if clip.kind == "sound" else "picture"
    before = clip_kinds["solid"].model_validate({"kind": "solid", "id": "before", "length": SECOND})
    moved = clip.at(clip.start + SECOND)
    if kind == "sound":
        before = clip_of("sound", id="before", length=SECOND)
    track = Track(id="t", kind=kind, clips=(before, moved))  # type: ignore[arg-type]
    empty = empty_document()
    return empty.model_copy(update={"tracks": (*empty.tracks, track)})


def keys_of(document: Document) -> tuple[str, str]:
    """The names of what is seen and of what is heard in the middle of the clip."""
    span = Span(SECOND, 3 * SECOND)
    find = lambda media: MediaFolder(Path("/nowhere") / media)  # noqa: E731
    return (
        content_key(document, span, find),
        content_key(document, span, find, heard=True),
    )


class FieldTest(TestCase):
    def test_every_field_of_every_kind_changes_what_depends_on_it_and_nothing_else(self) -> None:
        for kind, model in clip_kinds.items():
            plain = clip_of(kind)
            seen, heard = keys_of(document_with(plain))
            for field in model.model_fields:
                if field == "kind":
                    continue
                with self.subTest(kind=kind, field=field):
                    self.assertIn(field, OTHER, "say how it is changed, and who depends on it")
                    changed = clip_of(kind, **{field: OF_KIND.get((kind, field), OTHER[field])})
                    now_seen, now_heard = keys_of(document_with(changed))
                    self.assertEqual(self._is_seen(field, kind), now_seen != seen, "seen")
                    self.assertEqual(self._is_heard(field, model), now_heard != heard, "heard")

    def _is_seen(self, field: str, kind: str) -> bool:
        return kind != "sound" and field not in NEITHER | HEARD

    def _is_heard(self, field: str, model: type[ClipBase]) -> bool:
        if field in ("start", "length", "transition"):
            return True
        return can_sound(model) and field in BOTH | HEARD

    def test_the_inside_of_a_group_counts_as_its_own(self) -> None:
        video = {"kind": "video", "id": "v", "length": 3 * SECOND} | SMALLEST["video"]
        clip = clip_kinds["video"].model_validate(video)

        def group(inner: ClipBase) -> tuple[str, str]:
            tracks = [{"id": "in", "kind": "main", "clips": [inner.model_dump(mode="json")]}]
            return keys_of(document_with(clip_of("group", tracks=tracks)))

        seen, heard = group(clip)
        louder = group(adjusted(clip, {"gain": 3}))
        self.assertEqual((True, False), (louder[0] == seen, louder[1] == heard))
        turned = group(adjusted(clip, {"place/turn": 3}))
        self.assertEqual((False, True), (turned[0] == seen, turned[1] == heard))
        renamed = group(adjusted(clip, {"name": "other"}))
        self.assertEqual((seen, heard), renamed)

    def test_tracks_are_seen_by_being_shown_and_heard_by_not_being_muted(self) -> None:
        document = document_with(clip_of("video"))
        seen, heard = keys_of(document)
        for field, is_seen, is_heard in (
            ("hidden", True, False),
            ("muted", False, True),
            ("solo", True, True),
            ("locked", False, False),
            ("name", False, False),
        ):
            track = document.tracks[-1].model_copy(update={field: True})
            now = keys_of(document.with_track(track))
            self.assertEqual((is_seen, is_heard), (now[0] != seen, now[1] != heard), field)

    def test_what_is_neither_seen_nor_heard_may_change(self) -> None:
        def without(field: str, **more: Any) -> tuple[str, str]:
            document = document_with(clip_of("video", **more))
            track = document.tracks[-1].model_copy(update={field: True})
            return keys_of(document.with_track(track))

        self.assertEqual(without("hidden")[0], without("hidden", opacity=0.5)[0])
        self.assertEqual(without("muted")[1], without("muted", gain=-6)[1])

    def test_a_kind_of_transition_is_seen_and_its_length_heard(self) -> None:
        def crossing(**facts: Any) -> tuple[str, str]:
            transition = {"kind": "dissolve", "length": SECOND} | facts
            return keys_of(document_with(clip_of("video", transition=transition)))

        seen, heard = crossing()
        other = crossing(kind="dip")
        self.assertEqual((False, True), (other[0] == seen, other[1] == heard))
        self.assertNotEqual(heard, crossing(length=SECOND // 5 * 2)[1])
