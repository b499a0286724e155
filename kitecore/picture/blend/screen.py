from kitecore.picture.blend._base import blends, separable


def screen(s: float, d: float, sa: float, da: float) -> float:
    return s + d - s * d


blends.register("screen")(separable(screen))
