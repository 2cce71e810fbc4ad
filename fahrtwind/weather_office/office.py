"""The office's own small API, and the process it runs in."""

from __future__ import annotations

import os
import sys
import threading
from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Any

import uvicorn
from fastapi import FastAPI, Query

from fahrtwind.weather_office.simulated import DAYS, MEMBERS, forecast

SEED = 20260504


def office(seed: int = SEED) -> FastAPI:
    """One route: the forecast of a place. Days that are far from today are served as if it were their eve."""
    app = FastAPI(title="Simulated weather office", docs_url=None, redoc_url=None)

    @app.get("/forecast")
    def read_forecast(
        latitude: Annotated[float, Query(ge=-90, le=90)],
        first: date,
        longitude: Annotated[float, Query(ge=-180, le=180)] = 0.0,
        members: Annotated[int, Query(ge=1, le=20)] = MEMBERS,
    ) -> dict[str, Any]:
        today = datetime.now(UTC).date()
        near = today - timedelta(days=1) <= first <= today + timedelta(days=DAYS)
        issued = today if near else first - timedelta(days=1)
        return forecast(latitude, longitude, first, issued, seed, members)

    return app


def run(port: int, *, with_parent: bool) -> int:
    """Serve on this machine. ``with_parent``: end when standard input does, with whoever started it."""
    if with_parent:
        threading.Thread(target=_end_with_parent, daemon=True).start()
    uvicorn.run(office(), host="127.0.0.1", port=port, log_level="warning", server_header=False)
    return 0


def _end_with_parent() -> None:
    sys.stdin.buffer.read()
    os._exit(0)
