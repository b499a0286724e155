"""What the meter of an insert shows, against what comes out of it."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np

from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.render.reducing import reductions
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import Scene
from kitecore.sound.ramps import RATE

COMPRESSOR = {"kind": "compressor", "threshold": -20, "ratio": 4, "knee": 0, "makeup": 0}


class ReducingTest(TestCase):
    """A tone of half of full scale, 14 dB above the threshold: turned down by three quarters of that."""

    def setUp(self) -> None:
        self.scene = Scene(Path(self.enterContext(tempfile.TemporaryDirectory())))
        self.scene.sound("tone", 3, frequency=1000)
        self.scene.place("tone", 3)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def add(self, owner: str, *inserts: dict[str, Any]) -> list[str]:
        """Ids of the inserts, on the clip, the track or the film."""
        document = self.scene.document
        [(track, clip)] = [found for found in document.clips() if found[1].name == "tone"]
        if owner == "clip":
            clip_edit = {"kind": "add_parts", "clips": [clip.id], "list": "chain", "parts": inserts}
            self.scene.do(**clip_edit)
            [(_, clip)] = [found for found in self.scene.document.clips() if found[1].id == clip.id]
            self.owner = clip.id
            return [one.id for one in clip.chain]  # type: ignore[attr-defined]
        self.owner = track.id if owner == "track" else ""
        named = {"track": track.id} if owner == "track" else {}
        self.scene.do(kind="add_inserts", inserts=inserts, **named)
        document = self.scene.document
        strip = document.strip if owner == "film" else document.find_track(track.id).strip
        return [one.id for one in strip.chain]

    def reduced(self, insert: str, first: float = 1.0, last: float = 2.0) -> np.ndarray:
        ticks = round(first * SECOND), [round(last * SECOND)]
        return np.array(reductions(self.scene.document, self.owner, insert, *ticks, self.sources))

    def loud(self) -> float:
        part = render_samples(self.scene.document, RATE, RATE, self.sources)
        return float(20 * np.log10(np.abs(part).max()))

    def test_clip_track_and_film_are_turned_down_by_what_is_told(self) -> None:
        for owner in ("clip", "track", "film"):
            with self.subTest(owner):
                self.setUp()
                before = self.loud()
                [insert] = self.add(owner, COMPRESSOR)
                found = self.reduced(insert)
                rate = self.scene.document.rate.exact
                self.assertEqual(round(rate.fraction), len(found))
                self.assertLess(np.abs(found - 0.75 * (before + 20)).max(), 0.5)
                self.assertLess(abs(before - self.loud() - found.mean()), 0.5)

    def test_what_is_before_it_counts_and_what_is_after_does_not(self) -> None:
        cut = {"kind": "equaliser", "low_cut": {"on": True, "frequency": 8000}}
        _, insert, _ = self.add("track", cut, COMPRESSOR, cut)
        self.assertLess(self.reduced(insert).max(), 1)

    def test_off_it_does_nothing_and_beyond_the_end_either(self) -> None:
        [insert] = self.add("track", {**COMPRESSOR, "on": False})
        self.assertEqual({0.0}, set(self.reduced(insert)))
        [_, insert] = self.add("track", COMPRESSOR)
        self.assertLess(self.reduced(insert, 4, 5).max(), 0.1)
        self.assertEqual([], self.reduced(insert, 2, 2).tolist())

    def test_what_turns_nothing_down_or_is_not_there_is_refused(self) -> None:
        [insert] = self.add("track", {"kind": "equaliser"})
        for name in (insert, "nothing"):
            with self.assertRaises(EditRefused):
                self.reduced(name)
        self.owner = "nobody"
        with self.assertRaises(EditRefused):
            self.reduced(insert)
