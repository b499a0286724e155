"""Rows that need only the core: export, stills, proxies, memory."""

from __future__ import annotations

import json
import random
import shutil
import subprocess
import sys
from fractions import Fraction
from pathlib import Path

import av

from benchmarks.rows import Row, percentile, seconds, side_by_side
from demo.make import make_all
from demo.project import Source, edits_of
from kitecore import edits
from kitecore.analysis import analyse, place_of
from kitecore.document import Document, VideoClip, dumps, empty_document
from kitecore.edits import edit_kinds
from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest
from kitecore.media.proxy import make_proxy
from kitecore.render.export import ExportSettings, make
from kitecore.render.making.films import Film
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.render.still import still
from kitecore.ticks import TICKS_PER_SECOND


class Workshop:
    """The demo takes, ingested below a folder, and the demo piece on them."""

    def __init__(self, root: Path) -> None:
        self.root = root
        takes = {}
        for path in make_all(root / "films"):
            folder = self.find(path.stem)
            if not folder.info_file.exists():
                folder.path.mkdir(parents=True, exist_ok=True)
                folder.original.write_bytes(path.read_bytes())
                ingest(folder)
            takes[path.name] = Source(path.stem, folder.info.length)
        document = empty_document()
        for edit in edits_of(takes):
            document = edits.apply(document, edit)
        self.piece = document

    def find(self, media: str) -> MediaFolder:
        return MediaFolder(self.root / "takes" / media)

    def untouched(self, copies: int = 1) -> Document:
        """One take as it is, some times in a row."""
        length = self.find("launch").info.length
        clip = VideoClip(name="launch", media="launch", length=length, source_length=length)
        document = empty_document()
        for _ in range(copies):
            document = edits.apply(document, edit_kinds["place"](clip=clip))
        return document


def export_untouched(shop: Workshop) -> Row:
    document, settings = shop.untouched(), ExportSettings()
    target = shop.root / "film.mp4"

    def ours() -> None:
        sources = Sources(shop.find, threads=2)
        make(document, settings, target, sources)
        sources.close()

    loop, kite = side_by_side(5, lambda: bare_loop(shop, settings), ours)
    ratio = kite / loop
    how = (
        f"{loop:.2f} s and {kite:.2f} s for 6 s at 1080 × 1920, sound and joining included in ours"
    )
    return Row(
        "export of one untouched clip, against a bare loop",
        f"{ratio:.2f} ×",
        "≤ 1.15 ×",
        how,
        ratio <= 1.15,
    )


def bare_loop(shop: Workshop, settings: ExportSettings) -> None:
    """Decode and encode with the same settings, nothing else."""
    recipe = settings.recipe
    assert isinstance(recipe, Film)
    options = {**recipe.options, "crf": str(recipe.crf[settings.quality])}
    with (
        av.open(str(shop.find("launch").original)) as source,
        av.open(str(shop.root / "bare.mp4"), "w") as out,
    ):
        video = source.streams.video[0]
        video.thread_type, video.codec_context.thread_count = "AUTO", 2
        stream = out.add_stream(recipe.codec, rate=30, options=options)
        stream.width, stream.height, stream.pix_fmt = 1080, 1920, "yuv420p"
        stream.codec_context.time_base = Fraction(1, 30)
        stream.codec_context.gop_size = 60
        for number, frame in enumerate(source.decode(video)):
            frame.pts, frame.time_base = number, Fraction(1, 30)
            frame.pict_type = av.video.frame.PictureType.NONE
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))


def stills(shop: Workshop) -> list[Row]:
    return [_stills(shop, 640, 60), _stills(shop, 960, 100)]


def _stills(shop: Workshop, side: int, aim: int) -> Row:
    sources = Sources(shop.find, draft=True)
    chance, frames = random.Random(2), shop.piece.frames
    step = shop.piece.rate.exact.frame_ticks

    def jump() -> None:
        still(shop.piece, chance.randrange(frames) * step, side, sources)

    for _ in range(12):
        jump()
    times = [seconds(jump) for _ in range(150)]
    sources.close()
    reached, middle = (percentile(times, share) * 1000 for share in (0.95, 0.5))
    how = f"median {middle:.0f} ms; 150 jumps by chance in the demo piece, with proxies"
    what = f"still after a jump, {side} px, 95 % within"
    return Row(what, f"{reached:.0f} ms", f"≤ {aim} ms", how, reached <= aim)


def preview(shop: Workshop) -> Row:
    document = shop.piece

    def play() -> None:
        sources = Sources(shop.find, draft=True)
        for first in range(0, document.frames, 15):
            picture_piece(document, first, min(first + 15, document.frames), (360, 640), sources)
        sources.close()

    taken = side_by_side(3, play)[0]
    factor = document.length / TICKS_PER_SECOND / taken
    how = f"{taken:.1f} s for the 18 s demo piece, coded for playing"
    return Row("preview at 640 px, against real time", f"{factor:.1f} ×", "≥ 2 ×", how, factor >= 2)


def proxies(shop: Workshop) -> Row:
    folder = shop.find("launch")

    def copy() -> None:
        make_proxy(folder)
        shutil.rmtree(place_of(folder, "strip"), ignore_errors=True)
        analyse(folder, "strip")

    taken = side_by_side(3, copy)[0]
    factor = folder.info.length / TICKS_PER_SECOND / taken
    how = f"{taken:.1f} s for 6 s at 1080 × 1920"
    return Row(
        "proxy and strips of a 1080p take, against real time",
        f"{factor:.1f} ×",
        "≥ 2 ×",
        how,
        factor >= 2,
    )


_MEMORY = """
import json, sys
from pathlib import Path
from kitecore.document import loads
from kitecore.media.folder import MediaFolder
from kitecore.render.export import ExportSettings, plan
from kitecore.render.sources import Sources
document = loads(Path(sys.argv[1]).read_text())
sources = Sources(lambda media: MediaFolder(Path(sys.argv[2]) / media), threads=2)
settings, held = ExportSettings(), []
work = settings.work(document)
for _ in range(int(sys.argv[3])):
    for frames in plan(work):
        settings.recipe.encode_piece(work, frames, Path(sys.argv[1] + ".piece"), sources)
        status = Path("/proc/self/status").read_text()
        held.append(int(status.split("VmHWM:")[1].split()[0]) / 1024)
print(json.dumps(held))
"""


def memory(shop: Workshop, document: Document, times: int, what: str) -> Row:
    """The most that is held while a piece is made so many times, one after the other."""
    path = shop.root / "long.json"
    path.write_text(dumps(document))
    command = [sys.executable, "-c", _MEMORY, str(path), str(shop.root / "takes")]
    done = subprocess.run([*command, str(times)], check=True, capture_output=True, text=True)
    held = json.loads(done.stdout)
    early, late = held[len(held) // 4], max(held)
    seconds = times * document.length / TICKS_PER_SECOND
    how = f"at most {early:.0f} MB in the first quarter of {seconds:.0f} s at 1080 × 1920"
    good = late < 500 and late < early * 1.25
    return Row(f"memory of a long export, {what}", f"{late:.0f} MB", "< 500 MB, flat", how, good)
