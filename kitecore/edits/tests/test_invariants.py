"""What holds for every edit there is, in any order."""

from __future__ import annotations

from typing import Literal
from unittest import TestCase

import jsonpatch
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from kitecore import edits
from kitecore.document import Document, all_clips, check, diff, dump, load
from kitecore.document.clips import clip_kinds
from kitecore.edits import EditBase, edit_kinds
from kitecore.edits.tests.populated import populated
from kitecore.edits.tests.strategies import MAKERS, documents, edits_for
from kitecore.errors import BrokenDocument, EditRefused, NotThere
from kitecore.ticks import RATES

SLOW = settings(
    max_examples=150,
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)


class InvariantTest(TestCase):
    @SLOW
    @given(st.data())
    def test_any_sequence_keeps_the_document_sound_and_can_be_undone(
        self, data: st.DataObject
    ) -> None:
        document = data.draw(documents())
        trail: list[tuple[Document, list[dict[str, object]]]] = []
        for number in range(data.draw(st.integers(1, 9))):
            edit = data.draw(edits_for(document, f"s{number}"))
            after = self._applied(document, edit)
            if after is None:
                continue
            check(after)
            self.assertEqual(after, load(dump(after)))
            self._compare_patch(document, after)
            self.assertEqual(dump(after), dump(edits.apply(document, edit)))
            self.assertTrue(edit.label())
            trail.append((document, diff(after, document)))
            document = after
        for before, back in reversed(trail):
            undone = jsonpatch.apply_patch(dump(document), back)
            self.assertEqual(dump(before), undone)
            document = load(undone)

    def test_most_examples_have_clips_of_every_kind(self) -> None:
        for rate in RATES:
            found = {clip.kind for clip in all_clips(populated(rate.num, rate.den).tracks)}
            self.assertEqual(set(clip_kinds), found)
        shares: list[bool] = []
        fifty = settings(max_examples=50, database=None, derandomize=True)
        fifty(given(documents())(lambda document: shares.append(bool(list(document.clips())))))()
        self.assertGreater(sum(shares) / len(shares), 0.6)

    def test_a_broken_edit_is_found_out(self) -> None:
        class Overlap(EditBase):
            kind: Literal["overlap"] = "overlap"

            def label(self) -> str:
                return "Overlap"

            def apply(self, document: Document) -> Document:
                track, clip = next((t, c) for t, c in document.clips() if t.kind == "main")
                twin = clip.model_copy(update={"id": "twin"})
                return document.with_track(track.with_clips((twin, *track.clips)))

        with self.assertRaises(BrokenDocument):
            edits.apply(populated(30, 1), Overlap())

    def _applied(self, document: Document, edit: EditBase) -> Document | None:
        untouched = dump(document)
        try:
            return edits.apply(document, edit)
        except (EditRefused, NotThere) as refusal:
            self.assertTrue(str(refusal).endswith("."), refusal)
            return None
        finally:
            self.assertEqual(untouched, dump(document))

    def _compare_patch(self, before: Document, after: Document) -> None:
        patch = diff(before, after)
        self.assertEqual(dump(after), jsonpatch.apply_patch(dump(before), patch))

    def test_every_kind_of_edit_is_tried_here(self) -> None:
        self.assertEqual(set(edit_kinds), set(MAKERS))
