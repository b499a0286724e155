"""Checks of words, of what is said, of faces and of what covers them."""

from __future__ import annotations

from typing import Any
from unittest.mock import patch

import numpy as np

from kitecore import edits
from kitecore.analysis.track import Track
from kitecore.analysis.voice import VOICE_SAMPLES
from kitecore.document import AdjustmentClip, VideoClip
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.media.tests.material import tone
from kitecore.render.checking import Finding
from kitecore.render.export import Aspect
from kitecore.render.sources import Sources
from kitecore.render.tests.checkcase import CheckCase, plain
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.sound.ramps import RATE


class WordsTest(CheckCase):
    def setUp(self) -> None:
        super().setUp()
        self.scene.still("day", (90, 120, 90, 255), SIZE)
        self.scene.place("day", 4.0)

    def test_words_outside_are_found_and_moved_in(self) -> None:
        self.text("Four folds up", 3.0, size=20, width=0, place={"position": [0, 140]})
        self.text("Inside", 3.0, size=20, width=0, place={"position": [0, 0]})
        [finding] = self.found()["safe"]
        self.assertIn("“Four folds up” leaves the safe area", finding.message)
        assert finding.mend is not None
        self.scene.document = edits.apply(self.scene.document, edit(**finding.mend))
        self.assertEqual([], self.found()["safe"])

    def test_words_that_are_too_small_or_too_short(self) -> None:
        self.text("Tiny words", 3.0, size=8, width=0, place={"size": [0.5, 0.5]})
        self.text("So many words that nobody can read all of them", 1.0, size=12, width=160)
        found = self.found("own")
        self.assertEqual(["“Tiny words” is hard to read in this size."], self.told(found["small"]))
        [short] = found["short"]
        self.assertIn("shows for 1.0 s; to read it takes 3.", short.message)

    def grouped(self, text: str, **group: Any) -> str:
        """A group of that text and another, from one second on; its id."""
        self.text(text, 2.0, at=1.0, size=20, width=0, place={"position": [0, 60]})
        self.text("Beside it", 2.0, at=1.0, size=20, width=0)
        clips = [clip.id for _, clip in self.scene.document.clips() if clip.start == SECOND]
        self.scene.do(kind="group", clips=clips)
        [made] = [clip for _, clip in self.scene.document.clips() if clip.kind == "group"]
        if group:
            self.scene.do(kind="adjust", clips=[made.id], values=group)
        return made.id

    def test_words_in_a_group_are_found_where_they_are_seen(self) -> None:
        group = self.grouped("Four folds up", **{"place/position": [0, 60]})
        [finding] = self.found()["safe"]
        self.assertIn("“Four folds up” leaves the safe area", finding.message)
        self.assertEqual((group, None), (finding.clip, finding.mend))
        self.assertGreater(finding.at, SECOND)
        self.scene.do(kind="adjust", clips=[group], values={"place/position": [0, 0]})
        self.assertEqual([], self.found()["safe"])

    def test_words_in_a_group_are_as_small_and_short_as_that_makes_them(self) -> None:
        group = self.grouped(
            "Words that take two whole seconds to read", **{"place/size": [0.2, 0.2]}
        )
        small = self.found("own")["small"]
        self.assertEqual(2, len(small))
        self.assertEqual({group}, {one.clip for one in small})
        self.scene.do(kind="adjust", clips=[group], values={"place/size": [1, 1]})
        self.scene.do(kind="set_speed", clips=[group], factor=2)
        found = self.found("own")
        self.assertEqual([], found["small"])
        self.assertIn("shows for 1.0 s", found["short"][0].message)
        self.assertEqual((SECOND, 2 * SECOND), (found["short"][0].at, found["short"][0].until))

    def test_captions_that_are_too_fast(self) -> None:
        cues = [
            {"at": 0, "until": SECOND, "text": "Quite a lot to be read in one second"},
            {"at": SECOND, "until": 3 * SECOND, "text": "Easy to read"},
        ]
        self.scene.do(kind="lay_captions", cues=cues)
        found = self.found("own")
        [fast] = self.told(found["captions"])
        self.assertIn("“Quite a lot to be read i” is too fast to read: 28 letters", fast)
        self.assertEqual([], found["short"])

    def test_captions_of_two_tracks_that_lie_over_each_other(self) -> None:
        cues = [
            {"at": 0, "until": 2 * SECOND, "text": "Wind"},
            {"at": 2 * SECOND, "until": 4 * SECOND, "text": "Paper"},
        ]
        self.scene.do(kind="lay_captions", cues=cues)
        self.assertEqual([], self.found("own")["captions_over"])
        document = self.scene.document
        [track] = (one for one in document.tracks if one.captions)
        later = track.clips[0].model_copy(
            update={"id": "other", "name": "Fold", "start": SECOND, "length": SECOND // 2}
        )
        other = track.model_copy(update={"id": "second", "clips": (later,)})
        self.scene.document = document.model_copy(update={"tracks": (*document.tracks, other)})
        [finding] = self.found("own")["captions_over"]
        self.assertIn("“Wind” and “Fold” lie over each other", finding.message)
        self.assertEqual((SECOND, 3 * SECOND // 2), (finding.at, finding.until))
        # Elsewhere, or hidden, it is in nobody's way.
        aside = later.place.model_copy(update={"position": (0.0, -300.0)})
        moved = other.with_clips((later.model_copy(update={"place": aside}),))
        for free in (moved, other.model_copy(update={"hidden": True})):
            self.scene.document = document.model_copy(update={"tracks": (*document.tracks, free)})
            self.assertEqual([], self.found("own")["captions_over"])

    def told(self, findings: list[Finding]) -> list[str]:
        return [one.message for one in findings]


class UncaptionedTest(CheckCase):
    """A voice speaks from second one to second three: so it is told of the take."""

    def setUp(self) -> None:
        super().setUp()
        said = np.zeros(4 * RATE // VOICE_SAMPLES, np.uint8)
        said[len(said) // 4 : 3 * len(said) // 4] = 255
        self.enterContext(patch.object(Sources, "voice", return_value=said))
        self.scene.video("line", frames=120, draw=plain, sound=tone(4.0))
        self.scene.place("line", 4.0)

    def test_speech_without_captions_is_told(self) -> None:
        [finding] = self.found("own")["uncaptioned"]
        self.assertIn("for 2 s, and there are no captions", finding.message)
        self.assertAlmostEqual(SECOND, finding.at or 0, delta=SECOND / 5)

    def test_captions_or_a_muted_voice_are_well(self) -> None:
        cues = [{"at": 0, "until": SECOND, "text": "Wind from the north"}]
        captioned = edits.apply(self.scene.document, edit(kind="lay_captions", cues=cues))
        main = self.scene.document.main.id
        muted = edits.apply(self.scene.document, edit(kind="set_track", track=main, muted=True))
        for document in (captioned, muted):
            self.scene.document = document
            self.assertEqual([], self.found("own")["uncaptioned"])


class FacesTest(CheckCase):
    """A photograph of one person: her face lies in the upper middle."""

    def test_a_face_at_the_edge_is_found_as_long_as_it_is_there(self) -> None:
        self.photograph(2.0)
        self.photograph(2.0, position=[78, 0])
        self.photograph(2.0)
        found = self.found("own")["faces"]
        self.assertEqual([(2.0, 4.0)], self.where(found))

    def test_in_another_shape_it_is_another_edge(self) -> None:
        self.photograph(1.0, position=[0, -95])
        self.assertEqual([], self.found("own")["faces"])
        square = {"shape": Aspect(width=1, height=1), "fit": "fill"}
        self.assertEqual([(0.0, 1.0)], self.where(self.found("own", **square)["faces"]))

    def test_one_that_is_not_in_the_file_is_not_missed(self) -> None:
        self.photograph(1.0, position=[0, -95])
        self.photograph(1.0, position=[0, -95], size=[0.5, 0.5])
        wide = {"shape": Aspect(width=16, height=9), "fit": "fill"}
        self.assertEqual([], self.found("own", **wide)["faces"])

    def test_without_the_model_it_says_so(self) -> None:
        self.photograph(0.5)
        with patch("kitecore.render.checking.faces.can_find_faces", return_value=False):
            [finding] = self.found("own")["faces"]
        self.assertIn("not installed", finding.message)
        self.assertIsNone(finding.at)


class CoveredCase(CheckCase):
    """A thing is followed for a second; what was found of it is given."""

    def setUp(self) -> None:
        super().setUp()
        self.scene.video("walk", frames=30, draw=plain)

    def covered(self, sure: list[int], face: bool = False, **more: Any) -> list[Finding]:
        self.cover(sure, face, **more)
        return self.found("own")["covers"]

    def cover(self, sure: list[int], face: bool = False, grown: float = 1.0, **more: Any) -> None:
        """What is covered is ``grown`` times as large from the 16th frame on."""
        self.scene.place("walk", 1.0)
        [clip] = self.scene.document.main.clips
        quad = [[-0.1, -0.1], [0.1, -0.1], [0.1, 0.1], [-0.1, 0.1]]
        tracker = {
            "change": "moves",
            "views": [{"at": 0, "corners": quad}],
            "first": 0,
            "last": SECOND * 29 // 30,
            "face": face,
        }
        self.scene.do(kind="add_item", clips=[clip.id], list="trackers", item=tracker)
        [clip] = self.scene.document.main.clips
        assert isinstance(clip, VideoClip)
        sizes = np.where(np.arange(30) < 15, 1.0, grown)[:, None, None]
        found = Track(
            0,
            np.asarray(sizes * np.array(quad), np.float32),
            np.array(sure, np.uint8),
            np.zeros(30, np.uint8),
        )
        self.enterContext(patch.object(Sources, "track", return_value=found))
        cover = {"clip": clip.id, "tracker": clip.trackers[0].id, "centre": [0, 0]}
        self.scene.do(kind="cover_tracked", **cover, size=[0.1, 0.1], **more)


class CoverTest(CoveredCase):
    def test_a_sure_cover_is_well(self) -> None:
        self.assertEqual([], self.covered([255] * 30))

    def test_where_it_is_lost_or_unsure_is_told(self) -> None:
        for how in ("mosaic", "plain"):
            self.scene = Scene(self.root)
            found = self.covered([255] * 12 + [0] * 6 + [255] * 6 + [140] * 3 + [255] * 3, how=how)
            self.assertEqual([(0.4, 0.6), (0.8, 0.9)], self.where(found))
            self.assertIn("is not found for 0.2 s", found[0].message)
            self.assertIn("is not surely found", found[1].message)

    def test_a_face_that_came_and_went_is_missed_only_while_it_is_there(self) -> None:
        sure = [0] * 6 + [255] * 6 + [0] * 6 + [255] * 6 + [0] * 6
        self.assertEqual([(0.4, 0.6)], self.where(self.covered(sure, face=True)))
        self.scene = Scene(self.root)
        self.assertEqual(3, len(self.covered(sure)))

    def test_covers_in_a_group_are_told_when_they_are_seen(self) -> None:
        self.covered([255] * 12 + [0] * 6 + [255] * 12)
        clips = [clip.id for _, clip in self.scene.document.clips()]
        self.scene.do(kind="group", clips=clips)
        [group] = self.scene.document.main.clips
        self.scene.do(kind="set_speed", clips=[group.id], factor=0.5)
        [found] = self.found("own")["covers"]
        self.assertEqual([(0.8, 1.2)], self.where([found]))
        self.assertEqual(group.id, found.clip)

    def test_a_face_that_is_seen_while_others_are_covered_is_told(self) -> None:
        self.assertEqual([], self.covered([255] * 30))
        self.photograph(1.0)
        [found] = self.found("own")["covers"]
        self.assertEqual([(1.0, 2.0)], self.where([found]))
        self.assertIn("can be made out for 1.0 s", found.message)


class StrengthTest(CoveredCase):
    """Whether what is covered could be made out again."""

    def weak(self, **more: Any) -> list[Finding]:
        self.scene = Scene(self.root)
        self.cover([255] * 30, **more)
        return self.found("own")["strength"]

    def mended(self, finding: Finding) -> list[Finding]:
        assert finding.mend is not None
        self.scene.do(**finding.mend)
        return self.found("own")["strength"]

    def test_a_fresh_cover_is_strong_enough(self) -> None:
        for how in ("mosaic", "soft_blur", "plain"):
            self.assertEqual([], self.weak(how=how), how)

    def test_what_comes_nearer_outgrows_its_cover_unless_that_was_known(self) -> None:
        for how in ("mosaic", "soft_blur"):
            [found] = self.weak(how=how, grown=2.0)
            self.assertEqual([(0.5, 1.0)], self.where([found]))
            self.assertIn("for 0.5 s: it is too weak", found.message)
            self.assertEqual([], self.mended(found))
            self.assertEqual([], self.weak(how=how, grown=2.0, grows=2.0))
        self.assertEqual([], self.weak(how="plain", grown=2.0))

    def test_one_that_was_made_weaker_is_told_and_mended(self) -> None:
        self.weak()
        cover = next(clip for _, clip in self.scene.document.clips() if clip.name == "Cover")
        assert isinstance(cover, AdjustmentClip)
        for values in ({"side": 4.0}, {"mix": 0.9}):
            part = {"clips": [cover.id], "list": "effects", "part": cover.effects[0].id}
            self.scene.do(kind="set_part", **part, values=values)
            [found] = self.found("own")["strength"]
            self.assertEqual([(0.0, 1.0)], self.where([found]))
            self.assertEqual("doubt", found.grade)
            self.assertEqual([], self.mended(found))
        self.scene.do(kind="adjust", clips=[cover.id], values={"opacity": 0.5})
        self.assertEqual(1, len(self.found("own")["strength"]))

    def test_a_plain_one_that_lets_light_through_is_told(self) -> None:
        self.weak(how="plain", face=True)
        cover = next(clip for _, clip in self.scene.document.clips() if clip.name == "Cover")
        self.scene.do(kind="adjust", clips=[cover.id], values={"fill/opacity": 0.6})
        [found] = self.found("own")["strength"]
        self.assertEqual(("bad", None), (found.grade, found.mend))

    def test_light_and_grades_that_go_along_hide_nothing(self) -> None:
        self.weak(how="plain")
        cover = next(clip for _, clip in self.scene.document.clips() if clip.name == "Cover")
        self.scene.do(kind="adjust", clips=[cover.id], values={"opacity": 0.3})
        self.assertEqual([], self.found("own")["strength"])
        self.weak()
        cover = next(clip for _, clip in self.scene.document.clips() if clip.name == "Cover")
        assert isinstance(cover, AdjustmentClip)
        part = {"clips": [cover.id], "list": "effects", "part": cover.effects[0].id}
        self.scene.do(kind="remove_part", **part)
        self.assertEqual([], self.found("own")["strength"])
