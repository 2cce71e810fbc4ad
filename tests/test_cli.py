"""The command line beside the API and the core: the same answers, the promised exit codes."""

from __future__ import annotations

import io
import json
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fahrtwind.api.app import create_app
from fahrtwind.calc import CALCULATIONS
from fahrtwind.cli import main
from fahrtwind.core.job.document import Job
from fahrtwind.demo import FOLDER
from fahrtwind.files.job_file import write_job
from fahrtwind.store.database import open_database
from fahrtwind.store.jobs import JobStore

SHEET = {"name": "Stein", "length": 1500, "width": 700, "frame_height": 35, "mass": 12, "power": 200}
SMALL = {
    "schema_version": 3,
    "name": "small",
    "vehicle": {"kind": "van", "roof_length": 2600, "roof_width": 1500},
}
WIRED = json.loads((FOLDER / "speiche.json").read_text(encoding="utf-8"))
DATED = {
    **WIRED,
    "site": {"latitude": "52"},
    "days": {
        "first": "2026-05-04",
        "zone": "Europe/Berlin",
        "crew": [{"id": "a", "name": "Ada"}, {"id": "b", "name": "Ben"}],
        "weather": "told",
        "spells": [{"id": "s", "starts": "2026-05-04", "ends": "2026-05-30", "low": "9", "high": "18"}],
    },
}
FORECAST = (
    "time,air_c,humidity_percent,wind_m_s,gust_m_s,rain_mm,cloud_percent\n"
    "2026-05-04T08:00+02:00,12,70,3,5,0,20\n"
)
CALLS = {
    "quantity.parse": {"kind": "length", "text": "5' 4\""},
    "readings.parse": {"text": "968\n1620"},
    "members.fit": {
        "roof_length_mm": 6000,
        "readings": [{"id": f"r{i}", "x": 300 + 600 * i, "kind": "magnet"} for i in range(6)],
    },
    "feet.share": {
        "feet": [{"x_mm": x, "y_mm": y} for x in (-500, 500) for y in (-400, 400)],
        "load_n": 1000,
        "at_x_mm": 100,
    },
    "members.next": {"roof_length_mm": 8000, "readings": [{"id": "r1", "x": 600, "kind": "magnet"}]},
    "crown.at": {
        "length_mm": 5000,
        "width_mm": 2000,
        "x_mm": 2500,
        "y_mm": 0,
        "crown": {
            "sections": [
                {
                    "id": "a",
                    "x": 2500,
                    "readings": [
                        {"id": "g1", "y": -900, "gap": "100 mm"},
                        {"id": "g2", "y": 0, "gap": 0},
                        {"id": "g3", "y": 900, "angle": "12.9°"},
                    ],
                }
            ]
        },
    },
    "points.fit": {
        "id": "w1",
        "name": "port",
        "kind": "pin",
        "start": 600,
        "y": -700,
        "pitch": 880,
        "count": 3,
    },
    "square.check": {
        "port_side": "4 m",
        "diagonal_port": 4480,
        "diagonal_starboard": 4464,
        "front_side": "2 m",
    },
    "lid.swing": {
        "id": "o1",
        "kind": "fan",
        "name": "Fan",
        "x": 0,
        "y": 0,
        "length": 400,
        "width": 400,
        "lid_hinge": "rear",
        "lid_angle": "90°",
    },
    "outline.parse": {"text": "x,y\n0,-800\n4000,-800\n4000,800\n0,800"},
    "mounting.lines": {"job": {"schema_version": 2, "name": "x"}},
    "mounting.schools": {"mounting": {"marks": [{"id": "l1", "x": 500, "side": "port", "offset": "61 cm"}]}},
    "bay.spot": {"job": {"schema_version": 2, "name": "x"}, "x_mm": 1000},
    "job.evaluate": {"job": {"schema_version": 1, "name": "x"}},
    "layout.propose": {
        "job": {**SMALL, "wish": {"offers": [{"id": "e1", "model": "Halde 410"}], "aim": "watts"}},
        "seconds": 20,
    },
    "job.make_hold": {
        "job": {**SMALL, "panels": [{"id": "p1", "name": "One", "model": SHEET, "x": 1500, "y": 0}]}
    },
    "job.schools": {
        "job": {**SMALL, "panels": [{"id": "p1", "name": "One", "model": SHEET, "x": 1500, "y": 0}]}
    },
    "build.cut_list": {
        "pieces": [{"id": f"a{i}", "length_mm": 1600} for i in range(4)],
        "bars": [{"id": "six", "length_mm": 6000, "price": 38.5}],
    },
    "build.pieces": {"job": SMALL},
    "build.workshop": {"job": SMALL},
    "build.bolt": {"size": "M8", "grip_mm": 46, "tube_wall_mm": 3},
    "build.bend": {"thickness_mm": 4},
    "wire.plan": {"job": SMALL},
    "wire.groupings": {"job": WIRED},
    "wire.curves": {"job": WIRED},
    "wire.diode": {"model": WIRED["panels"][0]["model"]},
    "wire.cold_voltage": {"voc_v": 40.2, "panels": 2, "per_k": -0.28, "coldest_c": -18},
    "wire.voltage_drop": {"cable": "10 AWG", "one_way_mm": 8000, "current_a": 16.34, "running_v": 30.6},
    "days.work": {"job": DATED},
    "days.plan": {"job": DATED, "seconds": 5},
    "days.why_not": {"job": DATED, "step": "lift", "day": "2026-05-05"},
    "days.helps": {"job": DATED},
    "days.sure": {"job": DATED},
    "days.skin": {"air_c": 10, "humidity_percent": 80, "wind_m_s": 3, "sun_w_m2": 400, "colour": "dark"},
    "forecast.parse": {"text": FORECAST},
    "days.elsewhere": {"job": DATED, "others": [DATED]},
    "days.together": {"jobs": [DATED, DATED], "seconds": 5},
    "roof_day.as_built": {"job": DATED},
    "roof_day.torques": {"job": DATED},
    "roof_day.steps": {"job": DATED},
    "log.due": {"job": DATED, "today": "2026-11-27"},
    "seal.plan": {"job": SMALL},
    "seal.water": {"job": SMALL},
    "seal.bond": {"family": "hybrid", "substrate": "gelcoat"},
    "seal.cure": {"depth_mm": 3, "temperature_c": 23, "humidity_percent": 50},
    "seal.bead": {"plate_length_mm": 60, "plate_width_mm": 40, "head_mm": 12},
    "items.parse": {"text": "name,kind,price\nhex bolt M8 x 60,fastener,0.45\n"},
    "job.remedies": {
        "job": {**SMALL, "panels": [{"id": "p1", "name": "One", "model": SHEET, "x": 1500, "y": 0}]}
    },
    "layout.yield": {"job": {**SMALL, "site": {"climate": "Kargfeld"}}},
    "layout.day": {"job": {**SMALL, "site": {"climate": "Kargfeld"}}, "month": 3, "heading_deg": 90},
    "layout.compare": {"job": SMALL},
    "layout.changes": {"job": SMALL, "edits": [{"op": "place_panel", "model": "Splitt 50"}]},
    "layout.snaps": {
        "job": {**SMALL, "panels": [{"id": "p1", "name": "One", "model": SHEET, "x": 100, "y": 0}]},
        "panel": "p1",
    },
    "panels.parse": {"text": "Name,STC,Length,Width\nStein,200,1.5,0.7\n", "frame_mm": 35, "mass_kg": 12},
    "climate.parse": {"text": "month,sunshine,temperature\n" + "m,40%,12\n" * 12},
    "rail.share": {
        "feet": [{"at_mm": x} for x in (150, 1250, 2350, 3450)],
        "clamps": [{"at_mm": x, "pull_n": 300} for x in (200, 1190, 1240, 2230)],
        "ei_n_mm2": 4.17e9,
    },
    "frame.share": {
        "length_mm": 1640,
        "width_mm": 992,
        "feet": [{"at_mm": x} for x in (328, 820, 1312)],
        "strips": [{"from_mm": 0, "to_mm": 1640, "pressure_pa": 945}],
    },
    "bars.solve": {
        "nodes": [{"x_mm": 0, "y_mm": 0}, {"x_mm": 1000, "y_mm": 0}, {"x_mm": 0, "y_mm": 600}],
        "bars": [
            {"start": 0, "end": n, "ea_n": 3e7, "ei_up_n_mm2": 7e9, "ei_side_n_mm2": 7e9, "gj_n_mm2": 4e9}
            for n in (1, 2)
        ],
        "supports": [{"node": n, "x_n_mm": 3000, "y_n_mm": 3000, "z_n_mm": 2000} for n in range(3)],
        "loads": [{"node": 1, "z_n": 300}],
    },
    "formula.dynamic_pressure": {"density_kg_m3": 1.225, "speed_m_s": 30},
}


def test_every_calculation_beyond_single_formulas_is_called_here() -> None:
    assert {n for n in CALCULATIONS if not n.startswith("formula.")} == {
        n for n in CALLS if not n.startswith("formula.")
    } | {"job.working"}


@pytest.fixture(scope="module")
def doors(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """One server for all calculations: they keep nothing."""
    app = create_app(tmp_path_factory.mktemp("doors") / "doors.db", demo=False)
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as found:
        yield found


@pytest.mark.parametrize("name", CALLS)
def test_both_doors_give_the_same_answer(
    name: str, doors: TestClient, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps(CALLS[name])))
    assert main(["calc", name]) == 0
    by_line = json.loads(capsys.readouterr().out)
    by_web = doors.post(f"/api/calc/{name}", json=CALLS[name])
    assert by_web.status_code == 200 and by_web.json() == by_line


def test_working_through_both_doors(
    demo: Job, client: TestClient, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    asked = {"job": demo.model_dump(mode="json"), "place": "hold/p1/f2/link base"}
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps(asked)))
    assert main(["calc", "job.working"]) == 0
    steps = json.loads(capsys.readouterr().out)["steps"]
    assert steps == client.post("/api/calc/job.working", json=asked).json()["steps"]
    assert [s["formula"] for s in steps][:2] == ["screw_pull_out", "by_worst_fastener"]
    assert steps[0]["inputs"][0]["origin"] == {"kind": "measured", "place": "member wall"}


@pytest.mark.parametrize(
    ("name", "data"),
    [
        ("no.such", "{}"),
        ("quantity.parse", "{}"),
        ("quantity.parse", "nonsense"),
        ("quantity.parse", '{"kind":"length","text":"x"}'),
        ("formula.screw_pull_out", '{"thickness_mm":1,"diameter_mm":99,"strength_n_mm2":270}'),
    ],
)
def test_bad_input_is_code_two_with_a_remedy(
    name: str, data: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr("sys.stdin", io.StringIO(data))
    assert main(["calc", name]) == 2
    assert capsys.readouterr().err.startswith("fahrtwind: ")


def test_check_exits_one_on_a_stop_and_prints_everything_on_request(
    demo: Job, sound: Job, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    for job, code in ((demo, 1), (sound, 0)):
        path = tmp_path / f"{code}.json"
        path.write_text(write_job(job))
        assert main(["check", str(path)]) == code
        assert ("STOP" in capsys.readouterr().out) == (code == 1)
        assert main(["check", "--json", str(path)]) == code
        assert json.loads(capsys.readouterr().out)["findings"]["plan"]["required_m_s"] > 20
    assert main(["check", str(tmp_path / "missing.json")]) == 2


def test_export_and_backup_write_what_they_say(demo: Job, tmp_path: Path) -> None:
    path = tmp_path / "job.json"
    path.write_text(write_job(demo))
    assert main(["export", str(path), str(tmp_path / "out")]) == 0
    assert {p.name for p in (tmp_path / "out").iterdir()} == {
        "work-sheet.pdf",
        "drill-map.dxf",
        "drill-map.svg",
        "materials.csv",
        "pieces.csv",
        "pieces.dxf",
        "pieces.svg",
        "pieces.pdf",
        "templates.pdf",
        "panel-templates.dxf",
        "panel-templates.svg",
        "labels.pdf",
        "purchase.csv",
        "quote.pdf",
        "cut-list.csv",
        "wiring.svg",
        "wiring.dxf",
        "wiring.pdf",
        "cable-labels.pdf",
        "days.ics",
        "week-sheet.pdf",
        "due.ics",
        "handover.pdf",
        "job.json",
    }
    JobStore(open_database(tmp_path / "a.db")).create(demo, "me")
    assert main(["backup", str(tmp_path / "b.db"), "--database", str(tmp_path / "a.db")]) == 0
    assert main(["backup", str(tmp_path / "b.db"), "--database", str(tmp_path / "a.db")]) == 2


def _lines(capsys: pytest.CaptureFixture[str]) -> list[str]:
    return capsys.readouterr().err.splitlines()


def test_whatever_is_wrong_gives_one_line_and_no_code_of_a_stop(
    demo: Job, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    """A stop has exit code 1; a file, a folder, a database or a pipe that is wrong never has."""
    good, garbage = tmp_path / "job.json", tmp_path / "garbage"
    good.write_text(write_job(demo))
    garbage.write_bytes(b"\xff\xfe garbage" * 50)
    (tmp_path / "taken").write_text("a file")
    calls = [
        ["check", str(tmp_path)],
        ["check", str(tmp_path / "none.json")],
        ["check", str(garbage)],
        ["check", "\0bad"],
        ["export", str(garbage), str(tmp_path / "out")],
        ["export", str(good), str(tmp_path / "taken")],
        ["export", str(good), str(tmp_path / "taken" / "under")],
        ["backup", str(tmp_path / "x.db"), "--database", str(tmp_path / "no.db")],
        ["backup", str(tmp_path / "x.db"), "--database", str(garbage)],
        ["backup", str(tmp_path / "taken" / "x"), "--database", str(garbage)],
        ["serve", "--database", str(garbage), "--port", "0"],
        ["serve", "--database", str(tmp_path / "taken" / "a.db"), "--port", "0"],
        ["serve", "--database", str(tmp_path / "ok.db"), "--port", "99999"],
        ["calc", "no.such"],
    ]
    for call in calls:
        monkeypatch.setattr("sys.stdin", io.StringIO("{}"))
        assert main(call) == 2, call
        told = _lines(capsys)
        assert len(told) == 1 and told[0].startswith("fahrtwind: "), (call, told)


def test_a_pipe_that_closes_and_an_interrupt_are_not_a_stop(demo: Job, tmp_path: Path) -> None:
    path = tmp_path / "job.json"
    path.write_text(write_job(demo))
    shell = (
        f"{sys.executable} -m fahrtwind.cli check --json {path} | head -c 10 >/dev/null; echo "
        f"${{PIPESTATUS[0]}}"
    )
    done = subprocess.run(["bash", "-c", shell], capture_output=True, text=True, check=True)
    assert done.stdout.strip() in ("141", "1") and "Traceback" not in done.stderr
