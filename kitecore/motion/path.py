"""Between two pen paths, point by point."""

from __future__ import annotations

from kitecore.document.paths import Contour, Contours, Node
from kitecore.document.properties import Vector


def path_between(first: Contours, second: Contours, share: float) -> Contours:
    """The path ``share`` of the way from one to the other.

    Contours and points are matched in order. Where one contour has fewer points, some are added
    to it without a change of its shape; a contour without a partner grows from its middle, or
    shrinks into it.
    """
    count = max(len(first), len(second))
    pairs = (_partners(_item(first, index), _item(second, index), share) for index in range(count))
    return tuple(_mixed(a, b, share) for a, b in pairs)


def with_nodes(contour: Contour, count: int) -> Contour:
    """The same curve with ``count`` points: the longest stretches are halved (de Casteljau)."""
    nodes = list(contour.nodes)
    while len(nodes) < count:
        at = _longest(nodes, contour.closed)
        nodes = _halved(nodes, at)
    return contour.model_copy(update={"nodes": tuple(nodes)})


def _item(contours: Contours, index: int) -> Contour | None:
    return contours[index] if index < len(contours) else None


def _partners(a: Contour | None, b: Contour | None, share: float) -> tuple[Contour, Contour]:
    if a is None:
        assert b is not None
        return _point_of(b), b
    if b is None:
        return a, _point_of(a)
    count = max(len(a.nodes), len(b.nodes))
    return with_nodes(a, count), with_nodes(b, count)


def _point_of(contour: Contour) -> Contour:
    """The contour shrunk into its middle."""
    count = len(contour.nodes)
    x = sum(node.at[0] for node in contour.nodes) / count
    y = sum(node.at[1] for node in contour.nodes) / count
    return contour.model_copy(update={"nodes": (Node(at=(x, y)),) * count})


def _mixed(a: Contour, b: Contour, share: float) -> Contour:
    nodes = tuple(
        (m if share < 0.5 else n).model_copy(
            update={
                "at": _mix(m.at, n.at, share),
                "before": _mix(m.before, n.before, share),
                "after": _mix(m.after, n.after, share),
            }
        )
        for m, n in zip(a.nodes, b.nodes, strict=True)
    )
    return Contour(nodes=nodes, closed=a.closed if share < 0.5 else b.closed)


def _mix(a: Vector, b: Vector, share: float) -> Vector:
    return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share


def _longest(nodes: list[Node], closed: bool) -> int:
    """Index of the node after which the longest stretch begins, measured along its chord."""
    if len(nodes) < 2:
        return 0
    ends = [*nodes[1:], nodes[0]] if closed else nodes[1:]
    lengths = [
        (a.at[0] - b.at[0]) ** 2 + (a.at[1] - b.at[1]) ** 2
        for a, b in zip(nodes, ends, strict=False)
    ]
    return lengths.index(max(lengths))


def _halved(nodes: list[Node], index: int) -> list[Node]:
    a, b = nodes[index], nodes[(index + 1) % len(nodes)]
    if len(nodes) == 1:
        return [a, Node(at=a.at)]
    p0, p3 = a.at, b.at
    p1 = (p0[0] + a.after[0], p0[1] + a.after[1])
    p2 = (p3[0] + b.before[0], p3[1] + b.before[1])
    p01, p12, p23 = _mix(p0, p1, 0.5), _mix(p1, p2, 0.5), _mix(p2, p3, 0.5)
    p012, p123 = _mix(p01, p12, 0.5), _mix(p12, p23, 0.5)
    middle = _mix(p012, p123, 0.5)
    first = a.model_copy(update={"after": _from(p0, p01)})
    new = Node(at=middle, before=_from(middle, p012), after=_from(middle, p123), join="smooth")
    last = b.model_copy(update={"before": _from(p3, p23)})
    made = [*nodes]
    made[index] = first
    made[(index + 1) % len(nodes)] = last
    made.insert(index + 1, new)
    return made


def _from(origin: Vector, point: Vector) -> Vector:
    return point[0] - origin[0], point[1] - origin[1]
