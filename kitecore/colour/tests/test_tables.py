"""Tables and .cube files, against the chain itself, OpenColorIO and FFmpeg's lut3d and lut1d."""

import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
import PyOpenColorIO as OCIO  # noqa: N814
from av.filter import Graph
from hypothesis import given
from hypothesis import strategies as st

from kitecore.colour.chain import graded
from kitecore.colour.cube import Cube
from kitecore.colour.cubefile import BadCube, read_cube, write_cube
from kitecore.colour.lattice import lattice, sampled
from kitecore.colour.looks import SHIPPED, shipped
from kitecore.colour.planes import DRAFT_CHROMA, FINE_CHROMA, bake_planes, bake_rgba
from kitecore.colour.rgb import chroma, from_chroma
from kitecore.colour.table import DRAFT, FINE, Table, bake
from kitecore.document import Grade
from kitecore.media.pixels import rgba_of
from kitecore.media.planes import Halved

RNG = np.random.default_rng(11)
COLOURS = RNG.random((2000, 3)).astype(np.float32)
PIXELS = np.dstack([RNG.integers(0, 256, (60, 80, 3), np.uint8), np.full((60, 80), 255, np.uint8)])
GRADE = Grade.model_validate(
    {
        "light": {"exposure": 0.4},
        "balance": {"warmth": 25, "tint": -8},
        "wheels": {"lift": {"push": [0.2, 0.1]}, "gain": {"push": [-0.2, 0.1]}},
        "contrast": {"contrast": 20, "shadows": 15},
        "colour": {"saturation": 10, "vibrance": 15},
        "lut": {"look": "dusk-print", "mix": 60},
    }
)


def a_cube(size: int = 9) -> Cube:
    values = lattice(size) ** np.float32(0.8)
    values[:, 0] = values[:, 0] * 0.7 + values[:, 1] * 0.3
    return Cube(values.reshape(size, size, size, 3), title="A test")


def _one(curve: np.ndarray) -> Cube:
    """A table of one dimension, as large as what is read from files."""
    return Cube(np.repeat(curve[:, None], 3, axis=1).astype(np.float32), title="One")


class LatticeTest(TestCase):
    def test_it_is_what_opencolorio_interpolates(self) -> None:
        cube = a_cube()
        table = OCIO.Lut3DTransform(cube.size)
        table.setData(cube.values.reshape(-1))
        table.setInterpolation(OCIO.INTERP_TETRAHEDRAL)
        wanted = COLOURS.copy()
        OCIO.Config.CreateRaw().getProcessor(table).getDefaultCPUProcessor().applyRGB(wanted)
        np.testing.assert_allclose(sampled(cube.values, COLOURS), wanted, atol=1e-5)

    def test_its_own_colours_come_out_exactly(self) -> None:
        values = RNG.random((5, 5, 5, 3)).astype(np.float32)
        np.testing.assert_allclose(sampled(values, lattice(5)), values.reshape(-1, 3), atol=1e-6)


class TableTest(TestCase):
    def test_a_table_is_close_to_its_chain(self) -> None:
        truth = np.clip(graded(PIXELS[..., :3] / 255.0, GRADE, shipped), 0, 1) * 255
        for size, most in ((FINE, 1.5), (DRAFT, 2.5)):
            error = np.abs(bake(GRADE, shipped, size).over(PIXELS)[..., :3] - truth)
            self.assertLess(error.max(), most)
            # A quarter is what rounding to whole levels alone costs.
            self.assertLess(error.mean(), 0.3)

    def test_steep_curves_come_out_exactly(self) -> None:
        """Powers, and tables of one dimension that jump, on every level of 8 bits."""
        levels = np.arange(256, dtype=np.uint8)
        greys = np.dstack([levels, levels, levels, np.full(256, 255, np.uint8)])
        power, steps, many = (
            np.linspace(0, 1, 4096) ** (1 / 2.4),
            np.floor(np.linspace(0, 16.99, 1024)) / 16,
            np.floor(np.linspace(0, 48.99, 1024)) / 48,
        )
        for name, grade, find in (
            ("power", {"cdl": {"power": [1 / 2.4] * 3}}, shipped),
            ("root", {"cdl": {"power": [0.5, 0.6, 0.7]}}, shipped),
            ("slope", {"cdl": {"slope": [3, 1, 2], "offset": [-0.5, 0, -0.3]}}, shipped),
            ("a table of one dimension", {"lut": {"look": "x"}}, lambda _: _one(power)),
            ("posterising", {"lut": {"look": "x"}}, lambda _: _one(steps)),
            ("many steps", {"lut": {"look": "x"}}, lambda _: _one(many)),
        ):
            made = Grade.model_validate(grade)
            for size in (FINE, DRAFT):
                with self.subTest(name, size=size):
                    table = bake(made, find, size)
                    for pixels in (greys, PIXELS):
                        rgb = pixels[..., :3].reshape(-1, 3) / 255
                        wanted = np.clip(graded(rgb, made, find), 0, 1) * 255
                        got = table.over(pixels)[..., :3].reshape(-1, 3)
                        self.assertLess(np.abs(got - wanted).max(), 1.2 if size == FINE else 2)
                    deep = table.over_deep(
                        np.repeat(levels[None, :, None], 3, 2).astype(np.uint16) * 257
                    )
                    self.assertLessEqual(
                        np.abs(deep[0, :, :3].astype(int) - table.over(greys)[0, :, :3]).max(), 1
                    )

    def test_greys_stay_greys_where_places_are_uneven(self) -> None:
        table = bake(Grade.model_validate({"cdl": {"power": [0.4] * 3}}), shipped, DRAFT)
        greys = np.repeat(np.linspace(0, 1, 400, dtype=np.float32)[:, None], 3, axis=1)
        done = table.at(greys)
        self.assertLess(np.ptp(done, axis=1).max(), 1e-5)

    def test_a_grade_that_does_nothing_changes_no_pixel(self) -> None:
        for size in (FINE, DRAFT):
            np.testing.assert_array_equal(bake(Grade(), shipped, size).over(PIXELS), PIXELS)

    def test_a_gradient_of_10_bits_has_no_bands(self) -> None:
        ramp = np.repeat(np.linspace(0, 1, 1024)[:, None], 3, axis=1)
        steep = Grade.model_validate({"contrast": {"contrast": 100}, "colour": {"saturation": 100}})
        done = np.clip(bake(steep, shipped).at(ramp), 0, 1)[:, 1]
        truth = np.clip(graded(ramp, steep, shipped), 0, 1)[:, 1]
        self.assertLess(np.abs(done - truth).max(), 0.5 / 1023)
        # Between black and white every step goes up, and none by much more than the curve's slope.
        rising = np.diff(done[(truth > 0.001) & (truth < 0.999)])
        self.assertGreater(rising.min(), 0)
        self.assertLess(rising.max(), 2.05 / 1023)

    def test_what_lets_through_is_graded_by_its_own_colour(self) -> None:
        darker = bake(Grade.model_validate({"light": {"exposure": -1}}), shipped)
        half = np.array([[[100, 50, 25, 128], [0, 0, 0, 0]]], np.uint8)
        straight = np.array([[[199, 100, 50, 255]]], np.uint8)
        wanted = darker.over(straight)[0, 0, :3] * (128 / 255)
        done = darker.over(half)
        np.testing.assert_allclose(done[0, 0, :3], wanted, atol=1)
        self.assertEqual([128, 0], done[0, :, 3].tolist())

    def test_values_beyond_black_and_white_are_cut_off_after_the_table(self) -> None:
        values = np.linspace(-2, 3, 9**3 * 3).reshape(9, 9, 9, 3).astype(np.float32)
        done = Table(values).over(PIXELS)
        self.assertEqual({0, 255}, {int(done[..., :3].min()), int(done[..., :3].max())})


def coded_noise() -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Noise within what a screen can show, as a camera would write it."""
    small = np.clip(RNG.normal(128, 40, (40, 30, 3)), 8, 247).astype(np.uint8)
    large = small.repeat(2, axis=0).repeat(2, axis=1)
    frame = av.VideoFrame.from_ndarray(large, format="rgb24").reformat(
        format="yuv420p", dst_colorspace="ITU709", dst_color_range="MPEG"
    )
    array = frame.to_ndarray()
    return array[:80].copy(), array[80:100].reshape(40, 30), array[100:].reshape(40, 30)


class PlanesTest(TestCase):
    def test_planes_are_graded_as_the_chain_says(self) -> None:
        luma, cb, cr = coded_noise()
        out = tuple(np.zeros_like(plane) for plane in (luma, cb, cr))
        bake_planes(GRADE, shipped).over((luma, cb, cr), out, (60, 80))  # type: ignore[arg-type]
        full = (cb.repeat(2, 0).repeat(2, 1), cr.repeat(2, 0).repeat(2, 1))
        y, u, v = (
            (p.astype(float) - low) / span
            for p, low, span in zip((luma, *full), (16, 128, 128), (219, 224, 224), strict=True)
        )
        truth = chroma(np.clip(graded(from_chroma(y, u, v), GRADE, shipped), 0, 1))
        error = np.abs(out[0] - (truth[0] * 219 + 16))
        self.assertLess(error.mean(), 0.4)
        self.assertLess(error.max(), 3.5)
        for plane, wanted in zip(out[1:], truth[1:], strict=True):
            halves = (wanted * 224 + 128).reshape(40, 2, 30, 2).mean(axis=(1, 3))
            self.assertLess(np.abs(plane - halves).mean(), 0.6)

    def test_a_grade_that_does_nothing_leaves_planes_alone(self) -> None:
        planes = coded_noise()
        out = tuple(np.zeros_like(plane) for plane in planes)
        bake_planes(Grade(), shipped).over(planes, out, (60, 80))  # type: ignore[arg-type]
        self.assertLess(np.abs(out[0].astype(int) - planes[0]).mean(), 0.2)


class PlanesToRgbaTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.planes = coded_noise()

    def rgb(self) -> np.ndarray:
        luma, *small = self.planes
        whole = luma, *(plane.repeat(2, 0).repeat(2, 1) for plane in small)
        y, u, v = (
            (plane.astype(float) - low) / span
            for plane, low, span in zip(whole, (16, 128, 128), (219, 224, 224), strict=True)
        )
        return from_chroma(y, u, v)

    def test_planes_become_the_colours_that_the_chain_says(self) -> None:
        truth = np.clip(graded(self.rgb(), GRADE, shipped), 0, 1) * 255
        done = bake_rgba(GRADE, shipped).over(self.planes, (60, 80))
        error = np.abs(done[..., :3] - truth)
        self.assertLess(error.mean(), 0.4)
        self.assertLess(error.max(), 4)
        self.assertEqual({255}, set(done[..., 3].flat))

    def test_a_grade_that_does_nothing_is_the_plain_way(self) -> None:
        plain = rgba_of(Halved(self.planes, (60, 80)))
        for size in (FINE_CHROMA, DRAFT_CHROMA):
            done = bake_rgba(Grade(), shipped, size).over(self.planes, (60, 80))
            self.assertLessEqual(np.abs(done.astype(int) - plain).max(), 1)

    def test_greys_stay_greys(self) -> None:
        luma = np.arange(256, dtype=np.uint8).reshape(16, 16)
        grey = np.full((8, 8), 128, np.uint8)
        steep = Grade.model_validate({"contrast": {"contrast": 100}, "colour": {"saturation": 100}})
        done = bake_rgba(steep, shipped).over((luma, grey, grey), (16, 16))
        self.assertLessEqual(np.ptp(done[..., :3].astype(int), axis=2).max(), 1)

    def test_sides_may_be_odd(self) -> None:
        table = bake_rgba(GRADE, shipped)
        whole = table.over(self.planes, (60, 80))
        luma, cb, cr = self.planes
        part = luma[:79, :59].copy(), cb, cr
        np.testing.assert_array_equal(table.over(part, (59, 79)), whole[:79, :59])


class CubeFileTest(TestCase):
    def test_there_and_back(self) -> None:
        for cube in (a_cube(7), Cube(np.sqrt(np.linspace(0, 1, 33))[:, None].repeat(3, axis=1))):
            again = read_cube(write_cube(cube).encode())
            np.testing.assert_allclose(again.values, cube.values, atol=1e-6)
            self.assertEqual(cube.title, again.title)

    def test_ffmpeg_and_opencolorio_read_what_we_write(self) -> None:
        """And draw the same with it as we do."""
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "look.cube"
            path.write_text(write_cube(a_cube(17)))
            ours = a_cube(17).apply(PIXELS[..., :3] / 255.0)
            ffmpeg = filtered(PIXELS[..., :3], "lut3d", f"file={path}:interp=tetrahedral")
            self.assertLess(np.abs(ffmpeg - ours * 255).max(), 1.01)
            look = OCIO.FileTransform(str(path), interpolation=OCIO.INTERP_TETRAHEDRAL)
            theirs = np.ascontiguousarray(PIXELS[..., :3].reshape(-1, 3) / np.float32(255))
            config = OCIO.Config.CreateRaw()
            config.getProcessor(look).getDefaultCPUProcessor().applyRGB(theirs)
            np.testing.assert_allclose(theirs, ours.reshape(-1, 3), atol=1e-4)

    def test_curves_with_a_domain_are_what_ffmpeg_makes_of_them(self) -> None:
        text = (
            '# made by hand\nTITLE "bent"\nLUT_1D_SIZE 5\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n\n'
            "0 0 0\n0.1 0.2 0.25\n0.3 0.5 0.5\n0.6 0.8 0.7 \n# in between\n1 1 0.9\n"
        )
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "curve.cube"
            path.write_text(text)
            ffmpeg = filtered(PIXELS[..., :3], "lut1d", f"file={path}:interp=linear")
        ours = read_cube(text.encode()).apply(PIXELS[..., :3] / 255.0) * 255
        self.assertLess(np.abs(ffmpeg - ours).max(), 1.01)

    def test_a_domain_moves_the_table(self) -> None:
        text = "LUT_1D_SIZE 2\nDOMAIN_MIN -1 0 0\nDOMAIN_MAX 1 2 4\n0 0 0\n1 1 1\n"
        done = read_cube(text.encode()).apply(np.array([[0.0, 1.0, 1.0]]))
        np.testing.assert_allclose(done, [[0.5, 0.5, 0.25]])
        ranged = read_cube(b"LUT_3D_SIZE 2\nLUT_3D_INPUT_RANGE 0 2\n" + b"0 0 0\n" * 7 + b"1 1 1\n")
        np.testing.assert_allclose(ranged.apply(np.array([[1.0, 1.0, 1.0]])), 0.5)

    def test_red_runs_fastest(self) -> None:
        rows = [f"{n % 2} {n // 2 % 2} {n // 4}" for n in range(8)]
        same = read_cube(("LUT_3D_SIZE 2\n" + "\n".join(rows)).encode())
        np.testing.assert_allclose(same.apply(COLOURS), COLOURS, atol=1e-6)

    def test_wrong_files_are_refused_with_line_and_reason(self) -> None:
        good = "LUT_3D_SIZE 2\n" + "0 0 0\n" * 8
        for text, line, reason in (
            ("", 1, "missing"),
            ("LUT_3D_SIZE two\n", 1, "a number"),
            ("LUT_3D_SIZE 500\n", 1, "from 2 to 129"),
            ('TITLE "x"\nGAMMA 2.2\n', 2, "no word"),
            (good.replace("SIZE 2", "SIZE 3"), 9, "after 8 of 27"),
            (good + "0 0 0\n", 10, "more than the 8"),
            (good.replace("0 0 0\n", "0 0\n", 1), 2, "three numbers"),
            (good.replace("0 0 0\n", "0 zero 0\n", 1), 2, "0 zero 0"),
            (good.replace("0 0 0\n", "0 nan 0\n", 1), 2, "three numbers"),
            ("LUT_3D_SIZE 2\nLUT_1D_SIZE 2\n0 0 0\n", 2, "either 1D or 3D"),
            ("DOMAIN_MIN 1 0 0\n" + good, 1, "ends before"),
            ("DOMAIN_MIN 1 0\n" + good, 1, "3 numbers"),
        ):
            with self.assertRaises(BadCube, msg=text) as caught:
                read_cube(text.encode())
            self.assertEqual(line, caught.exception.line, text)
            self.assertIn(reason, caught.exception.message)

    @given(st.binary(max_size=200))
    def test_no_bytes_make_it_fail_otherwise(self, data: bytes) -> None:
        try:
            read_cube(data)
        except BadCube:
            return

    def test_our_looks_are_made_by_their_program(self) -> None:
        from tools.make_looks import LOOKS, look_of

        self.assertEqual(set(SHIPPED), set(LOOKS))
        title, recipe = LOOKS["two-papers"]
        np.testing.assert_allclose(
            shipped("two-papers").values, look_of(title, recipe).values, atol=1e-4
        )


def filtered(rgb: np.ndarray, name: str, arguments: str) -> np.ndarray:
    """RGB pixels after one of FFmpeg's filters."""
    graph = Graph()
    height, width = rgb.shape[:2]
    source = graph.add_buffer(width=width, height=height, format="rgb24", time_base="1/30")
    wanted = graph.add("format", "rgb24")
    middle = graph.add(name, arguments)
    sink = graph.add("buffersink")
    source.link_to(middle)
    middle.link_to(wanted)
    wanted.link_to(sink)
    graph.configure()
    graph.push(av.VideoFrame.from_ndarray(np.ascontiguousarray(rgb), format="rgb24"))
    return graph.pull().to_ndarray().astype(float)
