from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.picture.block_means import block_means


class BlockMeansTest(TestCase):
    @given(st.integers(1, 16), st.integers(1, 60), st.integers(1, 60), st.integers(0, 99))
    def test_each_pixel_is_the_mean_of_its_block(
        self, side: int, height: int, width: int, seed: int
    ) -> None:
        pixels = np.random.default_rng(seed).integers(0, 256, (height, width, 4), np.uint8)
        down, across = -height % side, -width % side
        whole = np.pad(pixels, ((0, down), (0, across), (0, 0)), "edge").astype(float)
        rows, columns = (height + down) // side, (width + across) // side
        wanted = whole.reshape(rows, side, columns, side, 4).mean(axis=(1, 3))
        made = block_means(pixels, side)
        self.assertEqual((rows, columns, 4), made.shape)
        self.assertLessEqual(np.abs(made - wanted).max(), 0.501)

    def test_white_stays_white_and_other_kinds_stay_as_they_are(self) -> None:
        white = np.full((33, 50, 4), 255, np.uint8)
        for side in range(1, 17):
            self.assertEqual(255, block_means(white, side).min())
        deep = block_means(np.full((9, 9, 3), 40_000, np.uint16), 4)
        self.assertEqual(((3, 3, 3), np.uint16, 40_000), (deep.shape, deep.dtype, deep.min()))
        self.assertEqual((3, 3), block_means(np.zeros((9, 9), np.float32), 4).shape)
