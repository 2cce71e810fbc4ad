import pytest

from fahrtwind.core.edits import AddEntry, PlacePanel, RemoveEntry, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.errors import (
    FahrtwindError,
    InputError,
    NewerFile,
    OutOfRange,
    UnknownPath,
    UnreadableFile,
    UnreadableQuantity,
)
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.demo import demo_jobs


def test_a_typed_quantity_is_stored_in_si_with_its_text(demo: Job) -> None:
    job = apply_edits(demo, [SetValue(path="vehicle.roof_length", value="27' 6\"")])
    assert job.vehicle.roof_length is not None
    assert job.vehicle.roof_length.mm == pytest.approx(27.5 * 304.8)
    assert job.vehicle.roof_length.text == "27' 6\""


def test_changing_the_units_leaves_what_was_measured(demo: Job) -> None:
    job = apply_edits(
        demo, [SetValue(path="panels.p1.x", value="250"), SetValue(path="units", value="imperial")]
    )
    again = load_job(job.model_dump(mode="json"))
    assert again.panels[0].x.mm == 250 and again.panels[0].x.text == "250 mm"


@pytest.mark.parametrize(
    ("path", "value", "error"),
    [
        ("vehicle.roof_length", "400 m", OutOfRange),
        ("vehicle.roof_length", "-3 m", OutOfRange),
        ("vehicle.roof_length", "0", OutOfRange),
        ("vehicle.roof_length", "NaN", InputError),
        ("vehicle.top_speed", "5 kg", InputError),
        ("vehicle.kind", "spaceship", InputError),
        ("panels.p1.x", {"mm": float("inf")}, InputError),
        ("panels.p1.hold.count", 99, OutOfRange),
        ("panels.p9.x", "1 m", UnknownPath),
        ("nonsense.path", 1, UnknownPath),
        ("name", "", InputError),
        ("panels.p1.hold", {"school": "magic"}, InputError),
        ("panels.p1.model.width", "2.9 m", InputError),
        ("panels.p1.feet.f2.along", "far", InputError),
    ],
)
def test_bad_values_name_field_and_remedy_and_change_nothing(
    demo: Job, path: str, value: object, error: type[FahrtwindError]
) -> None:
    before = demo.model_dump_json()
    with pytest.raises(error) as caught:
        apply_edits(demo, [SetValue(path="name", value="changed"), SetValue(path=path, value=value)])
    assert caught.value.remedy
    assert caught.value.field.split(".")[0] == path.split(".")[0]
    assert demo.model_dump_json() == before


def test_plain_numbers_may_be_typed_like_quantities() -> None:
    """Set, in a new entry, in what an entry holds; whole numbers stay whole, and texts stay texts."""
    rack = next(job for job in demo_jobs() if job.name == "Speiche")
    cut = rack.workshop.stock[0]
    price, bar = f"workshop.stock.{cut.id}.price", {"material": cut.material, "length": "3 m"}
    edited = apply_edits(
        rack,
        [
            SetValue(path=price, value="39,90"),
            AddEntry(path="workshop.stock", value={**bar, "price": "12,5", "have": "2"}),
            SetValue(path="assumptions.bump_g", value="1,5"),
            SetValue(path="name", value="12,5"),
            SetValue(path="panels.p1.model", value={**rack.panels[0].model.model_dump(), "price": "149,99"}),
        ],
    )
    new = edited.workshop.stock[-1]
    assert (edited.workshop.stock[0].price, new.price, new.have) == (39.9, 12.5, 2)
    assert (edited.assumptions.bump_g, edited.name, edited.panels[0].model.price) == (1.5, "12,5", 149.99)
    for typed, edit in (
        ("abc", SetValue(path=price, value="abc")),
        ("1.234,5", AddEntry(path="workshop.stock", value={**bar, "id": cut.id, "price": "1.234,5"})),
    ):
        with pytest.raises(UnreadableQuantity, match=f"{typed}” is not a number") as caught:
            apply_edits(rack, [edit])
        assert caught.value.field == price and "38.50" in caught.value.remedy
    anew = [{**bar, "id": "x9", "price": "7,25"}]
    assert apply_edits(rack, [SetValue(path="workshop.stock", value=anew)]).workshop.stock[0].price == 7.25
    with pytest.raises(InputError, match="not a whole number"):
        apply_edits(rack, [AddEntry(path="workshop.stock", value={**bar, "have": "2,5"})])


def test_entries_come_and_go_by_id(demo: Job) -> None:
    job = apply_edits(
        demo,
        [
            AddEntry(path="readings", value={"x": "4240 mm", "kind": "magnet"}),
            RemoveEntry(path="obstacles.o4"),
        ],
    )
    assert job.readings[-1].id == f"r{len(demo.readings) + 1}"
    assert [o.id for o in job.obstacles] == ["o1", "o2", "o3"]


def test_a_new_panel_lands_on_free_roof_with_feet(demo: Job) -> None:
    bare = load_job({**demo.model_dump(), "panels": []})
    job = apply_edits(
        bare,
        [PlacePanel(model="Kiesel 185"), PlacePanel(model="Kiesel 185"), SpreadFeet(panel="p2", count=8)],
    )
    from fahrtwind.core.stations.layout.distances import overlaps

    assert overlaps(job) == ()
    assert [len(p.feet) for p in job.panels] == [6, 8]
    with pytest.raises(InputError):
        apply_edits(bare, [PlacePanel(model="no such panel")])


def test_documents_of_other_versions(demo: Job) -> None:
    data = demo.model_dump(mode="json")
    assert load_job(data) == demo
    with pytest.raises(NewerFile):
        load_job({**data, "schema_version": 99})
    first = {k: v for k, v in data.items() if k not in ("survey", "mounting", "scans")}
    assert load_job({**first, "schema_version": 1}).panels == demo.panels, (
        "a job of the first version is still readable"
    )
    for broken in ([], {}, {"schema_version": "1"}):
        with pytest.raises(UnreadableFile):
            load_job(broken)
    with pytest.raises(InputError):
        load_job({**data, "surprise": 1})
