"""The shop's catalogue: panel models with price and stock, shared by all jobs."""

from __future__ import annotations

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

from fahrtwind.core.errors import NotFound, TooLarge
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.store.tables import ShopPanelRow

MOST_MODELS = 1000


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
