"""Films: pictures encoded in pieces that are copied behind each other, and sound."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass, field
from fractions import Fraction
from pathlib import Path

import av
from av.container import OutputContainer
from av.video.stream import VideoStream

from kitecore.media.whole import whole_file
from kitecore.render.making.atoms import write_atoms
from kitecore.render.making.captiontrack import CaptionTrack
from kitecore.render.making.cover import Cover, CoverIn, atoms_of
from kitecore.render.making.format import Joining, Pieced
from kitecore.render.making.gain import Gain, GainIn, replay_gain
from kitecore.render.making.joinable import joinable
from kitecore.render.making.pictures import PictureCoding, encode_pictures
from kitecore.render.making.sounds import Sound
from kitecore.render.making.soundtrack import SoundCoding, Soundtrack
from kitecore.render.making.tags import write_tags
from kitecore.render.making.work import Progress, Quality, Work, unheard
from kitecore.render.sources import Sources


@dataclass(frozen=True, kw_only=True)
class Film(Pieced):
    """How picture and sound are encoded and in what they are wrapped.

    Attributes
    ----------
    container, container_options
        FFmpeg's name of the wrapping, and its options.
    codec, options
        FFmpeg's name of the picture's encoder, and its options.
    crf
        How coarse it may be at each quality.
    pixels, clear_pixels
        FFmpeg's names of the pixel formats; the second for what is see-through, if it can be.
    tag
        Of the codec in the container, if players want a certain one.
    captions
        FFmpeg's name of what captions are coded as in the container.
    cover_in
        Where the container has a place for a cover: a stream of its own, or its atoms.
    gain
        Where it tells how loud it is.
    """

    kind = "film"
    container: str
    codec: str
    sound: SoundCoding
    options: dict[str, str]
    crf: dict[Quality, int] = field(default_factory=dict)
    coarsest: int = 0
    pixels: str = "yuv420p"
    clear_pixels: str = ""
    tag: str = ""
    captions: str = ""
    cover_in: CoverIn = ""
    gain: GainIn = ""
    container_options: dict[str, str] = field(default_factory=dict)
    piece_container: str = "mp4"

    @property
    def can_clear(self) -> bool:
        return bool(self.clear_pixels)

    @property
    def can_caption(self) -> bool:
        return bool(self.captions)

    @property
    def can_cover(self) -> bool:
        return bool(self.cover_in)

    @property
    def coarseness(self) -> range | None:
        return range(self.crf["best"], self.coarsest + 1) if self.crf else None

    def encoder(self, work: Work) -> dict[str, str]:
        """Options of the encoder for a work."""
        if not self.crf:
            return self.options
        crf = self.crf[work.quality] if work.crf is None else work.crf
        return {**self.options, "crf": str(crf)}

    def facts(self, work: Work) -> Hashable:
        return (super().facts(work), self.codec, tuple(sorted(self.encoder(work).items())))

    def encode_piece(
        self, work: Work, piece: range, path: Path, sources: Sources, progress: Progress = unheard
    ) -> None:
        pixels = self.clear_pixels if work.clear else self.pixels
        coding = PictureCoding(self.piece_container, self.codec, pixels, self.encoder(work))
        encode_pictures(work, piece, coding, path, sources, progress)

    def join(self, work: Work, to: Joining) -> None:
        options, gain = self.container_options, Gain()
        with (
            joinable(),
            whole_file(to.path) as path,
            av.open(str(path), "w", format=self.container, options=options) as out,
        ):
            write_tags(out, to.tags, len(work.numbers) / work.rate.fraction)
            if self.gain == "tags":
                out.metadata.update(replay_gain(work, to.sources))
            self._copy(out, work, to, gain)
            out.close()
            write_atoms(path, gain.tags, atoms_of(self.cover_in, work, to.sources))

    def _copy(self, out: OutputContainer, work: Work, to: Joining, gain: Gain) -> None:
        rate, done = work.rate.fraction, 0
        picture = self._copied_picture(out, to.pieces[0])
        hear = gain.hear if self.gain == "atoms" else None
        sound = Soundtrack(out, self.sound, work, to.sources, hear)
        captions = CaptionTrack(out, self.captions, to.tags.said) if to.tags.said else None
        if work.cover is not None and self.cover_in == "stream":
            Cover(out, work, work.cover, to.sources).write()
        for piece in to.pieces:
            done += _copy_piece(out, picture, piece, done, 1 / rate)
            to.progress(done / len(work.numbers))
            sound.encode(until=done / rate)
            if captions is not None:
                captions.encode(until=done / rate)
        sound.finish()

    def _copied_picture(self, out: OutputContainer, piece: Path) -> VideoStream:
        with av.open(str(piece)) as first:
            # Only copied: an encoder of its name (AV1 has none) is not needed.
            picture = out.add_stream_from_template(first.streams.video[0], opaque=True)
        if self.tag:
            picture.codec_context.codec_tag = self.tag
        return picture


def sound_of(film: Film) -> Sound:
    """The sound of a kind of film, alone."""
    return Sound(
        label=film.label,
        help=film.help,
        suffix="mka",
        mime="audio/x-matroska",
        container="matroska",
        coding=film.sound,
    )


def _copy_piece(
    out: OutputContainer, stream: VideoStream, piece: Path, before: int, frame: Fraction
) -> int:
    """Copy the packets of a piece, shifted by the ``before`` frames that are done; their number."""
    count = 0
    with av.open(str(piece)) as source:
        for packet in source.demux(source.streams.video[0]):
            if not packet.size:
                continue
            packet.pts = before + _in_frames(packet.pts, packet.time_base, frame)
            packet.dts = before + _in_frames(packet.dts, packet.time_base, frame)
            packet.time_base, packet.duration = frame, 1
            packet.stream = stream
            out.mux(packet)
            count += 1
    return count


def _in_frames(time: int | None, unit: Fraction, frame: Fraction) -> int:
    return round((time or 0) * unit / frame)
