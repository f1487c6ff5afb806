"""The invented demo studio: put in on first start, restored on demand."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from decimal import Decimal
from importlib.resources import files
from pathlib import Path
from tempfile import TemporaryDirectory

from rosy_kettle.core.records import REFERENCE_CURRENCY, OwnTool
from rosy_kettle.files.formula_file import formula_file_from_data
from rosy_kettle.store import Studio, data_folder, open_studio
from rosy_kettle.store.acknowledged import mark_as_it_stands, unmark
from rosy_kettle.store.copies import copy_aside, replace_file
from rosy_kettle.store.formulas import has_formulas
from rosy_kettle.store.ingredients import OwnIngredientRow, learn_synonym, set_price
from rosy_kettle.store.lock import StudioLock
from rosy_kettle.store.photos import settle_waiting_photos
from rosy_kettle.store.session import FILE_NAME, made_folder
from rosy_kettle.usecases.formulas.check_formula import check_formula
from rosy_kettle.usecases.formulas.save_formula import store_new_formula
from rosy_kettle.usecases.learning.keep_observations import keep_observations
from rosy_kettle.usecases.studio.season.seed_season import seed_season
from rosy_kettle.usecases.studio.season.seed_tests import seed_season_tests
from rosy_kettle.usecases.studio.season.seed_trade import seed_trade
from rosy_kettle.usecases.studio.seed_batches import seed_batches
from rosy_kettle.usecases.studio.seed_rack import seed_rack
from rosy_kettle.usecases.studio.seed_store import seed_store
from rosy_kettle.usecases.studio.seed_tub import seed_tub
from rosy_kettle.usecases.studio.studio_settings import StudioSettings, change_settings
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["reset_demo", "seed_demo"]

DEMO = files("rosy_kettle.demo")


def seed_demo(studio: Studio) -> bool:
    """Fill a studio that has no formula with the demo data; return whether it did."""
    with studio.writing() as session:
        if has_formulas(session):
            return False
        data = json.loads((DEMO / "studio.json").read_text(encoding="utf-8"))
        for own in data["ingredients"]:
            session.merge(OwnIngredientRow(**own))
        for ingredient_id, price in data["price_per_kg"].items():
            set_price(session, ingredient_id, Decimal(price), REFERENCE_CURRENCY)
        for phrase, ingredient_id in data["synonyms"].items():
            learn_synonym(session, phrase, ingredient_id)
        change_settings(session, StudioSettings(
            maker=data["studio"]["name"], place=data["studio"]["address"], contact=data["studio"]["contact"],
            markets=("US", "EU"), tools=(OwnTool("own-ferry-tin", "Ferry tin, well dented", "scoop", 52.0),),
            stand_ins=True,
        ))  # fmt: skip
        session.flush()
        tables = studio_tables(session)
        for formula in reversed(data["formulas"]):
            store_new_formula(session, check_formula(formula_file_from_data(formula), tables), tables)
        seed_store(session, datetime.now(UTC))
        session.flush()
        seed_season(session, datetime.now(UTC))
        seed_trade(session)
        seed_batches(session)
        seed_rack(session, tables)
        seed_season_tests(session, datetime.now(UTC))
        seed_tub(session)
    keep_observations(studio)
    return True


def reset_demo(folder: Path | None = None) -> Path | None:
    """Restore the demo studio; a verified copy of the former one is kept beside it and its path returned.

    Raises
    ------
    InputError
        If the studio is being served, or the copy cannot be made; then nothing has changed.
    """
    place = made_folder(folder or data_folder())
    path = place / FILE_NAME
    lock = StudioLock(place, alone=True)
    try:
        kept = None
        if path.exists() and path.stat().st_size:
            settle_waiting_photos(path)
            kept = copy_aside(path, "kept")
        with TemporaryDirectory(prefix=".reset-", dir=place) as fresh:
            studio = open_studio(Path(fresh))
            seed_demo(studio)
            studio.close()
            unmark(path)
            replace_file(studio.path, path)
            mark_as_it_stands(path)
    finally:
        lock.release()
    return kept
