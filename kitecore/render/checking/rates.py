"""Takes whose frames do not come as often as the project's."""

from collections.abc import Iterator
from fractions import Fraction

from kitecore.document import VideoClip
from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.render.checking.within import named_once

_NEAR = Fraction(1, 500)


def _rates(film: Film) -> Iterator[Finding]:
    own = film.document.rate.exact.fraction
    videos = (one for one in film.lies if isinstance(one.clip, VideoClip))
    for lies, media in named_once(videos):
        clip, picture = lies.clip, film.sources.folder(media).info.picture
        assert isinstance(clip, VideoClip)
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
                at=film.tick(int(lies.frames[0])),
                clip=lies.outer.id,
            )


checks.register("rates")(Check(label="Frame rates go together", of="file", run=_rates))
