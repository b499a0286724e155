"""What a process that draws holds while large takes play, many at once."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path
from typing import Final

import av
import cv2
import numpy as np

from benchmarks.core import Workshop
from benchmarks.layers import reference_piece
from benchmarks.rows import Row
from kitecore import edits
from kitecore.document import Document, Place, VideoClip, dumps, empty_document
from kitecore.edits import edit_kinds
from kitecore.media.ingest import ingest

_TAKES: Final = 10
_FRAMES: Final = 60
_MOST: Final = 600

_PLAY = """
import json, sys
from pathlib import Path
from kitecore.document import loads
from kitecore.media.folder import MediaFolder
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.render.warm import warm
warm()
sources, held = Sources(lambda media: MediaFolder(Path(sys.argv[1]) / media), draft=True), []
for path in sys.argv[2:]:
    document = loads(Path(path).read_text())
    for first in range(0, document.frames, 15):
        picture_piece(document, first, min(first + 15, document.frames), (360, 640), sources)
    status = Path("/proc/self/status").read_text()
    held.append(int(status.split("VmHWM:")[1].split()[0]) / 1024)
print(json.dumps(held))
"""


def drawing(shop: Workshop) -> Row:
    """The most that is held by a process that plays the reference piece, then ten takes of 4K at once."""
    paths = []
    for name, document in (("reference", reference_piece(shop)), ("ten", _beside_each_other(shop))):
        paths.append(shop.root / f"{name}.json")
        paths[-1].write_text(dumps(document))
    command = [sys.executable, "-c", _PLAY, shop.root / "takes", *paths]
    done = subprocess.run(command, check=True, capture_output=True, text=True)
    reference, most = json.loads(done.stdout)
    return Row(
        "memory of a process that draws, the reference piece and ten takes of 4K at once",
        f"{most:.0f} MB",
        f"< {_MOST} MB",
        f"{reference:.0f} MB after the reference piece; at 640 px, with proxies",
        most < _MOST,
    )


def _beside_each_other(shop: Workshop) -> Document:
    document = empty_document()
    film = _film(shop.root / "large.mp4")
    for number in range(_TAKES):
        folder = shop.find(f"large-{number}")
        if not folder.info_file.exists():
            folder.path.mkdir(parents=True, exist_ok=True)
            folder.original.write_bytes(film.read_bytes())
            ingest(folder)
        length = folder.info.length
        clip = VideoClip(
            name=folder.path.name,
            media=folder.path.name,
            length=length,
            source_length=length,
            place=Place(size=(0.3, 0.3), position=(80 * number - 400, 160 * number - 800)),
        )
        mode = "above" if number else "end"
        document = edits.apply(document, edit_kinds["place"](clip=clip, mode=mode, at=0))
    return document


def _film(path: Path) -> Path:
    """Two seconds of soft noise that moves, 3840 × 2160."""
    if path.exists():
        return path
    noise = np.random.default_rng(1).integers(0, 255, (270, 480, 3), np.uint8)
    picture = cv2.resize(noise, (3840, 2160), interpolation=cv2.INTER_CUBIC)
    with av.open(str(path), "w") as out:
        stream = out.add_stream("libx264", rate=30, options={"preset": "ultrafast", "crf": "20"})
        stream.width, stream.height, stream.pix_fmt = 3840, 2160, "yuv420p"
        for number in range(_FRAMES):
            frame = av.VideoFrame.from_ndarray(np.roll(picture, 8 * number, 1), "rgb24")
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    return path
