"""Putting the application together."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from functools import partial
from pathlib import Path

from fastapi import FastAPI
from starlette.middleware.body_limit import RequestBodyLimitMiddleware
from starlette.middleware.gzip import GZipMiddleware

from fahrtwind import __version__
from fahrtwind.api import (
    care,
    choices,
    choosing,
    errors,
    forecasts,
    glances,
    instruments,
    jobs,
    phones,
    records,
    shop,
    slow,
)
from fahrtwind.api.admission import Admission
from fahrtwind.api.doors import PREFIX, create_doors
from fahrtwind.api.guard import Guard
from fahrtwind.api.keeping import Keeping
from fahrtwind.api.later import Later
from fahrtwind.api.pages import STATIC, Pages
from fahrtwind.api.phone_door import PHONES_PORT, PhoneDoor
from fahrtwind.api.slow import SlowWorks
from fahrtwind.demo import demo_jobs, demo_shelf
from fahrtwind.files.items_csv import read_items
from fahrtwind.files.job_file import LARGEST_BYTES
from fahrtwind.instruments.listener import Instruments
from fahrtwind.store.answers import Answers
from fahrtwind.store.database import open_database
from fahrtwind.store.jobs import JobStore
from fahrtwind.store.phones import Phones
from fahrtwind.store.records import Records
from fahrtwind.store.shop import Shop

LARGEST_BODY = LARGEST_BYTES + 1000


def create_app(
    database: Path,
    *,
    demo: bool = False,
    hosts: tuple[str, ...] = (),
    static: Path = STATIC,
    weather_office: str | None = None,
    phones_port: int = PHONES_PORT,
    listening: Instruments | None = None,
) -> FastAPI:
    """The web application on a database file. ``demo`` fills an empty database with the demo jobs;
    ``weather_office``: the address forecasts are fetched from; ``listening``: to instruments.
    """
    app = FastAPI(
        title="Fahrtwind",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_until_stopped,
    )
    engine = open_database(database)
    app.state.store, app.state.shop, app.state.slow_works = JobStore(engine), Shop(engine), SlowWorks()
    app.state.answers = Answers(engine)
    app.state.keeping = Keeping(app.state.answers, partial(jobs.answer_of, app.state.store))
    app.state.records = Records(engine)
    app.state.phones, app.state.phone_door = Phones(engine), PhoneDoor(phones_port)
    app.state.glances = glances.Glances()
    app.state.instruments = listening or Instruments()
    app.state.weather_office = weather_office
    if demo and not app.state.store.summaries():
        for job in demo_jobs():
            app.state.store.create(job, "demo", "Demo job")
        rows = read_items(demo_shelf()).rows
        app.state.shop.put_items([row.item for row in rows if row.item is not None])
    app.state.store.changed = app.state.keeping.changed
    errors.install(app)
    app.include_router(jobs.router)
    for part in (care, choosing, forecasts, glances, instruments, phones, records, slow, shop, choices):
        app.include_router(part.router)
    app.state.doors = Later(create_doors)
    app.mount(PREFIX, app.state.doors)
    pages = Pages(static)
    if pages.built:
        app.mount("/", pages)
    app.add_middleware(GZipMiddleware, minimum_size=4000, compresslevel=1)
    app.add_middleware(RequestBodyLimitMiddleware, max_body_size=LARGEST_BODY)
    app.add_middleware(Admission, door=app.state.phone_door, phones=app.state.phones)
    app.add_middleware(Guard, hosts=hosts, most_bytes=LARGEST_BODY)
    return app


@asynccontextmanager
async def _until_stopped(app: FastAPI) -> AsyncIterator[None]:
    yield
    close(app)


def close(app: FastAPI) -> None:
    """Slow work ends with the server, before it is told that it may go."""
    app.state.slow_works.close()
    app.state.keeping.close()
