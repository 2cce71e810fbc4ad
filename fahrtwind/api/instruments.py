"""What the instruments of the workshop said last."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.instruments.listener import Heard, Instruments

router = APIRouter(prefix="/api/instruments", tags=["instruments"], responses=ERROR_RESPONSES)


class HeardToday(BaseModel):
    """``port``: where instruments are listened to, None where they are not; ``refused``: why the last line
    that was no reading was none.
    """

    port: int | None
    readings: tuple[Heard, ...]
    refused: str


@router.get("/readings")
def read_readings(request: Request, after: Annotated[int, Query(ge=0)] = 0) -> HeardToday:
    """Readings with a number over ``after``, the oldest first."""
    found: Instruments = request.app.state.instruments
    return HeardToday(port=found.port, readings=found.after(after), refused=found.refused)
