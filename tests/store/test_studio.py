"""The studio file: written safely, read back whole."""

from __future__ import annotations

import shutil
import sqlite3
import threading
from decimal import Decimal
from pathlib import Path

import pytest
from sqlalchemy import text

from rosy_kettle.core.errors import ConflictError, InputError, NotFoundError
from rosy_kettle.core.records import Certificate, Formula, Line, Making, Piece, Portion, Product, Room
from rosy_kettle.store import Studio, data_folder, open_studio
from rosy_kettle.store.formulas import (
    add_formula,
    delete_formula,
    find_formula,
    keep_version,
    list_formulas,
    record_of,
    restore_formula,
    save_formula,
)
from rosy_kettle.store.ingredients import list_prices, set_price
from rosy_kettle.usecases.profiles.read_profiles import read_profiles
from rosy_kettle.usecases.studio.seed_demo import reset_demo
from tests.conftest import make_formula

RICH = Formula(
    "Rich",
    (
        Portion(
            "body", (Line("baking-soda", "2/3", "cup", locked=True, max_g=300.0), Line(None, "1", "tsp", text="?", notes=("n",)))
        ),
        Portion("drizzle", (Line("cocoa-butter", "20", "g"),), mass_g=30.0, split="wet"),
    ),
    method="butter-dough",
    piece=Piece(mass_g=60),
    room=Room(18, 70),
    product=Product(
        markets=("EU",), certificates={"fragrance-oil-generic": Certificate(limit_pct=5, allergens={"Linalool": 2.0})}
    ),
    making=Making(packaging_per_piece=Decimal("0.12")),
)


def test_a_formula_comes_back_as_it_was_stored(studio: Studio) -> None:
    with studio.writing() as session:
        row = add_formula(session, RICH, {0: 147.2, 2: 20.0})
    with studio.reading() as session:
        stored = find_formula(session, row.id)
        assert record_of(stored) == RICH
        assert [line.grams for portion in stored.working.portions for line in portion.lines] == [147.2, None, 20.0]


def test_the_pragmas_are_on_for_every_connection(studio: Studio) -> None:
    with studio.reading() as session:
        values = {
            name: session.execute(text(f"PRAGMA {name}")).scalar()
            for name in ("journal_mode", "foreign_keys", "busy_timeout", "synchronous")
        }
    assert values == {"journal_mode": "wal", "foreign_keys": 1, "busy_timeout": 10000, "synchronous": 2}


def test_saving_counts_revisions_and_refuses_an_old_one(studio: Studio) -> None:
    with studio.writing() as session:
        row = add_formula(session, make_formula(baking_soda=1), {})
    with studio.writing() as session:
        assert save_formula(session, row.id, 1, make_formula(baking_soda=2), {}).revision == 2
    with pytest.raises(ConflictError, match="another tab"), studio.writing() as session:
        save_formula(session, row.id, 1, make_formula(baking_soda=3), {})
    with studio.reading() as session:
        assert record_of(find_formula(session, row.id)).lines[0].amount == "2"


def test_a_kept_version_stays_and_the_next_save_starts_a_new_one(studio: Studio) -> None:
    with studio.writing() as session:
        row = add_formula(session, make_formula(baking_soda=1), {})
        keep_version(session, row.id, "first try")
        with pytest.raises(ConflictError, match="Nothing has changed"):
            keep_version(session, row.id, "again")
        save_formula(session, row.id, 1, make_formula(baking_soda=2), {})
    with studio.reading() as session:
        versions = find_formula(session, row.id).versions
        assert [(v.number, v.note, v.frozen_at is not None) for v in versions] == [(1, "first try", True), (2, "", False)]
        assert [record_of(versions[0].formula, v).lines[0].amount for v in versions] == ["1", "2"]


def test_a_formula_put_aside_can_be_brought_back(studio: Studio) -> None:
    with studio.writing() as session:
        row = add_formula(session, make_formula(baking_soda=1), {})
        delete_formula(session, row.id)
    with studio.reading() as session:
        assert list_formulas(session) == []
        with pytest.raises(NotFoundError):
            find_formula(session, row.id)
    with studio.writing() as session:
        restore_formula(session, row.id)
    with studio.reading() as session:
        assert [each.id for each in list_formulas(session)] == [row.id]


def test_a_failed_write_leaves_nothing_behind(studio: Studio) -> None:
    with pytest.raises(RuntimeError), studio.writing() as session:
        add_formula(session, make_formula(baking_soda=1), {})
        raise RuntimeError
    with studio.reading() as session:
        assert list_formulas(session) == []


def test_four_writers_at_once_all_get_through(studio: Studio) -> None:
    with studio.writing() as session:
        row = add_formula(session, make_formula(baking_soda=1), {})
    failures: list[Exception] = []

    def bump() -> None:
        try:
            for _ in range(10):
                with studio.writing() as session:
                    revision = find_formula(session, row.id).revision
                    save_formula(session, row.id, revision, make_formula(baking_soda=2), {})
        except Exception as error:  # noqa: BLE001 - a thread's failure must reach the test
            failures.append(error)

    threads = [threading.Thread(target=bump) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failures == []
    with studio.reading() as session:
        assert find_formula(session, row.id).revision == 41


def test_money_comes_back_to_the_cent(studio: Studio) -> None:
    with studio.writing() as session:
        set_price(session, "kaolin", Decimal("12.10"), "USD")
    with studio.reading() as session:
        assert [(row.ingredient_id, row.price_per_kg) for row in list_prices(session)] == [("kaolin", Decimal("12.10"))]


def test_times_come_back_in_utc(studio: Studio) -> None:
    with studio.writing() as session:
        row = add_formula(session, make_formula(baking_soda=1), {})
    with studio.reading() as session:
        offset = find_formula(session, row.id).created_at.utcoffset()
    assert offset is not None
    assert offset.total_seconds() == 0


def test_opening_again_keeps_everything_and_copies_nothing(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    first = open_studio(tmp_path)
    first.close()
    second = open_studio(tmp_path)
    with second.reading() as session:
        assert len(list_formulas(session)) >= 8
    second.close()
    assert [path.name for path in tmp_path.glob("*.sqlite3")] == ["studio.sqlite3"]


def test_a_file_of_an_unknown_version_is_refused_and_left_alone(tmp_path: Path) -> None:
    open_studio(tmp_path).close()
    with sqlite3.connect(tmp_path / "studio.sqlite3") as older:
        older.executescript("DROP TABLE ingredient_synonyms; DROP TABLE ingredient_prices; DROP TABLE own_ingredients; DROP TABLE lines;"
                            "DROP TABLE portions; DROP TABLE versions; DROP TABLE formulas; UPDATE alembic_version SET version_num='0000';")  # fmt: skip
    older.close()
    before = (tmp_path / "studio.sqlite3").read_bytes()
    with pytest.raises(InputError, match="newer Rosy Kettle"):
        open_studio(tmp_path)
    assert (tmp_path / "studio.sqlite3").read_bytes() == before


TABLES_OF_THE_FIRST = {
    "alembic_version", "formulas", "versions", "portions", "lines", "own_ingredients", "ingredient_prices",
    "ingredient_synonyms",
}  # fmt: skip


def test_a_studio_of_the_first_version_is_migrated_and_keeps_its_formulas(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    first = open_studio(tmp_path)
    first.close()
    with sqlite3.connect(tmp_path / "studio.sqlite3") as older:
        later = {name for (name,) in older.execute("SELECT name FROM sqlite_master WHERE type='table'")} - TABLES_OF_THE_FIRST
        own = sorted(name for name in later if not name.startswith("journal_words_"))  # FTS5 drops its parts itself
        undone = [
            *(f"DROP TABLE {name}" for name in own),
            "DROP INDEX ix_formulas_updated_at",
            "ALTER TABLE ingredient_prices DROP COLUMN breaks",
        ]
        older.executescript(";".join([*undone, "UPDATE alembic_version SET version_num='0001';"]))
    older.close()
    second = open_studio(tmp_path)
    with second.reading() as session:
        assert len(list_formulas(session)) >= 8
        assert {profile.id for profile in read_profiles(session)} >= {"big-foam", "childrens"}
    second.close()
    assert list(tmp_path.glob("studio-before-*.sqlite3"))


def test_a_file_that_is_no_studio_is_refused_in_words(tmp_path: Path) -> None:
    (tmp_path / "studio.sqlite3").write_bytes(b"this is a shopping list, not a database, and long enough to be read")
    with pytest.raises(InputError, match="is not a Rosy Kettle studio"):
        open_studio(tmp_path)


def test_the_folder_is_named_by_the_environment(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    monkeypatch.setenv("ROSY_KETTLE_DATA", str(tmp_path / "elsewhere"))
    assert data_folder() == tmp_path / "elsewhere"
    monkeypatch.delenv("ROSY_KETTLE_DATA")
    assert "rosy-kettle" in str(data_folder())


def test_demo_reset_keeps_the_former_studio(tmp_path: Path) -> None:
    studio = open_studio(tmp_path)
    with studio.writing() as session:
        add_formula(session, make_formula(baking_soda=1), {})
    studio.close()
    kept = reset_demo(tmp_path)
    assert kept is not None
    with sqlite3.connect(kept) as former:
        assert former.execute("SELECT count(*) FROM formulas").fetchone() == (1,)
    former.close()
    again = open_studio(tmp_path)
    with again.reading() as session:
        assert len(list_formulas(session)) >= 8
    again.close()
