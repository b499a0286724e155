"""Steps on keys, as the page sends them."""

from __future__ import annotations

from django.test import TestCase

from studio.tests.site import SECOND, People


class KeysTest(People, TestCase):
    def test_all_keys_of_any_property_can_be_deleted_at_once(self) -> None:
        self.edit(kind="place", clip=self.solid("a"))
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        pins = {"kind": "pins", "pins": [{"id": "p", "rest": [0, 0], "at": [0, 0]}]}
        self.edit(kind="adjust", clips=[clip], values={"warp": pins})
        for path, begin, end in (
            ("place/position", [0, 0], [5, 5]),
            ("place/size", [1, 1], [2, 2]),
            ("place/turn", 0, 3),
            ("warp/pins/p/at", [0, 0], [0.1, 0.1]),
            ("fill/colour", "#000000", "#ffffff"),
        ):
            with self.subTest(path=path):
                keys = [{"at": 0, "value": begin}, {"at": SECOND // 2, "value": end}]
                done = self.edit(kind="adjust", clips=[clip], values={path: {"keys": keys}})
                self.assertEqual(200, done.status_code, done.content)
                taken = [{"clip": clip, "path": path, "at": [0, SECOND // 2]}]
                gone = self.edit(kind="remove_keys", keys=taken)
                self.assertEqual(200, gone.status_code, gone.content)
