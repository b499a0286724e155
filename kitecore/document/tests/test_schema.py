from typing import Any
from unittest import TestCase

from kitecore.document import SCHEMA, Document, dump, dumps, empty_document, load, loads
from kitecore.document.schema import Upgrades
from kitecore.errors import BadInput
from kitecore.motion import value_at
from kitecore.ticks import TICKS_PER_SECOND as SECOND

SAVED = {
    "schema": "velvet-kite/1",
    "canvas": {"width": 1080, "height": 1350, "colour": "#101010"},
    "rate": {"num": 25, "den": 1},
    "tracks": [
        {
            "id": "main",
            "kind": "main",
            "closes_gaps": True,
            "clips": [
                {
                    "kind": "solid",
                    "id": "a",
                    "length": 705600000,
                    "colour": {"keys": [{"at": 0, "value": "#ff0000"}]},
                    "effects": [{"kind": "soft_blur", "id": "e", "sigma": 3}],
                }
            ],
        }
    ],
}
"""A document as saved by the first version. It must be readable for ever."""


class SchemaTest(TestCase):
    def test_cut_outs_of_before_are_marked_by_strokes_alone(self) -> None:
        cut = {"strokes": [{"points": [[0, 0]]}]}
        clip = {"kind": "still", "id": "s", "media": "m", "length": 705600000, "cutout": cut}
        tracks = [{"id": "t", "kind": "main", "clips": [clip]}]
        document = load({**SAVED, "schema": "velvet-kite/14", "tracks": tracks})
        [still] = document.main.clips
        self.assertEqual((), still.cutout.around)  # type: ignore[attr-defined]
        self.assertTrue(still.cutout.finds)  # type: ignore[attr-defined]

    def test_words_of_before_all_look_alike(self) -> None:
        clip = {"kind": "text", "id": "w", "length": 705600000, "text": "Up it goes"}
        tracks = [{"id": "main", "kind": "main"}, {"id": "up", "kind": "picture", "clips": [clip]}]
        document = load({**SAVED, "schema": "velvet-kite/15", "tracks": tracks})
        [words] = document.find_track("up").clips
        self.assertIsNone(words.lit)  # type: ignore[attr-defined]
        self.assertIsNone(words.said)  # type: ignore[attr-defined]

    def test_a_saved_document_is_read_and_written_unchanged(self) -> None:
        document = load(SAVED)
        self.assertEqual(25, document.frames)
        again = loads(dumps(document))
        self.assertEqual(document, again)
        self.assertEqual(dump(document), dump(again))
        self.assertEqual(SCHEMA, dump(again)["schema"])

    def test_colours_of_solids_become_fills_in_groups_too(self) -> None:
        inner = {"id": "t", "kind": "main", "clips": [{"kind": "solid", "id": "b", "length": 10}]}
        group = {"kind": "group", "id": "g", "length": 705600000, "tracks": [inner]}
        tracks = [*SAVED["tracks"], {"id": "up", "kind": "picture", "clips": [group]}]
        document = load({**SAVED, "schema": "velvet-kite/3", "tracks": tracks})
        red = document.main.clips[0].fill.colour  # type: ignore[attr-defined]
        self.assertEqual("#ff0000", red.keys[0].value)
        inside = document.inside("g").main.clips[0]
        self.assertEqual("#808080", inside.fill.colour)  # type: ignore[attr-defined]

    def test_points_by_keys_of_old_documents_go_straight_and_layers_are_at_rest(self) -> None:
        keys = [{"at": 0, "value": [0, 0]}, {"at": 10, "value": [8, 4], "ease": {"kind": "hold"}}]
        clip = {"kind": "solid", "id": "m", "length": 705600000}
        clip["place"] = {"position": {"keys": keys}}
        tracks = [{"id": "t", "kind": "main", "clips": [clip]}]
        document = load({**SAVED, "schema": "velvet-kite/4", "tracks": tracks})
        [solid] = document.main.clips
        self.assertTrue(solid.moves.at_rest)  # type: ignore[attr-defined]
        self.assertIsNone(solid.warp)  # type: ignore[attr-defined]
        position = solid.place.position  # type: ignore[attr-defined]
        self.assertEqual((0.0, 0.0), position.keys[0].after)
        self.assertEqual((4.0, 2.0), value_at(position, 5))

    def test_strokes_of_old_documents_are_as_wide_everywhere(self) -> None:
        stroke = {"points": [[0, 0], [0.1, 0.2]], "width": 0.1}
        mask = {"kind": "brush", "strokes": [stroke]}
        clip = {"kind": "solid", "id": "m", "length": 705600000, "masks": [mask]}
        tracks = [{"id": "t", "kind": "main", "clips": [clip]}]
        document = load({**SAVED, "schema": "velvet-kite/5", "tracks": tracks})
        [kept] = document.main.clips[0].masks[0].strokes  # type: ignore[attr-defined]
        self.assertEqual(((), 0.1), (kept.pressures, kept.width))
        stroke["pressures"] = [0.5]
        with self.assertRaises(BadInput):
            load({**SAVED, "schema": "velvet-kite/6", "tracks": tracks})

    def test_a_match_of_old_documents_has_no_gains(self) -> None:
        match = {"own_mean": [0.5, 0, 0], "wanted_mean": [0.6, 0.05, 0]}
        clip = {"kind": "solid", "id": "m", "length": 705600000, "grade": {"match": match}}
        tracks = [{"id": "t", "kind": "main", "clips": [clip]}]
        document = load({**SAVED, "schema": "velvet-kite/6", "tracks": tracks})
        kept = document.main.clips[0].grade.match  # type: ignore[attr-defined]
        self.assertEqual(((1, 1, 1), (0.6, 0.05, 0)), (kept.gains, kept.wanted_mean))

    def test_points_of_old_ramps_all_lead(self) -> None:
        points = [{"at": 0, "speed": 1}, {"at": 9, "speed": 2}]
        group = {"kind": "group", "id": "g", "length": 9, "tracks": [], "speed": {"points": points}}
        tracks = [{"id": "t", "kind": "main", "clips": [group]}]
        document = load({**SAVED, "schema": "velvet-kite/7", "tracks": tracks})
        speed = document.main.clips[0].speed  # type: ignore[attr-defined]
        self.assertEqual([False, False], [point.bends for point in speed.points])

    def test_groups_of_old_documents_have_the_size_of_what_they_lie_on(self) -> None:
        group = {"kind": "group", "id": "g", "length": 705600000, "tracks": []}
        tracks = [{"id": "t", "kind": "main", "clips": [group]}]
        document = load({**SAVED, "schema": "velvet-kite/9", "tracks": tracks})
        self.assertIsNone(document.main.clips[0].canvas)  # type: ignore[attr-defined]

    def test_layers_of_old_documents_follow_layers_alone(self) -> None:
        follows = {"kind": "solid", "id": "s", "length": 9, "moves": {"follow": {"clip": "lead"}}}
        tracks = [{"id": "t", "kind": "main", "clips": [follows]}]
        document = load({**SAVED, "schema": "velvet-kite/10", "tracks": tracks})
        follow = document.main.clips[0].moves.follow  # type: ignore[attr-defined]
        self.assertEqual(("lead", None), (follow.clip, follow.tracker))

    def test_pictures_of_old_documents_have_no_strokes(self) -> None:
        still = {"kind": "still", "id": "s", "length": 9, "media": "m"}
        painted = {"kind": "brush", "strokes": [{"points": [[0, 0]], "erase": True}]}
        tracks = [{"id": "t", "kind": "main", "clips": [still | {"masks": [painted]}]}]
        document = load({**SAVED, "schema": "velvet-kite/11", "tracks": tracks})
        clip: Any = document.main.clips[0]
        self.assertEqual(((), True), (clip.strokes, clip.retouched))
        self.assertEqual((None, ()), (clip.cutout, clip.taken_off))
        self.assertTrue(clip.masks[0].strokes[0].erase)

    def test_tracks_of_old_documents_are_no_captions(self) -> None:
        tracks = [{"id": "t", "kind": "main"}, {"id": "u", "kind": "picture"}]
        document = load({**SAVED, "schema": "velvet-kite/12", "tracks": tracks})
        self.assertEqual([False, False], [track.captions for track in document.tracks])

    def test_words_and_strokes_of_old_documents_have_no_keys(self) -> None:
        painted = {"kind": "brush", "strokes": [{"points": [[0, 0]]}]}
        text = {"kind": "text", "id": "s", "length": 9, "text": "Wind", "masks": [painted]}
        tracks = [{"id": "t", "kind": "main", "clips": [text]}]
        document = load({**SAVED, "schema": "velvet-kite/13", "tracks": tracks})
        clip: Any = document.main.clips[0]
        self.assertEqual("Wind", clip.text)
        self.assertEqual(((0, 0),), clip.masks[0].strokes[0].points)

    def test_videos_of_old_documents_are_whole(self) -> None:
        video = {"kind": "video", "id": "v", "length": 9, "media": "m", "source_length": 9}
        cutout = {"strokes": [{"points": [[0, 0]]}], "grow": 0.01}
        still = {"kind": "still", "id": "s", "start": 9, "length": 9, "media": "m"}
        tracks = [{"id": "t", "kind": "main", "clips": [video, still | {"cutout": cutout}]}]
        document = load({**SAVED, "schema": "velvet-kite/16", "tracks": tracks})
        first, second = document.main.clips
        self.assertIsNone(first.cutout)  # type: ignore[attr-defined]
        kept: Any = second.cutout  # type: ignore[attr-defined]
        self.assertEqual((True, 0.01, ()), (kept.finds, kept.grow, kept.persons))

    def test_fills_of_before_close_from_around_and_trackers_go_all_the_way(self) -> None:
        stroke = {"kind": "fill_stroke", "id": "f", "points": [[0, 0]], "since": 3}
        view = {"at": 0, "corners": [[0, 0], [1, 0], [1, 1], [0, 1]]}
        tracker = {"id": "a", "views": [view], "first": 0, "last": 9}
        video = {"kind": "video", "id": "v", "length": 9, "media": "m", "source_length": 9}
        video |= {"strokes": [stroke], "trackers": [tracker]}
        tracks = [{"id": "t", "kind": "main", "clips": [video]}]
        document = load({**SAVED, "schema": "velvet-kite/17", "tracks": tracks})
        clip: Any = document.main.clips[0]
        self.assertEqual(("around", None), (clip.strokes[0].taken_from, clip.strokes[0].behind))
        self.assertEqual((None, None), (clip.trackers[0].begins, clip.trackers[0].ends))

    def test_trackers_of_before_follow_all_that_lies_within_and_keep_the_name_of_what_was_found(
        self,
    ) -> None:
        tracker = self.tracker_of("velvet-kite/18")
        self.assertEqual(((), False), (tracker.spots, tracker.face))
        wanted = tracker.wanted.model_dump()
        self.assertEqual({"change", "views", "first", "last"}, set(wanted))

    def test_what_goes_along_with_trackers_of_before_lies_where_they_are(self) -> None:
        self.assertEqual((0, 0), self.tracker_of("velvet-kite/19").aside)

    def test_shards_of_before_fall_down(self) -> None:
        burst = {"kind": "shards", "id": "b", "fall": 20.0}
        solid = {"kind": "solid", "id": "s", "length": 9, "effects": [burst]}
        tracks = [{"id": "t", "kind": "main", "clips": [solid]}]
        clip: Any = load({**SAVED, "schema": "velvet-kite/20", "tracks": tracks}).main.clips[0]
        self.assertEqual((20.0, 0.0), (clip.effects[0].fall, clip.effects[0].direction))

    def test_how_far_effects_look_back_stays_as_it_was(self) -> None:
        effects = [
            {"kind": "echo", "id": "e", "count": 3, "later": 0.5},
            {"kind": "hold", "id": "h", "rate": 8},
        ]
        clip = {"kind": "solid", "id": "s", "length": 9, "effects": effects}
        tracks = [{"id": "t", "kind": "main", "clips": [clip]}]
        solid: Any = load({**SAVED, "schema": "velvet-kite/21", "tracks": tracks}).main.clips[0]
        self.assertEqual([3 * SECOND // 2, SECOND // 8], [one.looks_back for one in solid.effects])

    def test_what_shook_before_was_sharp(self) -> None:
        clip = {"kind": "solid", "id": "s", "length": 9, "effects": [{"kind": "shake", "id": "e"}]}
        tracks = [{"id": "t", "kind": "main", "clips": [clip]}]
        solid: Any = load({**SAVED, "schema": "velvet-kite/22", "tracks": tracks}).main.clips[0]
        self.assertEqual(0, solid.effects[0].shutter)

    def tracker_of(self, schema: str) -> Any:
        """One of a document saved before."""
        view = {"at": 0, "corners": [[0, 0], [1, 0], [1, 1], [0, 1]]}
        tracker = {"id": "a", "views": [view], "first": 0, "last": 9}
        video = {"kind": "video", "id": "v", "length": 9, "media": "m", "source_length": 9}
        tracks = [{"id": "t", "kind": "main", "clips": [{**video, "trackers": [tracker]}]}]
        clip: Any = load({**SAVED, "schema": schema, "tracks": tracks}).main.clips[0]
        return clip.trackers[0]

    def test_an_unknown_schema_says_what_to_do(self) -> None:
        with self.assertRaises(BadInput) as caught:
            load({**SAVED, "schema": "velvet-kite/999"})
        self.assertIn("newer", caught.exception.todo)

    def test_damaged_documents_are_refused_with_the_place(self) -> None:
        tracks = [{"kind": "main", "clips": [{"kind": "solid", "length": -1}]}]
        with self.assertRaisesRegex(BadInput, "length"):
            load({**SAVED, "tracks": tracks})
        with self.assertRaises(BadInput):
            load({**SAVED, "surprise": 1})

    def test_upgrades_run_one_after_the_other(self) -> None:
        upgrades = Upgrades("film/3")
        upgrades.step("film/1", "film/2")(lambda data: {**data, "b": data["a"] + 1})
        upgrades.step("film/2", "film/3")(lambda data: {"c": data["b"] * 10})
        self.assertEqual(
            {"schema": "film/3", "c": 30}, upgrades.to_newest({"schema": "film/1", "a": 2})
        )

    def test_documents_do_not_change(self) -> None:
        document = empty_document()
        with self.assertRaises(ValueError):
            document.tracks = ()  # type: ignore[misc]
        self.assertIsInstance(document, Document)

    def test_every_parameter_describes_itself(self) -> None:
        described = Document.model_json_schema()["$defs"]["Place"]["properties"]["turn"]
        self.assertEqual(("°", -180, 180), tuple(described[k] for k in ("unit", "low", "high")))
        self.assertTrue(described["description"])
