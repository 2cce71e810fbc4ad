"""Routes of the desk for the phones of the crew: open the door, see who is in, send one away."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

import segno
from fastapi import APIRouter, Depends, Request, Response
from pydantic import BaseModel, Field

from fahrtwind.api.admission import PAIR
from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.phone_door import PhoneDoor
from fahrtwind.api.schemas import Request as Strict
from fahrtwind.store.phones import Phones

router = APIRouter(prefix="/api/jobs/{job_id}/phones", tags=["phones"], responses=ERROR_RESPONSES)


def door_of(request: Request) -> PhoneDoor:
    door: PhoneDoor = request.app.state.phone_door
    return door


def phones_of(request: Request) -> Phones:
    phones: Phones = request.app.state.phones
    return phones


TheDoor = Annotated[PhoneDoor, Depends(door_of)]
ThePhones = Annotated[Phones, Depends(phones_of)]


class OpenDoor(Strict):
    """``host``: this machine's address in the network of the phones; blank: it is found out."""

    host: Annotated[str, Field(pattern=r"^[0-9a-fA-F.:]{2,45}$")] | None = None


class PairedPhone(BaseModel):
    id: str
    name: str
    paired_at: datetime


class PhonesToday(BaseModel):
    """``address``: where phones find this machine, None while the door is shut; ``code``: None where it was
    used, is over or void; ``good_for_s``: how long it still is; ``qr``: address and code as an SVG image.
    """

    address: str | None
    code: str | None
    good_for_s: float
    qr: str | None
    phones: tuple[PairedPhone, ...]


@router.get("")
def read_phones(job_id: str, door: TheDoor, phones: ThePhones) -> PhonesToday:
    inside = tuple(PairedPhone(id=p.id, name=p.name, paired_at=p.paired_at) for p in phones.of(job_id))
    if not door.is_open(job_id):
        return PhonesToday(address=None, code=None, good_for_s=0, qr=None, phones=inside)
    code = door.code(job_id)
    if code is None:
        return PhonesToday(address=door.address, code=None, good_for_s=0, qr=None, phones=inside)
    picture = segno.make(f"{door.address}{PAIR}?code={code[0]}", error="m", micro=False)
    qr = picture.svg_data_uri(scale=4, border=3, light="#ffffff")
    return PhonesToday(address=door.address, code=code[0], good_for_s=round(code[1]), qr=qr, phones=inside)


@router.post("/door", status_code=201)
def open_door(
    request: Request, job_id: str, given: OpenDoor, door: TheDoor, phones: ThePhones
) -> PhonesToday:
    """Listen for phones on the local network, and make a new code for this job."""
    request.app.state.store.revision(job_id)
    door.open(job_id, request.app, given.host)
    return read_phones(job_id, door, phones)


@router.delete("/door", status_code=204, response_class=Response)
def close_door(job_id: str, door: TheDoor) -> Response:
    door.close(job_id)
    return Response(status_code=204)


@router.delete("/{phone_id}", status_code=204, response_class=Response)
def send_away(job_id: str, phone_id: str, phones: ThePhones) -> Response:
    phones.send_away(job_id, phone_id)
    return Response(status_code=204)
