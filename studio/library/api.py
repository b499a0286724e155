"""The library: takes, what is known of them, and the small pictures and waveforms they have."""

from __future__ import annotations

from uuid import UUID

from django.http import FileResponse, HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from kitecore.analysis import result_of
from kitecore.analysis.peaks import MOST_STRETCHES, PEAK_SAMPLES, PEAKS, fine_peaks
from kitecore.analysis.strip import POSTER, STRIP
from kitecore.document import Tag
from kitecore.errors import BadInput, NotThere
from kitecore.media.wishes import Wishes, keep_wishes
from studio.files import download, kept_answer, shown_file
from studio.library import samples
from studio.library.arrival import bring_in
from studio.library.models import Shelf, Take
from studio.library.shown import Part, TakeOut, take_out
from studio.library.work import take_in
from studio.owned import owned
from studio.problems import Problem
from studio.projects import history
from studio.projects.models import Project

router = Router()


class TakeChange(Schema):
    """What is given changes; marks are ticks, or null for none."""

    name: str | None = Field(default=None, min_length=1, max_length=200)
    mark_in: int | None = Field(default=None, ge=0)
    mark_out: int | None = Field(default=None, ge=0)
    ranges: list[Part] | None = Field(default=None, max_length=200)
    shelf: int | None = None
    stars: int | None = Field(default=None, ge=0, le=5)
    tag: Tag | None = None


def own(request: HttpRequest, id: UUID) -> Take:
    take = owned(Take, request.user, "take", id)
    if take.removed:
        raise NotThere("That take was removed.")
    return take


@router.get("/projects/{uuid:id}/takes", response={200: list[TakeOut], 404: Problem})
def list_takes(request: HttpRequest, id: UUID) -> list[TakeOut]:
    """Takes brought into a project, in their order, and any others that its clips use."""
    project = owned(Project, request.user, "project", id)
    used = history.facts_at(history.head_of(project)).uses
    mine = Take.objects.filter(owner=request.user).select_related("job")
    shown = mine.filter(project=project, removed=False) | mine.filter(pk__in=used)
    return [take_out(take) for take in shown.distinct()]


@router.patch("/takes/{uuid:id}", response={200: TakeOut, 404: Problem, 422: Problem})
def change_take(request: HttpRequest, id: UUID, given: TakeChange) -> TakeOut:
    take = own(request, id)
    changes = given.model_dump(exclude_unset=True)
    for name in ("name", "ranges", "stars", "tag"):
        if changes.get(name) is None:
            changes.pop(name, None)
    if "shelf" in changes:
        changes["shelf"] = _shelf(take, changes["shelf"])
    for name, value in changes.items():
        setattr(take, name, value)
    if take.mark_in is not None and take.mark_out is not None and take.mark_in >= take.mark_out:
        raise BadInput("The in point lies after the out point.")
    if any(part["mark_in"] >= part["mark_out"] for part in take.ranges):
        raise BadInput("A part of the take would end before it begins.")
    take.save(update_fields=list(changes))
    return take_out(take)


def _shelf(take: Take, id: int | None) -> Shelf | None:
    if id is None or take.project is None:
        return None
    found = take.project.shelves.filter(pk=id).first()
    if found is None:
        raise NotThere("That shelf is not there any more.")
    return found


class ShelfIn(Schema):
    name: str = Field(min_length=1, max_length=80)


class ShelfOut(Schema):
    id: int
    name: str


@router.get("/projects/{uuid:id}/shelves", response={200: list[ShelfOut], 404: Problem})
def list_shelves(request: HttpRequest, id: UUID) -> list[Shelf]:
    return list(owned(Project, request.user, "project", id).shelves.all())


@router.post("/projects/{uuid:id}/shelves", response={201: ShelfOut, 404: Problem, 422: Problem})
def make_shelf(request: HttpRequest, id: UUID, given: ShelfIn) -> tuple[int, Shelf]:
    project = owned(Project, request.user, "project", id)
    if project.shelves.filter(name=given.name.strip()).exists():
        raise BadInput(f"There is a shelf “{given.name.strip()}” already.")
    return 201, project.shelves.create(name=given.name.strip() or "Shelf")


@router.delete("/projects/{uuid:id}/shelves/{int:shelf}", response={204: None, 404: Problem})
def remove_shelf(request: HttpRequest, id: UUID, shelf: int) -> tuple[int, None]:
    """The shelf goes, its takes stay."""
    owned(Project, request.user, "project", id).shelves.filter(pk=shelf).delete()
    return 204, None


class Use(Schema):
    """Where a take is used: the clips of a project, by name and start on its timeline."""

    project: UUID
    name: str
    clips: int


@router.get("/takes/{uuid:id}/uses", response={200: list[Use], 404: Problem})
def list_uses(request: HttpRequest, id: UUID) -> list[Use]:
    """The person's projects in which a take is used, as they are now."""
    take = own(request, id)
    found = []
    for project in Project.objects.filter(owner=request.user).select_related("head"):
        clips = history.facts_at(history.head_of(project)).uses.get(take.id.hex, 0)
        if clips:
            found.append(Use(project=project.id, name=project.name, clips=clips))
    return found


@router.delete("/takes/{uuid:id}", response={204: None, 404: Problem, 422: Problem})
def remove_take(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Take it out of the library; refused while a project uses it."""
    take = own(request, id)
    for project in Project.objects.filter(owner=request.user).select_related("head"):
        if take.id.hex in history.facts_at(history.head_of(project)).uses:
            raise BadInput(
                f"“{take.name}” is used in “{project.name}”.", todo="Delete its clips there first."
            )
    take.removed = True
    take.save(update_fields=["removed"])
    return 204, None


@router.post("/takes/{uuid:id}/again", response={200: TakeOut, 404: Problem, 422: Problem})
def try_again(request: HttpRequest, id: UUID) -> TakeOut:
    """Look at a refused file once more."""
    take = own(request, id)
    if take.state != Take.State.REFUSED or not take.folder.original.exists():
        raise BadInput("There is no file left to try again.", todo="Bring the file in again.")
    take_in(take)
    return take_out(take)


class FieldsIn(Schema):
    """``two_fields``: whether each frame of a video is two fields; null leaves it to the file."""

    two_fields: bool | None


@router.put("/takes/{uuid:id}/fields", response={200: TakeOut, 404: Problem, 422: Problem})
def set_fields(request: HttpRequest, id: UUID, given: FieldsIn) -> TakeOut:
    """Say how a video was taken, where its file does not; it is taken in anew, its marks stay."""
    take = own(request, id)
    facts = take.facts
    if take.state != Take.State.READY or facts is None or facts["kind"] != "video":
        raise BadInput("Only a video that is ready has fields.")
    if not take.folder.original.exists():
        raise BadInput("The file of this take is missing.", todo="Find the file first.")
    keep_wishes(take.folder, Wishes(two_fields=given.two_fields))
    take.folder.proxy.unlink(missing_ok=True)
    take_in(take)
    return take_out(take)


_FILES = {
    STRIP: ("strip", "image/jpeg"),
    POSTER: ("strip", "image/jpeg"),
    PEAKS: ("peaks", "application/octet-stream"),
}
"""Of which analysis a file is, and of what type."""


@router.get("/takes/{uuid:id}/files/{str:name}", response={200: None, 404: Problem})
def take_file(request: HttpRequest, id: UUID, name: str) -> HttpResponse:
    """``poster.jpg``, ``strip.jpg``, or ``waveform.i8``: lowest and highest sample of each 10 ms."""
    take = owned(Take, request.user, "take", id)
    analysis, kind = _FILES.get(name, ("", ""))
    made = result_of(take.folder, analysis) if analysis else None
    if made is None:
        raise NotThere("That is not made yet.")
    return shown_file(made / name, kind)


class Stretches(Schema):
    """So many stretches of so many samples each, from one on; at 48 kHz."""

    first: int = Field(ge=0, le=2**40)
    count: int = Field(ge=1, le=MOST_STRETCHES)
    each: int = Field(ge=1, le=PEAK_SAMPLES)


@router.get("/takes/{uuid:id}/waveform", response={200: None, 404: Problem})
def take_waveform(request: HttpRequest, id: UUID, wanted: Query[Stretches]) -> HttpResponse:
    """int16 of each stretch: left lowest and highest, right lowest and highest."""
    take = owned(Take, request.user, "take", id)
    if result_of(take.folder, "peaks") is None or not take.folder.sound.exists():
        raise NotThere("That is not made yet.")
    found = fine_peaks(take.folder, wanted.first, wanted.count, wanted.each)
    return kept_answer(found.astype("<i2").tobytes(), "application/octet-stream")


@router.get("/takes/{uuid:id}/original", response={200: None, 404: Problem})
def take_original(request: HttpRequest, id: UUID) -> FileResponse:
    """The file as it was brought in."""
    take = owned(Take, request.user, "take", id)
    if not take.folder.original.exists():
        raise NotThere("The file of this take is not there.")
    return download(request, take.folder.original, take.name)


class Sample(Schema):
    """A file on the sample shelf."""

    name: str
    kind: str
    bytes: int


class SamplesIn(Schema):
    names: list[str] = Field(min_length=1, max_length=200)


@router.get("/samples", response=list[Sample])
def list_samples(request: HttpRequest) -> list[Sample]:
    """What the stand-in for a device's gallery holds."""
    return [
        Sample(name=path.name, kind=samples.kind_of(path), bytes=path.stat().st_size)
        for path in samples.files()
    ]


@router.get("/samples/{str:name}/picture", response={200: None, 404: Problem})
def sample_picture(request: HttpRequest, name: str) -> HttpResponse:
    return shown_file(samples.picture_of(name), "image/jpeg")


@router.get("/samples/{str:name}/sound", response={200: None, 404: Problem})
def sample_sound(request: HttpRequest, name: str) -> HttpResponse:
    """The file itself, to be listened to before it is brought in."""
    path = samples.path_of(name)
    if samples.kind_of(path) != "sound":
        raise NotThere("That sample is no sound.")
    return shown_file(path, samples.SOUND_TYPES[path.suffix])


@router.post("/projects/{uuid:id}/samples", response={201: list[TakeOut], 404: Problem})
def bring_in_samples(request: HttpRequest, id: UUID, given: SamplesIn) -> tuple[int, list[TakeOut]]:
    """Bring files of the sample shelf into a project, in the order given."""
    project = owned(Project, request.user, "project", id)
    paths = [samples.path_of(name) for name in given.names]
    order = Take.objects.filter(project=project).count()
    takes = [bring_in(project, path.name, path, order + i) for i, path in enumerate(paths)]
    return 201, [take_out(take) for take in takes]
