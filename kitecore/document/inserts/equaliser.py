from __future__ import annotations

from typing import Literal

from kitecore.document.inserts._base import InsertBase, insert_kinds
from kitecore.document.properties import Number
from kitecore.model import Model, param


def _frequency(default: float) -> Number:
    made: Number = param(
        default, help="Frequency", unit="Hz", low=20, high=20_000, step=1, ge=10, le=22_000
    )
    return made


def _gain() -> Number:
    made: Number = param(0.0, help="Gain", unit="dB", low=-18, high=18, step=0.1, ge=-36, le=36)
    return made


class Cut(Model):
    """Takes away what lies beyond its frequency, by 12 dB an octave; ``on`` or not."""

    on: bool = False
    frequency: Number = _frequency(80.0)


class HighCut(Cut):
    frequency: Number = _frequency(14_000.0)


class Shelf(Model):
    """Lifts or lowers everything beyond its frequency."""

    frequency: Number = _frequency(120.0)
    gain: Number = _gain()


class HighShelf(Shelf):
    frequency: Number = _frequency(8000.0)


class Bell(Model):
    """Lifts or lowers around its frequency; the higher ``q``, the narrower."""

    frequency: Number = _frequency(1000.0)
    gain: Number = _gain()
    q: Number = param(1.0, help="Narrowness", low=0.2, high=12, step=0.05, ge=0.1, le=40)


class LowBell(Bell):
    frequency: Number = _frequency(300.0)


class HighBell(Bell):
    frequency: Number = _frequency(3500.0)


@insert_kinds.register("equaliser")
class Equaliser(InsertBase):
    """Equaliser: makes low, middle and high parts louder or quieter."""

    kind: Literal["equaliser"] = "equaliser"
    low_cut: Cut = Cut()
    low_shelf: Shelf = Shelf()
    low_bell: LowBell = LowBell()
    bell: Bell = Bell()
    high_bell: HighBell = HighBell()
    high_shelf: HighShelf = HighShelf()
    high_cut: HighCut = HighCut()
