"""Where there is something of a picture."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from kitecore.arrays import box_of
from kitecore.picture.extent import box_seen

SIDES = st.tuples(st.integers(1, 9), st.integers(1, 9))


class ExtentTest(TestCase):
    @given(arrays(np.uint8, SIDES, elements=st.sampled_from((0, 0, 0, 1, 255))))
    def test_it_is_the_box_of_alpha(self, alpha: np.ndarray) -> None:
        pixels = np.full((*alpha.shape, 4), 7, np.uint8)
        pixels[..., 3] = alpha
        found = box_of(alpha)
        self.assertEqual(found or (0, 0, 0, 0), box_seen(pixels))
        self.assertEqual(found, box_of(alpha > 0))
        rows, columns = np.flatnonzero(alpha.any(axis=1)), np.flatnonzero(alpha.any(axis=0))
        if not len(rows):
            self.assertIsNone(found)
            return
        self.assertEqual((columns[0], rows[0], columns[-1] + 1, rows[-1] + 1), found)
