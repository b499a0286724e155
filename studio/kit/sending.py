"""What Send needs to know: formats, destinations, frame rates."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.render.destinations import DESTINATIONS, Destination
from kitecore.render.export import FILE_RATES, FileRate
from kitecore.render.formats import formats

router = Router()


class FormatOut(Schema):
    """A format; ``can_fit`` says whether it can be made to weigh so much at the most."""

    id: str
    label: str
    help: str
    kind: str
    can_clear: bool
    can_caption: bool
    can_cover: bool
    can_fit: bool


class SendControls(Schema):
    formats: list[FormatOut]
    destinations: list[Destination]
    rates: list[FileRate]


@router.get("/kit/send", response=SendControls)
def send_controls(request: HttpRequest) -> SendControls:
    return SendControls(
        formats=[
            FormatOut(
                id=id,
                label=one.label,
                help=one.help,
                kind=one.kind,
                can_clear=one.can_clear,
                can_caption=one.can_caption,
                can_cover=one.can_cover,
                can_fit=one.coarseness is not None,
            )
            for id, one in formats.items()
        ],
        destinations=list(DESTINATIONS),
        rates=[FileRate(num=rate.num, den=rate.den) for rate in FILE_RATES],
    )
