"""Colours and sizes of decoded frames, against the formulas of their standards."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase
from unittest.mock import patch

import av
import colour
import numpy as np
from av.video.reformatter import VideoReformatter

from kitecore.media.hdr import shown_in_sdr
from kitecore.media.info import Colours, PictureInfo
from kitecore.media.pixels import to_rgba

ROUNDING = 1
"""Levels of 255 by which the conversion may differ from the exact formula."""


class ColourTest(TestCase):
    """Matrix and range as tagged, held against the formulas of BT.601 and BT.709."""

    def test_colours_follow_matrix_and_range(self) -> None:
        for matrix, kr, kb in ((1, 0.2126, 0.0722), (6, 0.299, 0.114)):
            for full in (False, True):
                for ycbcr in ((120, 90, 170), (200, 128, 128), (80, 180, 100)):
                    with self.subTest(f"{matrix} {full} {ycbcr}"):
                        wanted = _to_rgb(ycbcr, kr, kb, full)
                        self.assertLessEqual(
                            np.abs(wanted - _decoded(ycbcr, matrix, full)).max(), ROUNDING
                        )

    def test_untagged_hd_is_bt709_and_small_bt601(self) -> None:
        hd, sd = (0.2126, 0.0722), (0.299, 0.114)
        for size, (kr, kb) in (
            ((1280, 720), hd),
            ((1280, 544), hd),
            ((544, 1280), hd),
            ((960, 720), hd),
            ((640, 480), sd),
            ((1024, 576), sd),
        ):
            with self.subTest(size=size):
                wanted = _to_rgb((120, 90, 170), kr, kb, False)
                got = _decoded((120, 90, 170), 2, False, size)
                self.assertLessEqual(np.abs(wanted - got).max(), ROUNDING)

    def test_hdr_is_bent_to_white_and_not_cut_off(self) -> None:
        """Greys as shares of the signal, against the light that BT.2408 gives for them."""
        # 26 cd/m² is mid grey: below the knee it is shown as it is, by a display of 203 and 2.4.
        middle = 255 * (26 / 203) ** (1 / 2.4)
        for transfer, shares in (
            (16, {"grey": 0.38, "white": 0.58, "half": 0.62, "bright": 0.66, "peak": 0.7518}),
            (18, {"grey": 0.38, "white": 0.75, "half": 0.8, "bright": 0.86, "peak": 1.0}),
        ):
            with self.subTest(transfer):
                self.assertTrue(all(channel <= 2 for channel in _hdr_grey(transfer, 0.0)))
                seen = {name: _hdr_grey(transfer, share) for name, share in shares.items()}
                self.assertTrue(all(max(grey) - min(grey) <= 1 for grey in seen.values()))
                levels = [grey[0] for grey in seen.values()]
                self.assertLessEqual(abs(levels[0] - middle), 4)
                self.assertTrue(225 <= seen["white"][0] <= 235)
                self.assertTrue(all(b - a >= 2 for a, b in pairwise(levels)), levels)
                self.assertGreaterEqual(levels[-1], 254)

    def test_wide_primaries_are_brought_to_ours(self) -> None:
        """A colour of BT.709 coded in PQ with the primaries of BT.2020, by another library."""
        wanted = np.array([0.5, 0.3, 0.12])
        shown = colour.RGB_to_RGB(
            wanted * 100, "ITU-R BT.709", "ITU-R BT.2020", chromatic_adaptation_transform=None
        )
        signal = colour.models.eotf_inverse_ST2084(shown)
        levels = np.tile(np.rint(signal * 65535).astype(np.uint16), (2, 2, 1))
        got = shown_in_sdr(levels, Colours(matrix=9, primaries=9, transfer=16))[0, 0] / 65535
        np.testing.assert_allclose((wanted * 100 / 203) ** (1 / 2.4), got, atol=0.004)

    def test_a_brighter_peak_leaves_room_for_it(self) -> None:
        levels = np.full((2, 2, 3), round(0.8 * 65535), np.uint16)
        plain = Colours(matrix=9, primaries=9, transfer=16)
        told = plain.model_copy(update={"peak": 4000.0})
        self.assertEqual(65535, shown_in_sdr(levels, plain)[0, 0, 0])
        self.assertTrue(60_000 < shown_in_sdr(levels, told)[0, 0, 0] < 65_500)

    def test_what_converts_hdr_is_built_once_for_all_frames(self) -> None:
        colours = Colours(matrix=9, primaries=9, transfer=16)
        picture = PictureInfo(width=70, height=50, depth=10, colours=colours)
        with patch("kitecore.media.pixels.VideoReformatter", wraps=VideoReformatter) as made:
            seen = [
                to_rgba(_hdr_frame(16, share, (70, 50)), picture, (70, 50)) for share in (0.2, 0.5)
            ]
        self.assertEqual(1, made.call_count)
        self.assertLess(seen[0].mean(), seen[1].mean() - 20)


def _to_rgb(ycbcr: tuple[int, int, int], kr: float, kb: float, full: bool) -> np.ndarray:
    y, cb, cr = ycbcr
    luma = y / 255 if full else (y - 16) / 219
    blue, red = ((c - 128) / (255 if full else 224) for c in (cb, cr))
    r, b = luma + 2 * (1 - kr) * red, luma + 2 * (1 - kb) * blue
    g = (luma - kr * r - kb * b) / (1 - kr - kb)
    return np.clip(np.array([r, g, b]) * 255, 0, 255)


def _decoded(
    ycbcr: tuple[int, int, int], matrix: int, full: bool, size: tuple[int, int] = (64, 64)
) -> np.ndarray:
    frame = av.VideoFrame(*size, "yuv420p")
    for plane, value in zip(frame.planes, ycbcr, strict=True):
        plane.update(bytes([value]) * plane.buffer_size)
    colours = Colours(matrix=matrix, full_range=full)
    picture = PictureInfo(width=size[0], height=size[1], colours=colours)
    return to_rgba(frame, picture, size)[30, 30, :3].astype(int)


def _hdr_frame(transfer: int, share: float, size: tuple[int, int] = (64, 64)) -> av.VideoFrame:
    frame = av.VideoFrame(*size, "yuv420p10le")
    for plane, value in zip(frame.planes, (64 + round(share * 876), 512, 512), strict=True):
        plane.update(np.full(plane.buffer_size // 2, value, np.uint16).tobytes())
    frame.color_trc, frame.color_primaries, frame.colorspace = transfer, 9, 9
    return frame


def _hdr_grey(transfer: int, share: float) -> list[int]:
    frame = _hdr_frame(transfer, share)
    colours = Colours(matrix=9, primaries=9, transfer=transfer)
    picture = PictureInfo(width=64, height=64, depth=10, colours=colours)
    return to_rgba(frame, picture, (64, 64))[30, 30, :3].tolist()


class WidthTest(TestCase):
    def test_every_width_is_filled_to_its_last_column(self) -> None:
        for width in range(16, 200, 2):
            planes = np.full((96, width), 128, np.uint8)
            frame = av.VideoFrame.from_ndarray(planes, format="yuv420p")
            pixels = to_rgba(frame, PictureInfo(width=width, height=64), (width, 64))
            self.assertTrue((np.abs(pixels[..., :3].astype(int) - 130) <= 1).all(), width)
            self.assertTrue((pixels[..., 3] == 255).all(), width)
