"""The stock's API: what is there, and what somebody counted."""

from django.http import HttpRequest
from ninja import Router

from config.schemas import Problem, refusals
from shop.roles import person_of
from shop.schemas import StockIn, StockOut
from shop.stock import all_stock, set_stock

router = Router()


@router.get("", response={200: list[StockOut], 401: Problem}, operation_id="stock_list", summary="Parts that come in sizes")
def look(request: HttpRequest) -> list[StockOut]:
    """List what is there, what engines have taken, and what is free."""
    return [StockOut.model_validate(row) for row in all_stock()]


@router.put("", response={200: list[StockOut], **refusals(401, 403, 422)}, operation_id="stock_count", summary="Count a size")
def count(request: HttpRequest, payload: StockIn) -> list[StockOut]:
    """Keep how many pieces of a lot lie free on the shelf; answer with all of them."""
    set_stock(person_of(request), **payload.model_dump())
    return look(request)
