"""Instruments speak lines to a socket of this machine; what cannot be believed is refused in words."""

from __future__ import annotations

import contextlib
import json
import socket
import time
from itertools import islice
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fahrtwind.api.app import create_app
from fahrtwind.instruments.lines import LONGEST_LINE, Reading, parse
from fahrtwind.instruments.listener import KEPT, Instruments
from fahrtwind.instruments.simulated import STANDS_IN, lines


def line(**other: object) -> bytes:
    told = {"instrument": "wrench 1", "kind": "torque", "value": 8.25, "unit": "N·m", **other}
    return json.dumps(told).encode()


@pytest.mark.parametrize(
    "bad",
    [
        line(value=900),
        line(value=float("nan")),
        line(unit="ft·lb"),
        line(kind="mood"),
        line(instrument="x" * 41),
        line(instrument="a\nb"),
        line(extra=1),
        b"{",
        b"\xff\xfe",
        b"[]",
        b"9" * (LONGEST_LINE + 1),
    ],
)
def test_what_cannot_be_believed_is_refused_in_words(bad: bytes) -> None:
    told = parse(bad)
    assert isinstance(told, str) and told
    heard = Instruments()
    heard.hear(bad)
    assert heard.after(0) == () and heard.refused == told


def test_a_reading_goes_into_a_box_as_one_would_type_it() -> None:
    values = {8.25: "8.25 N·m", 8.0: "8 N·m", 0.3333: "0.333 N·m", 120.4: "120 N·m"}
    for value, words in values.items():
        told = parse(line(value=value))
        assert isinstance(told, Reading) and told.words == words


def test_stand_ins_say_every_kind_and_the_same_for_the_same_seed() -> None:
    said = list(islice(lines(7), 50))
    assert said == list(islice(lines(7), 50)) and said != list(islice(lines(8), 50))
    heard = [parse(one.strip()) for one in said]
    assert {r.kind for r in heard if isinstance(r, Reading)} == set(STANDS_IN)
    assert all(isinstance(r, Reading) for r in heard)


def test_lines_over_the_socket_reach_the_door_and_the_oldest_go(database: Path) -> None:
    listening = Instruments()
    port = listening.listen(0)
    desk = TestClient(create_app(database, listening=listening), base_url="http://127.0.0.1")
    assert desk.get("/api/instruments/readings").json()["readings"] == []
    with socket.create_connection(("127.0.0.1", port)) as speaks:
        speaks.sendall(line() + b"\n\n{\n" + line(value=7) + b"\n" + line(value=6))  # the last has no end
    for _ in range(200):
        if len(listening.after(0)) == 2:
            break
        time.sleep(0.02)
    told = desk.get("/api/instruments/readings").json()
    assert [(r["number"], r["words"]) for r in told["readings"]] == [(1, "8.25 N·m"), (2, "7 N·m")]
    assert told["port"] == port and told["refused"]
    assert [r["number"] for r in desk.get("/api/instruments/readings?after=1").json()["readings"]] == [2]
    for _ in range(KEPT + 5):
        listening.hear(line())
    assert len(listening.after(0)) == KEPT and listening.after(0)[-1].number == KEPT + 7


def test_a_line_without_end_is_not_waited_for(database: Path) -> None:
    listening = Instruments()
    port = listening.listen(0)
    with socket.create_connection(("127.0.0.1", port), timeout=10) as speaks:
        speaks.sendall(b"x" * 5000)
        with contextlib.suppress(ConnectionResetError):
            assert speaks.recv(1) == b""
    assert listening.after(0) == ()
