"""The shop's catalogue: panel models and everything else, with price and stock, shared by all jobs."""

from __future__ import annotations

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import NotFound, TooLarge
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.job.workshop import ShopItem
from fahrtwind.core.records import dataclass
from fahrtwind.store.reservations import Kept, kept_of_all
from fahrtwind.store.tables import ShopItemRow, ShopPanelRow

MOST_MODELS, MOST_ITEMS = 1000, 2000


@dataclass(frozen=True, slots=True)
class OnShelf:
    """An item of the shop, who keeps some of it, and what of its stock is free."""

    item: ShopItem
    kept: tuple[Kept, ...]
    free: float


class Shop:
    """All reading and writing of the catalogue.

    Args:
        engine: from ``open_database``.
    """

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def panels(self) -> list[PanelModel]:
        with Session(self._engine) as session:
            rows = session.scalars(select(ShopPanelRow).order_by(ShopPanelRow.name)).all()
        return [PanelModel.model_validate_json(row.document) for row in rows]

    def put(self, models: list[PanelModel]) -> None:
        """Take models in; one of the same name is replaced. Jobs that use the old one keep their copy."""
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            for model in models:
                session.merge(
                    ShopPanelRow(name=model.name, document=model.model_dump_json(exclude_none=True))
                )
            session.flush()
            if len(session.scalars(select(ShopPanelRow.name)).all()) > MOST_MODELS:
                raise TooLarge(
                    f"The shop would have more than {MOST_MODELS} models.",
                    remedy="Remove models first.",
                    field="models",
                )

    def remove(self, name: str) -> None:
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(ShopPanelRow, name)
            if row is None:
                raise NotFound(f"The shop has no model {name}.", remedy="Reload the list.", field="name")
            session.delete(row)

    def items(self) -> list[OnShelf]:
        with Session(self._engine) as session:
            rows = session.scalars(select(ShopItemRow).order_by(ShopItemRow.name)).all()
            kept = kept_of_all(session)
        items = [ShopItem.model_validate_json(row.document) for row in rows]
        return [_on_shelf(item, tuple(kept.get(item.name, ()))) for item in items]

    def put_items(self, items: list[ShopItem]) -> None:
        """Take items in; one of the same name is replaced. Jobs that use the old one keep their copy."""
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            for item in items:
                session.merge(ShopItemRow(name=item.name, document=item.model_dump_json(exclude_none=True)))
            session.flush()
            if len(session.scalars(select(ShopItemRow.name)).all()) > MOST_ITEMS:
                raise TooLarge(
                    f"The shop would have more than {MOST_ITEMS} items.",
                    remedy="Remove what is not used any more first.",
                    field="items",
                )

    def remove_item(self, name: str) -> None:
        with Session(self._engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(ShopItemRow, name)
            if row is None:
                raise NotFound(f"The shop has no {name}.", remedy="Reload the list.", field="name")
            session.delete(row)


def _on_shelf(item: ShopItem, kept: tuple[Kept, ...]) -> OnShelf:
    return OnShelf(item, kept, max(0.0, item.stock - sum(k.amount for k in kept)))
