"""Routes of the shop's catalogue."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Depends, Path, Request, Response
from pydantic import BaseModel, Field

from fahrtwind.api.errors import ERROR_RESPONSES
from fahrtwind.api.jobs import Store
from fahrtwind.api.schemas import Request as Strict
from fahrtwind.core.job.catalogue import controllers, sheet_of
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.job.wiring import Controller
from fahrtwind.core.job.workshop import ShopItem
from fahrtwind.files.items_csv import write_items
from fahrtwind.files.panel_csv import write_panels
from fahrtwind.store.shop import OnShelf, Shop

router = APIRouter(prefix="/api/shop", tags=["shop"], responses=ERROR_RESPONSES)


def shop_of(request: Request) -> Shop:
    shop: Shop = request.app.state.shop
    return shop


TheShop = Annotated[Shop, Depends(shop_of)]


class PanelsIn(Strict):
    models: Annotated[list[PanelModel], Field(min_length=1, max_length=400)]


class ItemsIn(Strict):
    items: Annotated[list[ShopItem], Field(min_length=1, max_length=2000)]


@router.get("/panels")
def list_panels(shop: TheShop) -> list[PanelModel]:
    return shop.panels()


@router.post("/panels")
def take_panels(given: PanelsIn, shop: TheShop) -> list[PanelModel]:
    """Take models into the shop; one of the same name is replaced. Jobs keep the copy they have."""
    shop.put(given.models)
    return shop.panels()


@router.delete("/panels/{name:path}", status_code=204, response_class=Response)
def remove_panel(name: Annotated[str, Path(max_length=80)], shop: TheShop) -> Response:
    shop.remove(name)
    return Response(status_code=204)


class OfferedController(BaseModel):
    """A charge controller to take over, and which job it was planned for; blank: of the catalogue."""

    controller: Controller
    job: str


@router.get("/controllers")
def list_controllers(store: Store) -> list[OfferedController]:
    """Those that jobs of this shop were planned with, what was changed last first, then the catalogue's."""
    used = [(c, line.name) for line, wiring in store.part_of_all("wiring") for c in wiring.controllers]
    offered: dict[tuple[object, ...], OfferedController] = {}
    for controller, name in (*used, *((c, "") for c in controllers())):
        offered.setdefault(sheet_of(controller), OfferedController(controller=controller, job=name))
    return list(offered.values())


@router.get("/panels.csv", response_class=Response)
def panels_csv(shop: TheShop) -> Response:
    return Response(
        write_panels(shop.panels()),
        media_type="text/csv",
        headers={"content-disposition": 'attachment; filename="panels.csv"'},
    )


@router.get("/items", response_model=list[OnShelf])
def list_items(shop: TheShop) -> list[OnShelf]:
    """Everything in the shop, with what jobs keep of it."""
    return shop.items()


@router.post("/items", response_model=list[OnShelf])
def take_items(given: ItemsIn, shop: TheShop) -> list[OnShelf]:
    """Take items into the shop; one of the same name is replaced. Jobs keep the copy they have."""
    shop.put_items(given.items)
    return shop.items()


@router.delete("/items/{name:path}", status_code=204, response_class=Response)
def remove_item(name: Annotated[str, Path(max_length=80)], shop: TheShop) -> Response:
    shop.remove_item(name)
    return Response(status_code=204)


@router.get("/items.csv", response_class=Response)
def items_csv(shop: TheShop) -> Response:
    return Response(
        write_items([shelf.item for shelf in shop.items()]),
        media_type="text/csv",
        headers={"content-disposition": 'attachment; filename="shop.csv"'},
    )
