"""The solar library, loaded when it is first asked for: it takes a second that most answers need not wait.

Its modules import one another in a circle, so two threads that load it at once see it half made: one at a
time.
"""

from __future__ import annotations

from threading import Lock
from types import ModuleType

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
