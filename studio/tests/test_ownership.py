"""Nobody sees, uses or changes what is another's: every way into the site, found in its schema."""

from __future__ import annotations

import json
import re
from collections import Counter
from itertools import count
from typing import Any
from unittest.mock import patch

from django.test import TestCase

from studio.kit.models import Font, Look
from studio.projects.models import Project
from studio.tests.samples import MARK, bodies, free_fields, leading, smallest, whole_schema
from studio.tests.site import SECOND, People, clip_of, take_of

NAMED = {
    # Fields whose content no schema tells, each tried by hand below.
    "PresetIn.content",
    "Adjust.values",
    "SetGrade.values",
    "SetPart.values",
    "AddItem.item",
    # Values of properties, which are numbers, colours, points and paths.
    "CopiedKey.value",
    "PasteKeys.value",
    # A strip names tracks of its own project, and nothing outside of it.
    "SetStrip.values",
}
TRIED: list[dict[str, Any]] = [
    {"kind": "adjust", "clips": ["c"], "values": {"font": MARK + "font"}},
    {"kind": "adjust", "clips": ["c"], "values": {"grade": {"lut": {"look": MARK + "look"}}}},
    {"kind": "set_grade", "clips": ["c"], "values": {"lut/look": MARK + "look"}},
    {
        "kind": "add_item",
        "clips": ["c"],
        "list": "grade/zones",
        "item": {"adjust": {"lut": {"look": MARK + "look"}}},
    },
    {
        "kind": "set_part",
        "clips": ["c"],
        "list": "effects",
        "part": "e",
        "values": {"look": MARK + "look"},
    },
]
OF_ANGLES = ("gather_angles", "add_angles", "exchange_takes")
"""Edits that need something that runs, and a multicam clip."""
OF_MOUTHS = ("add_pose", "set_pose")
"""Edits of a mouth that has a pose called "c"."""
KEPT: list[tuple[str, dict[str, Any]]] = [
    ("grade", {"lut": {"look": MARK + "look"}}),
    ("grade", {"zones": [{"id": "z", "adjust": {"lut": {"look": MARK + "look"}}}]}),
    ("effects", {"effects": [{"kind": "look", "look": MARK + "look"}]}),
    ("element", {"copies": [{"lane": 0, "of": "main", "clip": None}]}),
]


class Ownership(People, TestCase):
    """Pip has a take, a look and a font; so has Wren. Pip's project holds a text and an angle."""

    def setUp(self) -> None:
        super().setUp()
        theirs = Project.objects.create(owner=self.wren, name="Theirs")
        own, foreign = take_of(self.project), take_of(theirs)
        self.own = {"take": own.id.hex, **self._kit_of(self.pip)}
        self.foreign = {"take": foreign.id.hex, **self._kit_of(self.wren)}
        self.takes = (own, foreign)
        grade = {"zones": [{"id": "z"}]}
        self.text = {"kind": "text", "name": "t", "length": 2 * SECOND, "grade": grade}
        self.text["effects"] = [{"kind": "look", "id": "e", "look": ""}]
        self.edit(kind="place", clip=self.text)
        run = {"media": own.id.hex, "name": "a", "kind": "video", "length": SECOND}
        self.edit(kind="gather_angles", takes=[run])
        pose = {"id": "p", "kind": "main", "name": "c", "clips": [self.text | {"id": "q"}]}
        self.edit(kind="place", clip={"kind": "mouth", "length": SECOND, "tracks": [pose]})
        corners = [[-0.1, -0.1], [0.1, -0.1], [0.1, 0.1], [-0.1, 0.1]]
        tracker = {"views": [{"at": 0, "corners": corners}], "first": 0, "last": 1}
        self.edit(kind="place", clip=clip_of(own) | {"trackers": [tracker]})
        clips = self.document()["tracks"][0]["clips"]
        self.fresh = count()
        self.clip, self.angles, self.mouth, self.led = (clip["id"] for clip in clips)
        [self.tracker] = [one["id"] for one in clips[-1]["trackers"]]

    def _kit_of(self, owner: Any) -> dict[str, str]:
        return {
            "look": Look.objects.create(owner=owner, name="l").id.hex,
            "font": Font.objects.create(owner=owner, name="f").id.hex,
        }

    def filled(self, body: Any, ids: dict[str, str]) -> Any:
        """A body with the ids in place of marks, and its clip that of the project."""
        text = json.dumps(body)
        for kind, id in ids.items():
            text = text.replace(MARK + kind, id)
        clip = self.clip
        if any(f'"{kind}"' in text for kind in OF_ANGLES):
            clip = self.angles
            text = text.replace('"kind": "still"', f'"kind": "video", "length": {SECOND}')
        if '"cover_tracked"' in text:
            clip = self.led
            text = text.replace('"tracker": "c"', f'"tracker": "{self.tracker}"')
        if any(f'"{kind}"' in text for kind in OF_MOUTHS):
            clip = self.mouth
            if "add_pose" in text:
                # Each pose has a name of its own.
                text = text.replace('"name": "c"', f'"name": "{next(self.fresh)}"')
        if "exchange_takes" in text:
            # It names two takes, of which one at a time is tried.
            text = text.replace('"media": "bricolage-grotesque"', f'"media": "{self.own["take"]}"')
        if '"add_parts"' in text:
            # What names another's look among parts is an effect.
            text = text.replace('"list": "masks"', '"list": "effects"')
        text = text.replace('"clip": "c"', f'"clip": "{clip}"')
        return json.loads(text.replace('["c"]', f'["{self.clip}"]'))

    def path(self, path: str, method: str = "post") -> str:
        self.project.refresh_from_db()
        own, _ = self.takes
        id = own.id if "/takes/" in path else self.project.id
        return path.removeprefix("/api").format(
            id=id, revision=self.project.head_id, frame=0, kind="picture"
        )


class WaysInTest(Ownership):
    def _answers(self, path: str, body: Any) -> tuple[int, int]:
        """With what is another's, then with one's own; the project as it was before."""
        statuses = []
        for ids in (self.foreign, self.own):
            whole = self.filled(body, ids)
            if "based_on" in whole:
                self.project.refresh_from_db()
                whole["based_on"] = self.project.head_id
            answer = self.call("post", self.path(path), whole)
            statuses.append(answer.status_code)
            if answer.status_code == 200 and path.endswith("/edits"):
                # A step may take everything else away.
                back = {"based_on": answer.json()["revision"]}
                self.call("post", self.path("/projects/{id}/undo"), back)
        return statuses[0], statuses[1]

    def test_no_body_leads_to_what_is_anothers(self) -> None:
        worked: Counter[str] = Counter()
        tried: set[str] = set()
        with patch("studio.playback.api.render", lambda job: b"picture"):
            for method, path, schema in bodies():
                for body in leading(schema):
                    edit = body.get("edit") or (body.get("edits") or [{}])[0]
                    way = f"{method} {path} {edit.get('kind', '')}"
                    tried.add(way)
                    foreign, own = self._answers(path, body)
                    self.assertIn(foreign, (404, 422), (way, body))
                    if own in (200, 201):
                        self.assertEqual(404, foreign, (way, body))
                        worked[way] += 1
        self.assertLess(10, len(tried))
        edits_of_takes = {way for way in tried if "/takes/" in way}
        # A body that is refused for another reason shows nothing: each way has one that is not.
        self.assertEqual(set(), tried - set(worked) - edits_of_takes)

    def test_fields_that_hold_anything_are_known(self) -> None:
        found = {name for _, _, schema in bodies() for name in free_fields(schema)}
        self.assertEqual(set(), found - NAMED, "try it here, then name it")

    def test_nor_do_free_fields(self) -> None:
        with patch("studio.playback.api.render", lambda job: b"picture"):
            for edit in TRIED:
                for path, body in (
                    ("/projects/{id}/revisions/{revision}/still", {"frame": 0, "edits": [edit]}),
                    ("/projects/{id}/edits", {"based_on": 0, "edit": edit}),
                ):
                    with self.subTest(path, edit=edit):
                        self.assertEqual((404, 200), self._answers(path, body))

    def test_nor_does_what_is_kept_in_the_kit(self) -> None:
        own, foreign = self.takes
        for kind, content in KEPT:
            for ids, take, status in ((self.foreign, foreign, 404), (self.own, own, 201)):
                given = self.filled(content, ids)
                if kind == "element":
                    group: dict[str, Any] = {"kind": "group", "length": SECOND}
                    group["tracks"] = [{"id": "t", "kind": "picture", "clips": [clip_of(take)]}]
                    given["copies"][0]["clip"] = group
                with self.subTest(kind, status=status):
                    body = {"kind": kind, "name": "k", "content": given}
                    self.assertEqual(status, self.call("post", "/kit/presets", body).status_code)

    def test_the_picture_of_anothers_take_does_not_come(self) -> None:
        place = {"kind": "place", "clip": clip_of(self.takes[1]), "mode": "push"}
        body = {"frame": 0, "edits": [place]}
        answer = self.call("post", self.path("/projects/{id}/revisions/{revision}/still"), body)
        self.assertEqual(
            (404, "application/json"), (answer.status_code, answer["Content-Type"][:16])
        )


class EveryAddressTest(Ownership):
    def test_what_is_pips_is_not_there_for_wren_nor_for_a_stranger(self) -> None:
        paths = [path for path in whole_schema()["paths"] if "{" in path]
        self.assertLess(25, len(paths))
        tried = 0
        for path in paths:
            for method, call in whole_schema()["paths"][path].items():
                body = call.get("requestBody", {}).get("content", {}).get("application/json")
                given = smallest(body["schema"]) if body else None
                address = re.sub(r"\{[a-z]+\}", "1", self._named(path))
                for client, statuses in ((self.other, (404, 422)), (self.stranger, (401,))):
                    with self.subTest(f"{method} {path}"):
                        answer = self.call(method, address, given, client)
                        self.assertIn(answer.status_code, statuses, answer.content[:200])
                        tried += 1
        self.assertLess(60, tried)

    def _named(self, path: str) -> str:
        own, _ = self.takes
        take = str(own.id if "/takes/" in path else self.project.id)
        numbered = "/kit/" in path or "/account/" in path
        return path.removeprefix("/api").replace("{id}", "1" if numbered else take)
