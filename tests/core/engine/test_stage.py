"""Stages: what is worked out again and what is not, what is asked for, what falls silent, and what is refused
at start.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

import pytest

from fahrtwind.core.engine.beside import Hands, Stopped, beside, go_on
from fahrtwind.core.engine.memory import Memory
from fahrtwind.core.engine.rule import Found, Rules
from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import UNKNOWN, House, Missing, Visit
from fahrtwind.core.errors import NotFound
from fahrtwind.core.formulas.air import dynamic_pressure
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.stations.all import house as road


@dataclass(frozen=True)
class Box:
    id: str
    size: float


@dataclass(frozen=True)
class Shelf:
    boxes: tuple[Box, ...] = ()
    height: float | None = 10.0


@dataclass
class Bench:
    """A small house: boxes on a shelf. ``runs`` counts how often each part was worked out."""

    house: House = field(default_factory=House)
    memory: Memory = field(default_factory=Memory)
    runs: dict[str, int] = field(default_factory=dict)

    def ran(self, name: str) -> None:
        self.runs[name] = self.runs.get(name, 0) + 1

    def visit(self, shelf: Shelf) -> Visit:
        return Visit(self.house, shelf, self.memory)


@pytest.fixture
def bench() -> Bench:
    bench = Bench()
    house, ran = bench.house, bench.ran

    @house.view()
    def boxes(asked: Shelf) -> tuple[Box, ...]:
        return asked.boxes

    @house.view()
    def height(asked: Shelf) -> float | Missing:
        return (
            Missing(Question("height", "shelf", "How high is it?")) if asked.height is None else asked.height
        )

    @house.stage("shelf", "Volume", "boxes.{id}", each="boxes", all="volumes", place="volume/{id}")
    def volume(box: Box, height: float) -> float:
        ran(f"volume {box.id}")
        if box.size > 1000:
            raise ZeroDivisionError
        with scope("volume", box.id):
            dynamic_pressure(given(1.2, "default", "air"), given(box.size, "chosen", "box"))
        return box.size * height

    @house.stage("shelf", "Total", otherwise=0.0)
    def total(volumes: tuple[float, ...]) -> float:
        ran("total")
        return sum(volumes)

    @house.stage("shelf", "Rounded")
    def rounded(total: float) -> int:
        ran("rounded")
        return round(total)

    @house.stage("shelf", "Words")
    def words(rounded: int, height: float | None) -> str:
        ran("words")
        return f"{rounded} at {height}"

    @house.stage("shelf", "Years", slow=True)
    def years(total: float) -> float:
        ran("years")
        return total / 2

    house.check()
    return bench


def test_only_what_reads_a_change_is_worked_out_again(bench: Bench) -> None:
    small, large = Box("a", 1.0), Box("b", 2.0)
    first = bench.visit(Shelf((small, large)))
    first.everything()
    assert first["total"] == 30.0 and first["words"] == "30 at 10.0"
    bench.visit(Shelf((Box("a", 1.0), Box("b", 2.0)))).everything()  # equal, though other objects
    assert bench.runs == {"volume a": 1, "volume b": 1, "total": 1, "rounded": 1, "words": 1}
    moved = bench.visit(Shelf((small, Box("b", 2.01))))
    moved.everything()
    assert moved["total"] == pytest.approx(30.1)
    assert bench.runs == {"volume a": 1, "volume b": 2, "total": 2, "rounded": 2, "words": 1}, (
        "an equal result stops the change"
    )
    bench.visit(Shelf((small, large))).everything()
    assert bench.runs["volume b"] == 2, "going back costs nothing"


def test_a_slow_stage_runs_when_somebody_looks(bench: Bench) -> None:
    seen = bench.visit(Shelf((Box("a", 1.0),)))
    seen.everything()
    assert "years" not in bench.runs and seen["years"] == 5.0 and bench.runs["years"] == 1


def test_slow_work_that_is_told_to_stop_leaves_nothing_behind(bench: Bench) -> None:
    told: list[tuple[float, str]] = []

    @bench.house.stage("shelf", "Decades", slow=True)
    def decades(total: float) -> float:
        go_on(0.5, "counting")
        return total * 10

    def hands(cancelled: bool) -> Hands:
        return Hands(lambda: 1.0, lambda: cancelled, lambda share, doing: told.append((share, doing)))

    shelf = Shelf((Box("a", 1.0),))
    with beside(hands(cancelled=True)), pytest.raises(Stopped):
        bench.visit(shelf).demand("decades")
    assert not told
    with beside(hands(cancelled=False)):
        assert bench.visit(shelf).demand("decades") == 100.0
    assert told == [(0.5, "counting")]
    go_on(0.7, "nobody listens")
    assert len(told) == 1


def test_who_asks_for_one_part_alone_is_told_why_it_cannot_be_had(bench: Bench) -> None:
    @bench.house.stage("shelf", "Quotient", slow=True)
    def quotient(total: float) -> float:
        return 1 / total

    assert bench.visit(Shelf((Box("a", 1.0),))).demand("quotient") == 0.1
    for _ in range(2):
        with pytest.raises(ZeroDivisionError):
            bench.visit(Shelf()).demand("quotient")
    with pytest.raises(NotFound):
        bench.visit(Shelf(height=None)).demand("height")


def test_what_is_missing_is_asked_for_and_stops_only_who_needs_it(bench: Bench) -> None:
    seen = bench.visit(Shelf((Box("a", 1.0),), height=None))
    seen.everything()
    assert [q.path for q in seen.all_questions()] == ["height"]
    assert seen["volumes"] == () and seen["total"] == 0 and seen["words"] == "0 at None"


def test_a_failure_belongs_to_its_stage_and_entry(bench: Bench) -> None:
    seen = bench.visit(Shelf((Box("a", 1.0), Box("b", 2000.0))))
    for _ in range(2):  # the second time from memory
        seen = bench.visit(seen.asked)
        seen.everything()
        assert seen["volumes"] == (10.0,) and seen.of("volume", seen["boxes"][1]) is UNKNOWN
        silence = seen.silent["volume", "b"]
        assert (silence.station, silence.place, silence.foreseen) == (
            "shelf",
            "boxes.b",
            False,
        ) and "ZeroDivisionError" in silence.why
    assert bench.runs["volume b"] == 1


def test_only_the_owner_of_a_place_is_worked_out_again_for_its_working(bench: Bench) -> None:
    shelf = Shelf((Box("a", 3.0), Box("b", 2.0)))
    bench.visit(shelf).everything()
    before = dict(bench.runs)
    steps = bench.visit(shelf).explain("volume/a")
    assert [s.formula for s in steps] == ["dynamic_pressure"] and bench.runs == before | {"volume a": 2}
    assert bench.visit(shelf).explain("volume/c") == () == bench.visit(shelf).explain("nowhere")


def test_a_rule_finds_by_entry_and_one_that_cannot_be_asked_counts_as_found(bench: Bench) -> None:
    rules = Rules(bench.house)
    rules.unanswered("hold")

    @rules.rule("large", "caution", "hold", "Large box", "size", each="boxes")
    def large(box: Box, volume: float) -> Iterator[Found]:
        if volume > 15:
            yield Found(f"boxes.{box.id}", box.id, "large", "smaller")

    @rules.rule("broken", "note", "hold", "Broken rule", "none")
    def broken(total: float) -> Iterator[Found]:
        yield Found("total", "total", str(1 / (total - total)), "")

    bench.house.check()
    seen = bench.visit(Shelf((Box("a", 1.0), Box("b", 2.0))))
    seen.everything()
    told = [
        (s.id, s.severity, s.place, s.dismissed) for s in rules.ask(seen, {("large", "boxes.b"): "known"})
    ]
    assert told == [("rule-unanswered", "stop", "job", None), ("large", "caution", "boxes.b", "known")]


def test_parts_of_the_road_take_what_they_are_given() -> None:
    road.check_types()


def _house_with(reads: str, annotation: str, *, each: str | None = None, back: str = "text") -> House:
    house, names = House(), {"Box": Box, "Shelf": Shelf}
    code = (
        f"def boxes(asked: Shelf) -> tuple[Box, ...]: ...\ndef text(asked: Shelf) -> str: ...\ndef "
        f"label(box: Box) -> str: ...\n"
        f"def loop({back}: str) -> str: ...\ndef part({'box: Box, ' if each else ''}{reads}: "
        f"{annotation}) -> str: ...\n"
    )
    exec(code, names)
    house.view()(names["boxes"])
    house.view()(names["text"])
    house.stage("s", "label", each="boxes", all="labels")(names["label"])
    house.stage("s", "loop")(names["loop"])
    house.stage("s", "part", each=each)(names["part"])
    return house


@pytest.mark.parametrize(
    ("house", "told"),
    [
        (_house_with("nothing", "str"), "nobody declares"),
        (_house_with("text", "int"), "takes text as"),
        (_house_with("label", "str"), "all together"),
        (_house_with("labels", "tuple[int, ...]"), "takes labels as"),
        (_house_with("loop", "str", back="part"), "in a circle"),
    ],
)
def test_wrong_names_types_and_circles_are_refused_at_start(house: House, told: str) -> None:
    with pytest.raises(ValueError, match=told):
        house.check()
        house.check_types()


def test_parts_that_fit_pass_and_a_second_of_one_name_does_not() -> None:
    house = _house_with("labels", "tuple[str, ...]")
    house.check()
    house.check_types()
    labelled = _house_with("label", "str", each="boxes")
    labelled.check()
    labelled.check_types()
    with pytest.raises(ValueError, match="twice"):
        house.view()(house.parts["boxes"].work)
