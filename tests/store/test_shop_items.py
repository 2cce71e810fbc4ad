"""The shop's shelf: shared, with what jobs keep of it; no two jobs count the same bar."""

from __future__ import annotations

from pathlib import Path

import pytest

from fahrtwind.core.edits import AddEntry, SetValue
from fahrtwind.core.errors import InputError, NotFound
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.workshop import ShopItem
from fahrtwind.store.database import open_database
from fahrtwind.store.jobs import Change, JobStore
from fahrtwind.store.shop import Shop

TUBE = ShopItem(name="tube 40", kind="section", unit="bar", stock=5, price=38.5)


@pytest.fixture
def shelf(tmp_path: Path) -> tuple[Shop, JobStore]:
    engine = open_database(tmp_path / "a.db")
    shop = Shop(engine)
    shop.put_items([TUBE])
    return shop, JobStore(engine)


def keep(store: JobStore, job: str, amount: float, name: str = "tube 40") -> None:
    """Copy the item into a job, so much of it kept."""
    stored = store.get(job)
    value = {"name": name, "serves": "bars", "reserved": amount}
    edit = AddEntry(path="workshop.items", value=value)
    store.edit(job, Change(stored.revision, "me", f"keep {job} {amount}"), [edit])


def test_what_one_job_keeps_is_not_free_for_another(shelf: tuple[Shop, JobStore]) -> None:
    shop, store = shelf
    one, other = (store.create(Job(name=name), "me").id for name in ("One", "Other"))
    keep(store, one, 3)
    (line,) = shop.items()
    assert line.free == 2 and [(k.name, k.amount) for k in line.kept] == [("One", 3)]
    with pytest.raises(InputError, match=r"2 are free; 3 are wanted and One keeps") as refused:
        keep(store, other, 3)
    assert refused.value.field == "workshop.items" and store.get(other).revision == 1, "nothing was stored"
    keep(store, other, 2)
    assert shop.items()[0].free == 0


def test_bars_kept_for_a_cut_list_count_as_well(shelf: tuple[Shop, JobStore]) -> None:
    shop, store = shelf
    one, other = (store.create(Job(name=name), "me").id for name in ("One", "Other"))
    bar = {"material": "tube", "length": "6 m", "have": 4, "item": "tube 40"}
    store.edit(one, Change(1, "me", "a"), [AddEntry(path="workshop.stock", value=bar)])
    assert shop.items()[0].free == 1
    with pytest.raises(InputError, match="1 are free"):
        keep(store, other, 2)


def test_what_was_kept_stays_kept_when_the_stock_shrinks(shelf: tuple[Shop, JobStore]) -> None:
    """The shop lost three bars: the job may still be edited, and keep less, but not more."""
    shop, store = shelf
    one = store.create(Job(name="One"), "me").id
    keep(store, one, 4)
    shop.put_items([TUBE.model_copy(update={"stock": 1.0})])
    store.edit(one, Change(2, "me", "b"), [SetValue(path="name", value="Still One")])
    (line,) = shop.items()
    assert line.free == 0 and line.kept[0].name == "Still One"
    entry = store.get(one).job.workshop.items[0].id
    with pytest.raises(InputError):
        store.edit(one, Change(3, "me", "c"), [SetValue(path=f"workshop.items.{entry}.reserved", value=5)])
    store.edit(one, Change(3, "me", "d"), [SetValue(path=f"workshop.items.{entry}.reserved", value=1)])


def test_a_removed_job_keeps_nothing_and_a_job_keeps_its_copy(shelf: tuple[Shop, JobStore]) -> None:
    shop, store = shelf
    one = store.create(Job(name="One"), "me").id
    keep(store, one, 3)
    shop.put_items([TUBE.model_copy(update={"price": 99.0})])
    assert store.get(one).job.workshop.items[0].price is None, "the copy it was planned with"
    store.remove(one)
    assert shop.items()[0].free == 5
    shop.remove_item("tube 40")
    with pytest.raises(NotFound):
        shop.remove_item("tube 40")
