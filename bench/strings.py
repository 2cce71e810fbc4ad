"""Strings: all groupings of eight unequal panels curves, the meter; beside the open library."""

from __future__ import annotations

import time
import warnings

import numpy as np
from pvlib import pvsystem

from bench.figures import line, median_ms
from fahrtwind.core.choose.curves import HourLight, curves_of
from fahrtwind.core.edits import SetValue, apply_edits
from fahrtwind.core.engine.beside import Hands, beside
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.wire.curves import LitPanel
from fahrtwind.core.stations.wire.diode import diode_of
from fahrtwind.demo import demo_jobs
from tests.core.test_wire import CEC, sheet, watts

CONTROLLERS = (
    {"id": "c1", "name": "A", "max_voltage": "150 V", "charge_current": "85 A"},
    {"id": "c2", "name": "B", "max_voltage": "100 V", "charge_current": "50 A"},
    {"id": "c3", "name": "C", "max_voltage": "75 V", "charge_current": "30 A"},
)
ROWS = 60


def eight_panels() -> Job:
    """The bus with three small panels more, raised for shade on what lies behind."""
    bus = next(j for j in demo_jobs() if j.name == "Lichtspiel")
    small = next(j for j in demo_jobs() if j.name == "Speiche").panels[0].model
    more = [
        {
            **bus.panels[0].model_dump(),
            "id": f"q{i}",
            "name": f"Small {i}",
            "model": small.model_dump(),
            "x": {"mm": 4500.0 + 700 * i},
            "tilt": {"deg": 20.0},
        }
        for i in range(3)
    ]
    wiring = {**bus.wiring.model_dump(), "controllers": CONTROLLERS, "strings": []}
    return apply_edits(
        bus,
        [
            SetValue(path="panels", value=[*(p.model_dump() for p in bus.panels), *more]),
            SetValue(path="wiring", value=wiring),
        ],
    )


def strings() -> None:
    """Speeds as promised, and how far the fitted diodes are from the open table."""
    job = eight_panels()
    seen = visit(job)
    start = time.perf_counter()
    seen.demand("moments")
    light = time.perf_counter() - start
    seen.demand("even_groupings")
    line("groupings, a first answer", time.perf_counter() - start, "s", 1)
    start = time.perf_counter()
    with beside(Hands(lambda: 90.0, lambda: False, lambda _s, _d: None)):
        found = seen.demand("groupings")
    line("all groupings of 8 panels on 3 controllers", light + time.perf_counter() - start, "s", 10)
    line("groupings worked", found.worked, "")
    bus = next(j for j in demo_jobs() if j.name == "Lichtspiel")
    curves_of(bus, HourLight(6, 12.0, 180.0))
    line("curves at a moved slider", median_ms(lambda _: curves_of(bus, HourLight(6, 13.0, 180.0))), "ms", 50)
    van = next(j for j in demo_jobs() if j.name == "Speiche")
    told = iter(range(1000))

    def read(_: int) -> None:
        volts = f"{40 + next(told) / 100} V"
        evaluate(apply_edits(van, [SetValue(path="wiring.meter.m1.volts", value=volts)]))

    line("a reading typed and judged", median_ms(read), "ms", 50)
    _diodes()


def _diodes() -> None:
    """Rows of the table drawn by a seed, in three lights and heats."""
    warnings.simplefilter("ignore")
    table = pvsystem.retrieve_sam("CECMod").T
    silicon = table[table["Technology"].isin(["Mono-c-Si", "Multi-c-Si"]) & table["N_s"].between(30, 96)]
    rows = silicon.iloc[np.random.default_rng(23).choice(len(silicon), ROWS, replace=False)]
    off = []
    for _, row in rows.iterrows():
        plain = sheet(row.V_oc_ref, row.V_mp_ref, row.I_sc_ref, row.I_mp_ref, cells=int(row.N_s))
        told = {
            "voc_per_k": row.beta_oc / row.V_oc_ref * 100,
            "isc_per_k": row.alpha_sc / row.I_sc_ref * 100,
            "power_per_k": row.gamma_r,
        }
        diode = diode_of(plain.model_copy(update=told))
        for light, heat in ((1000, 25), (800, 55), (200, 25)):
            params = pvsystem.calcparams_cec(light, heat, *(row[k] for k in CEC))
            theirs = float(pvsystem.max_power_point(*params, method="newton")["p_mp"])
            lit = LitPanel(diode, np.full((diode.groups, 1), float(light)), np.array([float(heat)]))
            off.append(abs(watts([lit], series=True) / theirs - 1) * 100)
    line("diodes beside the open table, in the mean off by", float(np.mean(off)), "%", 1)
    line("diodes beside the open table, at most off by", float(np.max(off)), "%", 5)
