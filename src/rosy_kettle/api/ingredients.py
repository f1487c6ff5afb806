"""The Pantry: ingredients, prices, learned names, own ingredients."""

from __future__ import annotations

from collections.abc import Callable

from flask import Response
from sqlalchemy.orm import Session

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import StockSave
from rosy_kettle.api.schemas.ingredients import (
    IngredientAnswer,
    IngredientList,
    IngredientPath,
    IngredientSummary,
    OwnIngredientSave,
    PriceSave,
    SynonymPath,
    SynonymSave,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.core.records import Ingredient, certificate_from_data
from rosy_kettle.files.product_file import CertificateFile
from rosy_kettle.store.ingredients import delete_price, delete_synonym
from rosy_kettle.usecases.pantry.read_pantry import (
    Pantry,
    band_of,
    certificate_file,
    enter_certificate,
    enter_price,
    enter_stock,
    forget_own_ingredient,
    learn_name,
    price_of,
    property_views,
    read_pantry,
    save_own_ingredient,
)

__all__ = ["blueprint"]

blueprint = part("ingredients", __name__, "/api/ingredients", (404, 409, 422))


def _answer(pantry: Pantry, ingredient_id: str) -> IngredientAnswer:
    item = pantry.tables.ingredients.get(ingredient_id)
    if item is None:
        raise NotFoundError(f'There is no ingredient "{ingredient_id[:60]}".', noun="ingredient", id=ingredient_id)
    price, basis = price_of(item, pantry.tables)
    band = band_of(item, pantry.tables.prices)
    return IngredientAnswer(
        id=item.id, name=item.name, short_name=item.short_name, inci=item.inci, role=item.role, note=item.note,
        own=item.based_on is not None, based_on=item.based_on, price_per_kg=price, price_basis=basis,
        price_band=None if band is None else [f"{end:.2f}" for end in band], currency=pantry.tables.prices.currency,
        price_note=pantry.tables.prices.unsaid.get(item.id, "") or pantry.tables.prices.note,
        price_breaks=[[str(each.from_kg), str(each.price_per_kg)] for each in pantry.tables.prices.breaks.get(item.id, ())],
        properties=property_views(item), learned=pantry.learned.get(item.id, []), synonyms=pantry.synonyms.get(item.id, []),
        certificate=certificate_file(pantry.tables, item.id), on_hand_g=pantry.on_hand_g.get(item.id),
    )  # fmt: skip


def _changed(ingredient_id: str, change: Callable[[Session], None], status: int = 200) -> Response:
    """Make a change and answer with the ingredient as it is after it."""
    with current_studio().writing() as session:
        change(session)
        session.flush()
        answer = _answer(read_pantry(session), ingredient_id)
    return respond(answer, status)


def _summary(pantry: Pantry, item: Ingredient) -> IngredientSummary:
    price, basis = price_of(item, pantry.tables)
    names = [*pantry.synonyms.get(item.id, []), *pantry.learned.get(item.id, [])]
    return IngredientSummary(
        id=item.id, name=item.name, short_name=item.short_name, inci=item.inci, role=item.role, form=item.form,
        phase=item.phase_default, own=item.based_on is not None, price_per_kg=price, price_basis=basis,
        confidence=item.confidence, synonyms=names, certificate=certificate_file(pantry.tables, item.id),
    )  # fmt: skip


@blueprint.get("", summary="All ingredients, the studio's own first", responses={200: IngredientList})
def list_() -> Response:
    with current_studio().reading() as session:
        pantry = read_pantry(session)
    items = sorted(pantry.tables.ingredients.values(), key=lambda item: (item.based_on is None,))
    return respond(IngredientList(ingredients=[_summary(pantry, item) for item in items]))


@blueprint.get("/<string:ingredient_id>", summary="One ingredient with its sources", responses={200: IngredientAnswer})
def read(path: IngredientPath) -> Response:
    with current_studio().reading() as session:
        return respond(_answer(read_pantry(session), path.ingredient_id))


@blueprint.post("", summary="Make an own ingredient from the nearest one", responses={201: IngredientAnswer})
def create(body: OwnIngredientSave) -> Response:
    with current_studio().writing() as session:
        new_id = save_own_ingredient(session, None, body.based_on, body.name, body.inci, body.note, body.properties)
        answer = _answer(read_pantry(session), new_id)
    return respond(answer, 201)


@blueprint.put("/<string:ingredient_id>", summary="Change an own ingredient", responses={200: IngredientAnswer})
def save(path: IngredientPath, body: OwnIngredientSave) -> Response:
    with current_studio().writing() as session:
        save_own_ingredient(session, path.ingredient_id, body.based_on, body.name, body.inci, body.note, body.properties)
        answer = _answer(read_pantry(session), path.ingredient_id)
    return respond(answer)


@blueprint.delete("/<string:ingredient_id>", summary="Remove an own ingredient", responses={204: None})
def delete(path: IngredientPath) -> Response:
    with current_studio().writing() as session:
        forget_own_ingredient(session, path.ingredient_id)
    return Response(status=204)


@blueprint.put("/<string:ingredient_id>/price", summary="Enter the studio's price", responses={200: IngredientAnswer})
def set_price(path: IngredientPath, body: PriceSave) -> Response:
    breaks = [(each.from_kg, each.price_per_kg) for each in body.breaks]
    return _changed(path.ingredient_id, lambda session: enter_price(session, path.ingredient_id, body.price_per_kg, breaks))


@blueprint.delete("/<string:ingredient_id>/price", summary="Go back to the reference band", responses={200: IngredientAnswer})
def clear_price(path: IngredientPath) -> Response:
    return _changed(path.ingredient_id, lambda session: delete_price(session, path.ingredient_id))


@blueprint.put("/<string:ingredient_id>/stock", summary="Say what is on hand", responses={200: IngredientAnswer})
def put_stock(path: IngredientPath, body: StockSave) -> Response:
    return _changed(path.ingredient_id, lambda session: enter_stock(session, path.ingredient_id, body.on_hand_g))


@blueprint.put(
    "/<string:ingredient_id>/certificate", summary="Enter a scent's certificate; an empty one takes it away",
    responses={200: IngredientAnswer},
)  # fmt: skip
def set_certificate(path: IngredientPath, body: CertificateFile) -> Response:
    paper = certificate_from_data(body.model_dump())
    return _changed(path.ingredient_id, lambda session: enter_certificate(session, path.ingredient_id, paper))


@blueprint.post("/<string:ingredient_id>/synonyms", summary="Teach the reader a name", responses={201: IngredientAnswer})
def add_synonym(path: IngredientPath, body: SynonymSave) -> Response:
    return _changed(path.ingredient_id, lambda session: learn_name(session, path.ingredient_id, body.phrase), 201)


@blueprint.delete(
    "/<string:ingredient_id>/synonyms/<string:phrase>", summary="Forget a learned name", responses={200: IngredientAnswer}
)
def remove_synonym(path: SynonymPath) -> Response:
    return _changed(path.ingredient_id, lambda session: delete_synonym(session, path.phrase))
