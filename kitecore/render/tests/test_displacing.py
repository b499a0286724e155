"""A layer whose pixels go as far as another layer is bright."""

from __future__ import annotations

from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np
from numpy.typing import NDArray

from kitecore.document import Document, all_clips, empty_document
from kitecore.document.canvas import Canvas
from kitecore.edits import apply
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.media.folder import MediaFolder
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.repeats import look_at
from kitecore.render.sources import Sources
from kitecore.ticks import Span

SIZE = (200, 200)
SOURCES = Sources(lambda media: MediaFolder(Path("/nowhere") / media))


def bar(at: float) -> dict[str, Any]:
    """A white bar, 20 pixels wide, its middle so far from that of the canvas."""
    form = {"kind": "rectangle", "size": (20, 200)}
    fill = {"kind": "plain", "colour": "#ffffff"}
    place = {"position": (at, 0)}
    return {"kind": "shape", "form": form, "fill": fill, "place": place, "length": SECOND}


class DisplaceTest(TestCase):
    def made(self, colour: str = "#ffffff", **values: Any) -> Document:
        """A bar over black, that reads a sheet of one colour which is hidden above it."""
        document = empty_document(Canvas(width=200, height=200))
        steps: list[dict[str, Any]] = [
            {"clip": bar(0), "seed": "bar"},
            {
                "clip": {
                    "kind": "solid",
                    "length": SECOND,
                    "fill": {"kind": "plain", "colour": colour},
                }
            },
        ]
        for number, step in enumerate(steps):
            document = apply(
                document, edit(kind="place", mode="above", at=0, **{"seed": f"s{number}", **step})
            )
        shape, sheet = (clip for _, clip in document.clips())
        track, _ = document.find_clip(sheet.id)
        document = apply(document, edit(kind="set_track", track=track.id, hidden=True))
        effect = {"kind": "displace", "layer": sheet.id, "edges": "clear", "id": "d"} | values
        add = edit(kind="add_parts", clips=[shape.id], list="effects", parts=[effect])
        return apply(document, add)

    def shown(self, document: Document) -> NDArray[np.uint8]:
        return render(document, 0, SIZE, SOURCES)[..., :3]

    def middle(self, document: Document) -> tuple[float, float]:
        """Of what is bright, in pixels from the canvas's middle."""
        rows, columns = np.nonzero(self.shown(document)[..., 0] > 127)
        return float(columns.mean() - 99.5), float(rows.mean() - 99.5)

    def test_white_moves_all_the_way_black_the_other_and_grey_not(self) -> None:
        for colour, way in (("#ffffff", 1), ("#000000", -1), ("#808080", 0)):
            with self.subTest(colour):
                x, _ = self.middle(self.made(colour, across=40.0))
                self.assertAlmostEqual(40 * way, x, delta=0.6)

    def test_colours_move_by_red_across_and_green_down(self) -> None:
        x, _ = self.middle(self.made("#ff8000", across=30.0, down=30.0, read="colours"))
        self.assertAlmostEqual(30, x, delta=0.6)

    def test_without_a_layer_or_a_way_it_does_nothing(self) -> None:
        plain = self.shown(self.made(on=False))
        for values in ({"layer": ""}, {"layer": "gone"}, {"across": 0.0}, {"mix": 0.0}):
            np.testing.assert_array_equal(plain, self.shown(self.made(**values)))

    def test_a_layer_that_reads_itself_or_is_read_back_ends(self) -> None:
        document = self.made(across=40.0)
        shape, sheet = (clip for _, clip in document.clips())
        back = {"kind": "displace", "layer": shape.id}
        document = apply(
            document, edit(kind="add_parts", clips=[sheet.id], list="effects", parts=[back])
        )
        self.assertAlmostEqual(40, self.middle(document)[0], delta=0.6)
        own = shape.effects[0].id  # type: ignore[attr-defined]
        values = {"layer": shape.id}
        itself = edit(kind="set_part", clips=[shape.id], list="effects", part=own, values=values)
        self.shown(apply(document, itself))

    def test_pieces_and_repeats_depend_on_what_is_read(self) -> None:
        def name(document: Document) -> str:
            return content_key(document, Span(0, SECOND), lambda media: MediaFolder(Path("/no")))

        self.assertNotEqual(name(self.made("#ffffff")), name(self.made("#fefefe")))
        document = self.made()
        self.assertIsNone(look_at(document.tracks, 0, SECOND // 30, SOURCES))

    def test_copied_together_the_copy_reads_the_copy(self) -> None:
        document = self.made(across=40.0)
        ids = [clip.id for _, clip in document.clips()]
        document = apply(document, edit(kind="group", clips=ids, seed="both"))
        [group] = [clip.id for _, clip in document.clips()]
        after = apply(document, edit(kind="duplicate", clips=[group]))
        fresh = [one for one in all_clips(after.tracks) if one.id not in (*ids, group)]
        [shape] = [one for one in fresh if one.kind == "shape"]
        [sheet] = [one for one in fresh if one.kind == "solid"]
        self.assertEqual(sheet.id, shape.effects[0].layer)  # type: ignore[attr-defined]
