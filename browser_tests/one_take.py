"""A project with one take, open on a phone."""

from __future__ import annotations

from abc import abstractmethod
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np
from django.contrib.auth.models import User
from numpy.typing import NDArray

from browser_tests.fingers import Fingers, Point
from browser_tests.site import SiteTest
from kitecore.arrays import Size
from kitecore.document import Canvas, ClipBase, Document, empty_document
from kitecore.edits.tests.populated import edit
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND


class OneTakeTest(SiteTest):
    """``shape`` is the size of the canvas, and of the take's picture."""

    size = (390, 844)
    touch = True
    shape: Size
    frames = 30

    def setUp(self) -> None:
        super().setUp()
        canvas = Canvas(width=self.shape[0], height=self.shape[1])
        project = history.start_project(User.objects.get(), "One take", empty_document(canvas))
        take = self.brought_in(project, self.made(Path(self.enterContext(TemporaryDirectory()))))
        length = self.frames * SECOND // 30
        facts = take.facts or {}
        clip = {"kind": facts["kind"], "media": take.id.hex, "name": "take", "length": length}
        if facts["kind"] == "video":
            clip["source_length"] = facts["length"]
        self.do(kind="place", clip=clip, mode="end", at=0)
        self.browser.open(f"/projects/{project.id}/layer")
        self.fingers = Fingers(self.browser)

    @abstractmethod
    def made(self, folder: Path) -> Path:
        """The file of the take."""

    def do(self, **fields: Any) -> None:
        """An edit, as another page would send it."""
        project = Project.objects.get()
        history.apply_edit(project, project.head_id, edit(**fields))

    def document(self) -> Document:
        project = Project.objects.select_related("head").get()
        return history.document_at(history.head_of(project))

    @property
    def clip(self) -> Any:
        """The one on the main track."""
        [clip] = self.document().main.clips
        return clip

    def others(self) -> list[ClipBase]:
        """All but that one."""
        own = self.clip.id
        return [clip for _, clip in self.document().clips() if clip.id != own]

    def at(
        self, pixels: NDArray[np.float64] | tuple[float, float], on: str = "stroke-surface"
    ) -> Point:
        """Where a pixel of the picture is on the screen, while it is worked ``on``."""
        left, top, wide = self.browser.run(
            "const box = document.querySelector(`[data-test=${arguments[0]}]`)"
            ".getBoundingClientRect(); return [box.x, box.y, box.width]",
            on,
        )
        x, y = (np.asarray(pixels) + 0.5) * wide / self.shape[0]
        return left + float(x), top + float(y)
