"""Generated requests over all routes: none may end in a server error. Seeded; how many a second is the
machine's business.
"""

from __future__ import annotations

import math
import tempfile
import time
from collections import Counter
from pathlib import Path

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings

from bench.figures import line
from fahrtwind.api.app import create_app
from fahrtwind.api.doors import create_doors

COUNT = 20_000


def requests(count: int = COUNT) -> None:
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "requests.db", demo=True, hosts=("testserver",))
        pages = schemathesis.openapi.from_asgi("/api/openapi.json", app)
        doors = schemathesis.openapi.from_asgi("/openapi.json", create_doors())
        operations = [found.ok() for of in (pages, doors) for found in of.get_all_operations()]
        sent: Counter[str] = Counter()
        start, round_no = time.perf_counter(), 0
        while (
            sent.total() < count
        ):  # a route with few different requests leaves the rest to the others, in another round
            each = math.ceil((count - sent.total()) / len(operations))
            round_no += 1
            for operation in operations:
                assert operation is not None
                _many(operation, each, round_no, sent)
        taken = time.perf_counter() - start
    print(
        f"\n{sent.total()} generated requests over {len(operations)} routes, "
        f"{sent.total() / taken:.0f} a second"
    )
    for words in sorted(w for w in sent if w.startswith("server error")):
        print(f"  {words}: {sent[words]}")
    line("generated requests", sent.total(), "sent", least=count)
    line(
        "generated requests that ended in a server error",
        sum(n for w, n in sent.items() if w.startswith("server")),
        "sent",
        0,
    )


def _many(
    operation: schemathesis.schemas.APIOperation, count: int, round_no: int, sent: Counter[str]
) -> None:
    @seed(round_no)
    @settings(
        max_examples=count,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(case=operation.as_strategy())
    def send(case: schemathesis.Case) -> None:
        answer = case.call()
        wrong = answer.status_code >= 500
        sent[f"server error at {operation.label}" if wrong else "answered"] += 1

    send()
