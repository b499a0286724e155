from kitecore.picture.blend._base import blends, separable


def multiply(s: float, d: float, sa: float, da: float) -> float:
    return s * (1 - da) + d * (1 - sa) + s * d


blends.register("multiply")(separable(multiply))
