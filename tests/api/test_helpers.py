"""Helpers in other processes find what would be found here, stop when told to, and are never missed."""

from __future__ import annotations

import os
import pickle
import signal
import time
from collections.abc import Iterator
from functools import partial
from pathlib import Path

import pytest

from fahrtwind.api.helpers import Helpers
from fahrtwind.core.choose.make_hold import make_hold
from fahrtwind.core.choose.schools import side_by_side
from fahrtwind.core.engine.beside import Hands, Stopped, beside, go_on
from fahrtwind.core.errors import Conflict, FahrtwindError, InputError, OutOfRange, UnreadableJob
from fahrtwind.core.job.document import Job
from tests.conftest import changed


@pytest.fixture(scope="module")
def helpers() -> Iterator[Helpers]:
    two = Helpers(2)
    two.call()
    yield two
    two.close()


def handed(helpers: Helpers, cancelled: bool = False) -> Hands:
    return Hands(lambda: 60.0, lambda: cancelled, lambda share, doing: None, helpers.apart(lambda: cancelled))


def test_ways_and_offers_are_what_they_are_here(helpers: Helpers, one_panel: Job) -> None:
    fast = changed(one_panel, vehicle__top_speed="112 km/h")
    with beside(handed(helpers)):
        ways, offers = side_by_side(fast), make_hold(fast)
    assert ways == side_by_side(fast)
    assert offers == make_hold(fast) and offers.panels


def _whose(number: int) -> int:
    return os.getpid()


def _together(folder: Path, number: int) -> int:
    """Done only when two have met: whoever comes first waits, however busy the machine is."""
    (folder / str(os.getpid())).touch()
    while len(list(folder.iterdir())) < 2:
        time.sleep(0.02)
    return os.getpid()


def test_parts_are_done_elsewhere_and_at_once(
    helpers: Helpers, tmp_path_factory: pytest.TempPathFactory
) -> None:
    meeting = partial(_together, tmp_path_factory.mktemp("meeting"))
    done = dict(helpers.apart(lambda: False)(meeting, [1, 2, 3, 4]))
    assert sorted(done) == [0, 1, 2, 3] and os.getpid() not in done.values()
    assert dict(helpers.apart(lambda: False)(_whose, [1])) == {0: os.getpid()}, "one alone stays here"


def _until_stopped(folder: Path, number: int) -> None:
    (folder / f"begun {number}").touch()
    while True:
        time.sleep(0.02)
        try:
            go_on()
        except Stopped:
            (folder / f"stopped {number}").touch()
            raise


def test_what_nobody_waits_for_stops_in_the_helpers_too(
    helpers: Helpers, tmp_path_factory: pytest.TempPathFactory
) -> None:
    folder = tmp_path_factory.mktemp("stopped")
    shared = helpers.apart(lambda: len(list(folder.glob("begun *"))) == 2)
    with pytest.raises(Stopped):
        list(shared(partial(_until_stopped, folder), [1, 2]))
    while len(list(folder.glob("stopped *"))) < 2:
        time.sleep(0.02)


def _refuse(number: int) -> None:
    raise OutOfRange("Too far.", remedy="Come nearer.", field="panels.p1.x")


def test_what_is_refused_elsewhere_is_told_whole(helpers: Helpers) -> None:
    with pytest.raises(InputError) as refused:
        list(helpers.apart(lambda: False)(_refuse, [1, 2]))
    told = refused.value
    assert (type(told), told.problem, told.remedy, told.field) == (
        OutOfRange,
        "Too far.",
        "Come nearer.",
        "panels.p1.x",
    )


@pytest.mark.parametrize(
    "error",
    [
        InputError("Wrong.", remedy="Mend it.", field="name"),
        Conflict("Moved on.", remedy="Look again.", current_revision=3, changed_by="a phone"),
        UnreadableJob("No job.", revision=2, can_undo=True),
    ],
)
def test_errors_keep_their_facts_on_the_way(error: FahrtwindError) -> None:
    back = pickle.loads(pickle.dumps(error))
    assert type(back) is type(error) and str(back) == str(error) and vars(back) == vars(error)


def _end_yourself(here: int, number: int) -> int:
    if number == 1 and os.getpid() != here:
        os.kill(os.getpid(), signal.SIGKILL)
    return number


def test_where_a_helper_dies_the_work_goes_on_and_others_come() -> None:
    two = Helpers(2)
    done = dict(two.apart(lambda: False)(partial(_end_yourself, os.getpid()), [1, 2, 3]))
    assert done == {0: 1, 1: 2, 2: 3}
    again = dict(two.apart(lambda: False)(_whose, [1, 2, 3, 4]))
    assert sorted(again) == [0, 1, 2, 3] and os.getpid() not in again.values(), "others have come"
    two.close()
