"""``python -m benchmarks``: measure all rows and write docs/benchmarks.md."""

from __future__ import annotations

import os
import platform
from datetime import UTC, datetime
from pathlib import Path

from benchmarks import (
    big_takes,
    cameras,
    core,
    crowd,
    cut,
    cutting,
    effects,
    endurance,
    grade,
    heard,
    layers,
    move,
    retouching,
    scopes,
    sending,
    site,
    sound,
    speech,
    starting,
    tracking,
)
from benchmarks.rows import Row

ROOT = Path(__file__).resolve().parent.parent
NOTES = ROOT / "docs" / "benchmarks-notes.md"


def main() -> None:
    data = Path(os.environ.get("VELVET_KITE_BENCH", ROOT / "build" / "bench"))
    shop = core.Workshop(data / "core")
    rows: list[Row] = []
    for measure in (
        lambda: [core.export_untouched(shop)],
        lambda: core.stills(shop),
        lambda: [core.preview(shop)],
        lambda: [core.proxies(shop)],
        lambda: cut.ramps(shop),
        lambda: cut.transitions(shop),
        lambda: grade.grading(shop),
        lambda: layers.layers(shop),
        lambda: move.moving(shop),
        sound.sound,
        speech.speech,
        lambda: sending.sending(shop),
        cameras.cameras,
        tracking.tracking,
        retouching.retouching,
        cutting.cutting,
        lambda: effects.effects(shop),
        lambda: [core.memory(shop, shop.untouched(10), 1, "untouched")],
        lambda: [core.memory(shop, layers.reference_piece(shop), 6, "the reference piece")],
        lambda: [big_takes.drawing(shop)],
        lambda: [starting.first_picture(data)],
        lambda: site.edits(data),
        lambda: crowd.crowd(data),
        lambda: endurance.beside(data),
        lambda: endurance.long_use(data),
        lambda: [site.play_start(data)],
        lambda: [heard.heard(data)],
        lambda: scopes.following(data),
        lambda: site.timeline(data),
    ):
        for row in measure():
            print(
                f"{'ok  ' if row.good else 'MISS'} {row.what}: {row.reached} (aim {row.aim}); {row.how}",
                flush=True,
            )
            rows.append(row)
    write(rows)


def write(rows: list[Row]) -> None:
    lines = [
        "# Speeds and sizes",
        "",
        "Measured by `make bench`; ratios are taken side by side in one run, times are medians.",
        f"Last run: {datetime.now(UTC):%Y-%m-%d}, {os.cpu_count()} cores, {platform.machine()}.",
        "",
        "| what | reached | aim | |",
        "| --- | --- | --- | --- |",
        *(
            f"| {row.what} | {'' if row.good else '**missed:** '}{row.reached} | {row.aim} | {row.how} |"
            for row in rows
        ),
        "",
        NOTES.read_text() if NOTES.exists() else "",
    ]
    (ROOT / "docs" / "benchmarks.md").write_text("\n".join(lines).rstrip() + "\n")


if __name__ == "__main__":
    main()
