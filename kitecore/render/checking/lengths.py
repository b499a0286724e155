"""Whether a destination takes a film of this length and shape."""

from collections.abc import Iterator

from kitecore.render.checking._base import Check, Film, Finding, checks

_SAME_SHAPE = 0.02


def _length(film: Film) -> Iterator[Finding]:
    longest = film.destination.longest
    if longest and film.seconds > longest:
        yield Finding(
            check="length",
            grade="bad",
            message=f"The film is {film.seconds - longest:.1f} s too long: "
            f"{film.destination.title} takes {longest:g} s.",
            at=film.tick(film.frames(longest)),
            until=film.document.length,
        )


def _shape(film: Film) -> Iterator[Finding]:
    aspect, canvas = film.destination.settings.shape, film.document.canvas
    if aspect is None or film.work.framing.whole:
        return
    wanted, own = aspect.width / aspect.height, canvas.width / canvas.height
    if abs(wanted / own - 1) > _SAME_SHAPE:
        lost = "is cropped" if film.destination.settings.fit == "fill" else "has bars beside it"
        yield Finding(
            check="shape",
            grade="doubt",
            message=f"The project has another shape than {aspect.width}:{aspect.height}: "
            f"its picture {lost}.",
        )


checks.register("length")(Check(label="The length suits the place", of="file", run=_length))
checks.register("shape")(Check(label="The shape suits the place", of="file", run=_shape))
