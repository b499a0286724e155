"""How loud a film is, against what its destination wants."""

from collections.abc import Iterator

from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.render.levels import LOWEST

_NEAR = 1.0
"""LU within which nobody hears a difference."""
_HIGHEST = -1.0
"""dB of true peak that coders need above them (EBU Tech 3343)."""


def _loudness(film: Film) -> Iterator[Finding]:
    wanted, found = film.destination.loudness, film.sound.loudness.whole
    if wanted is None or not film.sound.there or found <= LOWEST:
        return
    off = found - wanted
    if abs(off) > _NEAR:
        yield Finding(
            check="loudness",
            grade="doubt",
            message=f"The film is {abs(off):.1f} LU too {'loud' if off > 0 else 'quiet'}: "
            f"{found:.1f} LUFS, wanted are {wanted:g}.",
            mend=_by(film, -off),
        )


def _by(film: Film, gain: float) -> dict[str, object] | None:
    """The film's strip so much louder, with a ceiling that holds."""
    now = film.document.strip
    if not isinstance(now.gain, float | int):
        return None
    values = {"gain": round(now.gain + gain, 1), "ceiling": min(now.ceiling, _HIGHEST)}
    return {"kind": "set_strip", "track": None, "values": values}


def _peaks(film: Film) -> Iterator[Finding]:
    peak = film.sound.loudness.peak
    if film.sound.there and peak > _HIGHEST + 0.05:
        values = {"ceiling": _HIGHEST}
        yield Finding(
            check="peaks",
            grade="bad" if peak > 0 else "doubt",
            message=f"True peaks reach {peak:+.1f} dB: above {_HIGHEST:g} they may crackle.",
            mend={"kind": "set_strip", "track": None, "values": values},
        )


checks.register("loudness")(Check(label="As loud as the place wants it", of="sound", run=_loudness))
checks.register("peaks")(Check(label="No peak is too high", of="sound", run=_peaks))
