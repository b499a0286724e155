import importlib
import sys
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase
from unittest.mock import patch

from kitecore.document.blends import BLENDS
from kitecore.document.clips import clip_kinds
from kitecore.document.ease import EASES
from kitecore.document.effects import effect_kinds
from kitecore.edits import edit_kinds
from kitecore.errors import KiteError, UnknownName
from kitecore.motion.easing import easings
from kitecore.picture.blend import blends
from kitecore.picture.effects import (
    effect_drawings,
    paired_drawings,
    tabled_drawings,
    timed_drawings,
)
from kitecore.registry import Registry
from kitecore.render.painters import painters


class RegistryTest(TestCase):
    def test_an_unknown_name_is_answered_with_the_known_ones(self) -> None:
        fruit: Registry[int] = Registry("fruit")
        fruit.register("plum")(1)
        with self.assertRaisesRegex(UnknownName, r"no fruit named 'fig'. Known: plum"):
            fruit["fig"]
        self.assertIsInstance(UnknownName(""), KiteError)

    def test_a_name_is_given_once(self) -> None:
        fruit: Registry[int] = Registry("fruit")
        fruit.register("plum")(1)
        with self.assertRaises(ValueError):
            fruit.register("plum")(2)

    def test_of_a_home_only_what_is_asked_for_is_imported(self) -> None:
        with TemporaryDirectory() as folder, patch.object(sys, "path", [folder, *sys.path]):
            package = Path(folder) / "orchard"
            package.mkdir()
            (package / "__init__.py").write_text(
                "from kitecore.registry import Registry\nfruit = Registry('fruit', home='orchard')\n"
            )
            for name, names in (("plum", ("plum",)), ("citrus", ("lime", "lemon"))):
                lines = [f"fruit.register({one!r})({name!r})" for one in names]
                told = "\n".join(["from orchard import fruit", *lines])
                (package / f"{name}.py").write_text(told)
            fruit = importlib.import_module("orchard").fruit
            self.addCleanup(
                lambda: [
                    sys.modules.pop(one) for one in list(sys.modules) if one.startswith("orchard")
                ]
            )
            self.assertEqual("plum", fruit["plum"])
            self.assertNotIn("orchard.citrus", sys.modules)
            # One that has no module of its name lies in another.
            self.assertEqual("citrus", fruit["lime"])
            self.assertEqual(["lemon", "lime", "plum"], list(fruit))
            with self.assertRaises(UnknownName):
                fruit["fig"]

    def test_what_the_document_names_can_be_drawn(self) -> None:
        self.assertEqual(set(BLENDS), set(blends))
        drawn = [*effect_drawings, *timed_drawings, *paired_drawings, *tabled_drawings]
        self.assertEqual(sorted(effect_kinds), sorted(drawn))
        pictured = {kind for kind, clip in clip_kinds.items() if "opacity" in clip.model_fields}
        # What works on all that lies below has no picture of its own.
        self.assertEqual(pictured - {"adjustment"}, set(painters))
        self.assertEqual(set(EASES), set(easings))

    def test_kinds_name_themselves(self) -> None:
        for registry in (clip_kinds, effect_kinds, edit_kinds):
            for name, model in registry.items():
                self.assertEqual(name, model.model_fields["kind"].default)
