"""The solar library, loaded when it is first asked for: it takes a second that most answers need not wait.

Its modules import one another in a circle, so two threads that load it at once see it half made: one at a
time.
"""

from __future__ import annotations

from datetime import datetime
from functools import cache
from importlib.machinery import PathFinder
from importlib.util import find_spec, module_from_spec
from threading import Lock
from types import ModuleType

import numpy as np
import numpy.typing as npt

FloatArray = npt.NDArray[np.float64]
DELTA_T_S, REFRACTION_DEG = 67.0, 0.5667
"""Earth's time behind the atoms' and refraction at the horizon: the library's defaults."""
_LOADING = Lock()


def solar_library() -> ModuleType:
    """The library with the modules that are used here."""
    with _LOADING:
        import pvlib
        import pvlib.atmosphere
        import pvlib.clearsky
        import pvlib.pvsystem
        import pvlib.solarposition
    return pvlib  # type: ignore[no-any-return]


def sun_over(
    start: datetime, apart_s: float, count: int, latitude_deg: float, longitude_deg: float
) -> tuple[FloatArray, FloatArray]:
    """Zenith angle and elevation of the sun with refraction at sea level and 12 °C, °, at ``count`` moments
    ``apart_s`` apart from ``start`` on (NREL's SPA: Reda and Andreas, Solar Energy 76, 2004).
    """
    times = start.timestamp() + apart_s * np.arange(count)
    place = (latitude_deg, longitude_deg, 0.0, 1013.25, 12.0)
    zenith, _, elevation, *_ = _algorithm().solar_position(times, *place, DELTA_T_S, REFRACTION_DEG)
    return np.asarray(zenith), np.asarray(elevation)


@cache
def _algorithm() -> ModuleType:
    """The library's algorithm without the library: it needs numpy alone, the whole brings tables, readers and
    a data-frame library that take longer than all else that a plan of days is made from.
    """
    with _LOADING:
        library = find_spec("pvlib")
        inside = library.submodule_search_locations if library else None
        spec = PathFinder.find_spec("spa", inside or [])
        if spec is None or spec.loader is None:
            raise ImportError(
                "the solar library has no algorithm of the sun's place: set this program up anew"
            )
        module = module_from_spec(spec)
        spec.loader.exec_module(module)
    return module
