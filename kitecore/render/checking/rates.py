"""Takes whose frames do not come as often as the project's."""

from collections.abc import Iterator
from fractions import Fraction

from kitecore.document import VideoClip, all_clips
from kitecore.render.checking._base import Check, Film, Finding, checks

_NEAR = Fraction(1, 500)


def _rates(film: Film) -> Iterator[Finding]:
    own, told = film.document.rate.exact.fraction, set[str]()
    for clip in all_clips(film.document.tracks):
        if not isinstance(clip, VideoClip) or clip.media in told:
            continue
        told.add(clip.media)
        picture = film.sources.folder(clip.media).info.picture
        if picture is None or picture.rate is None or clip.between != "nearest":
            continue
        rate = Fraction(picture.rate.num, picture.rate.den)
        times = rate / own
        if abs(times - round(times)) > _NEAR or times < 1:
            yield Finding(
                check="rates",
                grade="doubt",
                message=f"“{clip.name}” has {float(rate):.5g} frames a second, "
                f"the project {float(own):.5g}: it may judder.",
                at=clip.start,
                clip=clip.id,
            )


checks.register("rates")(Check(label="Frame rates go together", of="file", run=_rates))
