"""Snags of racks on posts: who hangs on them, where they stand, what joins them."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.carrier import Carrier, Posts, Rack
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force, say_length, say_share
from fahrtwind.core.stations.hold.carriers.seams import judged
from fahrtwind.core.stations.hold.carriers.sections import MEMBER_FACTOR
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict
from fahrtwind.core.stations.house import rule

PRACTICE = "common practice, no source"
HUNG_ON = "A person's pull at each end of each rail, to every side and down: judgement"


def _posts(carrier: Carrier) -> Posts | None:
    return carrier.posts if isinstance(carrier, Rack) else None


def _hung_on(carrier: Carrier, verdict: CarrierVerdict, units: UnitSystem) -> Iterator[tuple[float, Found]]:
    posts, grabbed = _posts(carrier), verdict.grabbed
    if posts is not None and grabbed is not None:
        yield (
            grabbed.utilisation,
            Found(
                place=f"carriers.{carrier.id}.posts.section",
                where=f"{carrier.name}, {grabbed.part}",
                why=f"{say_force(posts.grab_n, units)} at a corner use "
                f"{say_share(grabbed.utilisation)} of what it may bear.",
                remedy="Thicker posts, a brace, larger base plates; or keep people off it.",
                quantity="share of strength",
                value=grabbed.utilisation,
                limit=1.0,
            ),
        )


@rule("arch-bends", "stop", "hold", "Somebody hanging on it bends it for good", HUNG_ON, each="carriers")
def arch_bends(carrier: Carrier, carrier_verdict: CarrierVerdict, units: UnitSystem) -> Iterator[Found]:
    for used, found in _hung_on(carrier, carrier_verdict, units):
        if used > MEMBER_FACTOR:
            yield found


@rule("arch-strained", "caution", "hold", "Somebody hanging on it strains it", HUNG_ON, each="carriers")
def arch_strained(carrier: Carrier, carrier_verdict: CarrierVerdict, units: UnitSystem) -> Iterator[Found]:
    for used, found in _hung_on(carrier, carrier_verdict, units):
        if 1.0 < used <= MEMBER_FACTOR:
            yield found


@rule("post-off-rail", "stop", "hold", "Post beyond the end of its rail", "geometry", each="carriers")
def post_off_rail(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    posts = _posts(carrier)
    for post in posts.places if posts else ():
        x = post.x
        if not carrier.start.mm <= x.mm <= carrier.end.mm:
            yield Found(
                place=f"carriers.{carrier.id}.posts.places.{post.id}.x",
                where=f"{carrier.name}, post at {say_length(x.mm, units)}",
                why=f"Its rails run from {say_length(carrier.start.mm, units)} to "
                f"{say_length(carrier.end.mm, units)}.",
                remedy="Move the post under the rails, or let the rails reach it.",
                quantity="place",
                value=x.mm,
                unit="mm",
            )


@rule("joints-of-posts", "note", "hold", "Not judged: what joins the posts", PRACTICE, each="carriers")
def joints_of_posts(carrier: Carrier, carrier_verdict: CarrierVerdict) -> Iterator[Found]:
    if _posts(carrier) is None or not isinstance(carrier, Rack) or judged(carrier):
        return
    ends = [abs(m) for r in carrier_verdict.rails if r.runs == "up" for m in r.moments_n_mm]
    most = max(ends, default=0.0) / 1000
    yield Found(
        place=f"carriers.{carrier.id}.posts",
        where=carrier.name,
        why=f"Up to {most:.0f} N·m at the probed speed turn its welds or connectors; what they bear nobody "
        "has said.",
        remedy="Type the throat of the welds, by somebody who is certified; or what a connector takes by its "
        "maker.",
        quantity="moment",
        value=most,
        unit="N·m",
    )


@rule(
    "connector-pull",
    "note",
    "hold",
    "Not judged: connectors sliding along the tube",
    PRACTICE,
    each="carriers",
)
def connector_pull(carrier: Carrier, carrier_verdict: CarrierVerdict, units: UnitSystem) -> Iterator[Found]:
    posts = _posts(carrier)
    if posts is None or posts.joint_nm is None or posts.joint_n is not None:
        return
    most = max((seam.along_n for seam in carrier_verdict.seams), default=0.0)
    yield Found(
        place=f"carriers.{carrier.id}.posts.joint_n",
        where=carrier.name,
        why=f"Up to {say_force(most, units)} at the probed speed pull or press along the tube; what holds "
        "there nobody has said.",
        remedy="Type what the connector holds along the tube by its maker.",
        quantity="along",
        value=most,
        unit="N",
    )
