"""Covers over what is tracked: where they lie, how strong they are."""

from __future__ import annotations

from typing import Any, cast

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from kitecore.document import AdjustmentClip, Pictured, SolidClip, StillClip, VideoClip
from kitecore.edits.tests.cutcase import CutCase
from kitecore.edits.tests.populated import SECOND
from kitecore.edits.tests.strategies import TRACKER


class CoverTest(CutCase):
    def setUp(self) -> None:
        super().setUp()
        leader = self.clip("b")
        self.do(kind="add_item", clips=[leader.id], list="trackers", item=TRACKER)
        leader = cast(VideoClip, self.clip("b"))
        [tracker] = leader.trackers
        self.given: dict[str, Any] = {
            "kind": "cover_tracked",
            "clip": leader.id,
            "tracker": tracker.id,
            "centre": (0.1, -0.2),
            "size": (0.05, 0.07),
            "at": 5 * SECOND,
        }

    def cover(self, **how: Any) -> Pictured:
        self.do(**self.given, **how)
        found = next(c for _, c in self.document.clips() if c.name == "Cover")
        assert isinstance(found, Pictured)
        return found

    def test_it_lies_right_above_for_as_long_and_follows(self) -> None:
        self.do(kind="place", clip={"kind": "solid", "length": SECOND, "name": "top"}, mode="above")
        cover, leader = self.cover(), self.clip("b")
        self.assertEqual(leader.span, cover.span)
        assert cover.moves.follow is not None
        self.assertEqual(
            (leader.id, self.given["tracker"]),
            (cover.moves.follow.clip, cover.moves.follow.tracker),
        )
        # The clip is shown from 2 s of its file on, and begins at 4 s.
        self.assertEqual(3 * SECOND, cover.moves.follow.since)
        order = [track.kind for track in self.document.tracks]
        self.assertEqual(["main", "picture", "picture"], order[:3])
        self.assertEqual("Cover", self.document.tracks[1].clips[0].name)

    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.01, 2), st.floats(0.01, 2))
    def test_however_large_little_is_left_to_be_seen(self, wide: float, high: float) -> None:
        across = 2 * max(wide, high) * self.document.canvas.height
        self.given["size"] = (wide, high)
        for how, name, least in (
            ("mosaic", "side", across / 5),
            ("soft_blur", "sigma", 0.3 * across),
        ):
            before = self.document
            cover = self.cover(how=how)
            self.document = before
            assert isinstance(cover, AdjustmentClip)
            [effect] = cover.effects
            self.assertGreaterEqual(getattr(effect, name), least - 1e-6)

    def test_a_plain_one_is_a_solid_with_the_mask(self) -> None:
        cover = self.cover(how="plain", shape="rectangle", turn=12)
        assert isinstance(cover, SolidClip)
        [mask] = cover.masks
        self.assertEqual(("rectangle", 12), (mask.kind, mask.turn))

    def test_a_picture_fills_its_form_above_a_plain_one(self) -> None:
        self.cover(shape="ellipse", turn=20, picture={"media": "photo", "aspect": 2.0})
        below, above = (c for _, c in self.document.clips() if c.name == "Cover")
        assert isinstance(below, SolidClip) and isinstance(above, StillClip)
        rows = [track.id for track in self.document.tracks if track.clips]
        self.assertLess(*(rows.index(self.document.find_clip(c.id)[0].id) for c in (below, above)))
        assert below.moves.follow is not None
        self.assertEqual(below.moves.follow, above.moves.follow)
        # What of the canvas the still's mask shows is what was asked for, and within the still.
        canvas = self.document.canvas
        high = min(1, canvas.width / canvas.height / 2)
        place: Any = above.place
        mask: Any = above.masks[0]
        shown = [half * place.size[0] * high for half in mask.size]
        np.testing.assert_allclose(self.given["size"], shown)
        np.testing.assert_allclose(np.array(self.given["centre"]) * canvas.height, place.position)
        self.assertLessEqual(mask.size[0], 2.0 / 2 + 1e-9)
        self.assertLessEqual(mask.size[1], 0.5 + 1e-9)

    def test_without_its_tracker_there_is_none(self) -> None:
        self.refused(**{**self.given, "tracker": "other"})
        self.do(kind="remove", clips=[self.given["clip"]])
        self.refused(**self.given)
