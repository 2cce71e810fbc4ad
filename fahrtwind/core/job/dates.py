"""Days and moments of a job: within a century, so that no sum of days leaves the calendar."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime
from pydantic_core import PydanticCustomError

FIRST_YEAR, LAST_YEAR = 2000, 2100


def _in_our_time(day: dt.date) -> dt.date:
    """Moments are days as well."""
    if not FIRST_YEAR <= day.year <= LAST_YEAR:
        raise PydanticCustomError(
            "bad_input",
            "{problem}",
            {
                "problem": f"The year {day.year} cannot be meant.",
                "remedy": f"Type a day from {FIRST_YEAR} to {LAST_YEAR}.",
            },
        )
    return day


Day = Annotated[dt.date, AfterValidator(_in_our_time)]
Moment = Annotated[AwareDatetime, AfterValidator(_in_our_time)]
