"""Readings of a formula as it is typed, and recipes as they are pasted."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond, told_with
from rosy_kettle.api.schemas.evaluations import EvaluationAnswer, EvaluationTold, StageQuery
from rosy_kettle.api.schemas.formulas import RecipeAnswer, RecipeLine, RecipeText
from rosy_kettle.api.studio import current_studio
from rosy_kettle.files import FormulaFile
from rosy_kettle.usecases.formulas.guess_method import guess_method
from rosy_kettle.usecases.formulas.judge_formula import judge_formula
from rosy_kettle.usecases.formulas.parse_recipe import formula_of, parse_recipe
from rosy_kettle.usecases.studio.studio_tables import current_tables, learned_synonyms, studio_tables

__all__ = ["blueprint"]

blueprint = part("evaluations", __name__, refusals=(422,))


@blueprint.post("/evaluations", summary="All readings of a formula, stored or not", responses={200: EvaluationAnswer})
def evaluate(query: StageQuery, body: FormulaFile) -> Response:
    told = judge_formula(body, current_tables(current_studio()), query.stage)
    return respond(told_with(EvaluationTold, told, body))


@blueprint.post("/recipe-readings", summary="Read pasted recipe text", responses={200: RecipeAnswer})
def read_recipe(body: RecipeText) -> Response:
    with current_studio().reading() as session:
        tables, learned = studio_tables(session), learned_synonyms(session)
    first = parse_recipe(body.text, tables, learned)
    recipes = [first, *first.others]
    recipe = recipes[min(body.which, len(recipes) - 1)]
    lines = [
        RecipeLine(
            text=line.text, ingredient=line.ingredient, amount=line.amount, unit=line.unit, phase=line.phase,
            notes=list(line.notes), suggestions=list(line.suggestions), portion=line.portion,
            unknown_name=line.unknown_name,
        )
        for line in recipe.lines
    ]  # fmt: skip
    method = guess_method(formula_of(recipe), tables)
    return respond(RecipeAnswer(
        name=recipe.name, method=method, lines=lines, aside=list(recipe.aside), pieces=recipe.pieces,
        recipes=[each.name for each in recipes],
    ))  # fmt: skip
