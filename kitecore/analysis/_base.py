"""What an analysis is, and where its results lie."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TypeVar

from kitecore.media.folder import MediaFolder
from kitecore.media.info import MediaInfo
from kitecore.media.whole import whole_folder
from kitecore.model import Model
from kitecore.programs import Tell, tell_nobody
from kitecore.registry import Registry

M = TypeVar("M", bound=Model)


def sounds(info: MediaInfo) -> bool:
    """Whether a take has anything to be heard: what analyses of sound fit."""
    return info.sound is not None


class NoParameters(Model):
    """Of an analysis that looks at every take in the same way."""


@dataclass(frozen=True)
class Analysis:
    """Something found out about a take once, and kept beside it.

    Its result follows from the take, the version and the parameters alone. Times in it are ticks of
    the file, lengths are heights of the picture; so speed, trim and size of a clip change nothing.

    Attributes
    ----------
    version
        Goes up whenever the same take would have another result.
    fits
        Whether such a take can be looked at.
    run
        Fills a folder with the result; hears nothing of where that ends up.
    standing
        Whether every fitting take has it, made when it is taken in.
    """

    version: int
    fits: Callable[[MediaInfo], bool]
    run: Callable[[MediaFolder, Any, Path, Tell], None]
    parameters: type[Model] = NoParameters
    standing: bool = False


analyses: Registry[Analysis] = Registry("analysis", home="kitecore.analysis")


def place_of(folder: MediaFolder, name: str, parameters: Model | None = None) -> Path:
    """The folder of a result, whether it is there or not."""
    analysis = analyses[name]
    facts = f"{name}-{analysis.version}"
    if parameters is not None and parameters.model_dump(exclude_defaults=True):
        text = parameters.model_dump_json()
        facts += "-" + hashlib.blake2s(text.encode(), digest_size=8).hexdigest()
    return folder.path / "analyses" / facts


def result_of(folder: MediaFolder, name: str, parameters: Model | None = None) -> Path | None:
    """The folder with a result, if it was made."""
    place = place_of(folder, name, parameters)
    return place if place.is_dir() else None


def analyse(
    folder: MediaFolder,
    name: str,
    parameters: Model | None = None,
    tell: Tell = tell_nobody,
) -> Path:
    """The folder with a result; made now, whole or not at all, if it is not there.

    Raises
    ------
    MediaError
        If the take cannot be looked at so.
    """
    analysis, place = analyses[name], place_of(folder, name, parameters)
    if not place.is_dir():
        with whole_folder(place) as unfinished:
            analysis.run(folder, parameters or analysis.parameters(), unfinished, tell)
    return place


def write_found(out: Path, name: str, found: Model) -> None:
    """Keep what an analysis found as its one file."""
    (out / f"{name}.json").write_text(found.model_dump_json())


def read_found(folder: MediaFolder, name: str, kind: type[M], parameters: Model | None = None) -> M:
    """What an analysis found that keeps it so, or finds now."""
    place = analyse(folder, name, parameters)
    return kind.model_validate_json((place / f"{name}.json").read_text())


def standing_for(info: MediaInfo) -> list[str]:
    """Names of the analyses that a take of this kind has."""
    return [name for name, one in analyses.items() if one.standing and one.fits(info)]
