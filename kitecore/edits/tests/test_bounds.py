"""What is kept can be read again: bounds of numbers and of time."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from kitecore.document import Document, dump, load
from kitecore.edits.tests.cutcase import SECOND, CutCase
from kitecore.model import LONGEST

SOLID = {"kind": "solid", "name": "s", "length": SECOND}


def numbers(schema: Any, path: str = "", bounded: bool = False) -> list[str]:
    """Paths of all numbers and lists of a schema that may grow without end."""
    found: list[str] = []
    if isinstance(schema, list):
        return [one for inner in schema for one in numbers(inner, path, bounded)]
    if not isinstance(schema, dict):
        return []
    bounded = bounded or "least" in schema
    low = {"minimum", "exclusiveMinimum"} & set(schema)
    high = {"maximum", "exclusiveMaximum"} & set(schema)
    number = schema.get("type") in ("number", "integer") and "const" not in schema
    if number and not bounded and not (low and high):
        found.append(path)
    if schema.get("type") == "array" and not {"maxItems", "prefixItems"} & set(schema):
        found.append(f"{path}[]")
    for name, inner in {**schema.get("properties", {}), **schema.get("$defs", {})}.items():
        found += numbers(inner, f"{path}.{name}")
    for part in ("anyOf", "oneOf", "allOf", "items", "prefixItems"):
        found += numbers(schema.get(part), path, bounded)
    return found


class BoundsTest(CutCase):
    def test_every_number_of_a_document_has_bounds(self) -> None:
        # Frame rates are those of a list.
        rates = {".FrameRate.num", ".FrameRate.den"}
        self.assertEqual(rates, set(numbers(Document.model_json_schema())))

    def test_nothing_comes_later_than_the_longest_timeline(self) -> None:
        late = self.refused(kind="place", clip=SOLID, mode="above", at=LONGEST)
        self.assertIn("48 hours", late.message)

    def test_what_pushes_others_beyond_it_is_refused_too(self) -> None:
        half = {"kind": "solid", "length": LONGEST // 2}
        self.do(kind="place", clip=half)
        self.refused(kind="place", clip=half, mode="push")
        self.refused(kind="paste", at=LONGEST - SECOND, copies=[self._copy()])
        self.assertEqual(self.document, load(dump(self.document)))

    def _copy(self) -> dict[str, Any]:
        return {"clip": SOLID | {"length": 2 * SECOND}, "lane": 0, "of": "picture"}

    def test_factors_that_lead_beyond_bounds_are_refused(self) -> None:
        far = SOLID | {"place": {"position": [15_000, 0]}}
        copy = {"clip": far, "lane": 1, "of": "picture"}
        made_on = {"width": 270, "height": 480}
        refused = self.refused(kind="paste", at=0, copies=[copy], made_on=made_on)
        self.assertIn("position", refused.message)

    def test_a_document_from_before_bounds_is_opened_with_its_numbers_at_them(self) -> None:
        self.do(kind="place", clip=SOLID, mode="above")
        data = dump(self.document)
        clip = next(t for t in data["tracks"] if t["kind"] == "picture")["clips"][0]
        clip["place"]["turn"] = 1e12
        keys = [{"at": 0, "value": [1e9, -5]}, {"at": 9, "value": [0, 0]}]
        clip["place"]["position"] = {"keys": keys}
        clip["opacity"] = -1e9
        opened = next(t for t in load(data).tracks if t.kind == "picture").clips[0]
        place: Any = opened.place  # type: ignore[attr-defined]
        self.assertEqual(36_180, place.turn)
        self.assertEqual((42_000, -5), place.position.keys[0].value)

    def test_what_no_part_can_be_made_of_is_refused(self) -> None:
        here = self.clip("a").id
        empty = {"kind": "group", "length": SECOND, "tracks": []}
        for step in (
            {"kind": "split_screen", "clips": [here], "rows": [5, 5]},
            {"kind": "split_screen", "clips": [here], "rows": []},
            {"kind": "split_screen", "clips": [here], "rows": [0]},
            {"kind": "draw_freehand", "points": [[1e6, 0], [0, -1e6], [5, 5]]},
            {"kind": "place", "clip": empty},
            {"kind": "group", "clips": []},
            {"kind": "adjust", "clips": [here], "values": {"place/size": [1e5, 1]}},
        ):
            with self.subTest(step):
                try:
                    self.refused(**step)
                except ValidationError:
                    # Refused by the form of the step itself.
                    continue
