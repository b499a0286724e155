"""Switches of a multicam clip, put in order."""

from __future__ import annotations

from collections.abc import Sequence

from kitecore.document import Switch


def in_turn(switches: Sequence[Switch], end: int, step: int) -> tuple[Switch, ...]:
    """Switches in order of time, the first at 0, without those that change nothing.

    Of two at one moment the later given stays. Transitions are as long as the stretches beside them
    have room for.

    Parameters
    ----------
    end
        Tick at which what is switched ends; switches from there on are left out.
    step
        Length of a frame.
    """
    kept: list[Switch] = []
    for switch in sorted(switches, key=lambda one: one.at):
        if switch.at >= end and kept:
            break
        if kept and kept[-1].at == switch.at:
            kept.pop()
        if not kept or kept[-1].angle != switch.angle:
            kept.append(switch)
    kept[0] = kept[0].model_copy(update={"at": 0, "transition": None})
    borders = [*(one.at for one in kept), end]
    return tuple(
        _fitted(switch, borders[i + 1] - switch.at, switch.at - borders[max(0, i - 1)], step)
        for i, switch in enumerate(kept)
    )


def _fitted(switch: Switch, after: int, before: int, step: int) -> Switch:
    """With its transition as long as there is room on either side: half of each stretch."""
    if switch.transition is None:
        return switch
    half = min(switch.transition.half, before // 2, after // 2) // step * step
    if half == switch.transition.half:
        return switch
    fitted = switch.transition.model_copy(update={"length": 2 * half}) if half else None
    return switch.model_copy(update={"transition": fitted})
