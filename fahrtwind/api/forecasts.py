"""Forecasts for a job, fetched from the weather office this server was told of."""

from __future__ import annotations

import urllib.error
import urllib.parse
import urllib.request
from typing import Annotated

from fastapi import APIRouter, Depends, Request

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.core.errors import InputError, OfficeSilent
from fahrtwind.core.evaluate import visit
from fahrtwind.files.forecast_files import MOST_BYTES, ReadForecast, read_forecast

WITHIN_S = 8.0
router = APIRouter(prefix="/api/jobs/{job_id}/forecast", tags=["forecast"], responses=ERROR_RESPONSES)


def office_of(request: Request) -> str | None:
    found: str | None = request.app.state.weather_office
    return found


@router.post("")
def fetch_forecast(
    job_id: str, store: Store, office: Annotated[str | None, Depends(office_of)]
) -> ReadForecast:
    """What the office says about the job's place and days; nothing is stored."""
    if office is None:
        raise OfficeSilent(
            "No weather office is connected.",
            remedy="Start the application with --weather-office and its address, or load a file.",
            field="days.forecast",
        )
    job = store.get(job_id).job
    if job.days.first is None:
        raise InputError("The first day is not known.", remedy="Type it first.", field="days.first")
    place = visit(job).get("sunlit")
    if place is None:
        raise InputError("The place is not known.", remedy="Type its latitude.", field="site.latitude")
    query = urllib.parse.urlencode(
        {
            "latitude": place.latitude_deg,
            "longitude": place.longitude_deg,
            "first": job.days.first.isoformat(),
        }
    )
    return read_forecast(_asked(f"{office.rstrip('/')}/forecast?{query}"))


def _asked(url: str) -> str:
    """The office's answer. Raises OfficeSilent where it gives none that can be used."""
    try:
        with urllib.request.urlopen(url, timeout=WITHIN_S) as answer:
            text: str = answer.read(MOST_BYTES + 1).decode("utf-8", "replace")
    except (urllib.error.URLError, OSError, ValueError) as error:
        raise OfficeSilent(
            f"The weather office does not answer ({getattr(error, 'reason', error)}).",
            remedy="Look whether it runs, or load a file.",
            field="days.forecast",
        ) from error
    return text
