"""The ``rosy-kettle`` command."""

from __future__ import annotations

import csv
import errno
import gc
import json
import os
import sys
import tempfile
import traceback
from collections.abc import Callable
from dataclasses import asdict, fields
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.records import Ingredient, Tables
from rosy_kettle.core.records.wishes import OBJECTIVES
from rosy_kettle.core.safety.rules import STAGES
from rosy_kettle.files import formula_to_file, read_formula_json
from rosy_kettle.files.formula_file import load_json
from rosy_kettle.files.not_understood import formula_keys_left, keys_left
from rosy_kettle.reference import load_tables
from rosy_kettle.usecases.formulas.judge_formula import judge_formula
from rosy_kettle.usecases.labels import USUAL_LABEL_MM

if TYPE_CHECKING:
    from rosy_kettle.reader import ReadRecipe

__all__ = ["main"]

BAD_INPUT = 2
OUR_BUG = 1
SELDOM = 50_000  # objects made between two looks for garbage
LARGEST_READ_BYTES = 1_000_001  # a file of 1 MB and the byte that shows it is larger
FILES_BETWEEN = 1_000
DEFAULT_PORT = 8421
SQLITE_SAYS = {
    5: "The studio is busy: another program writes to it; nothing was changed, try again.",
    8: "The studio's file cannot be written; nothing was changed. Make it writable, then try again.",
    10: "", 13: "",
    14: "The studio's file cannot be opened for writing; nothing was changed. Look at its folder and at the room on the disk.",
}  # fmt: skip
"""By SQLite's result codes BUSY, READONLY, IOERR, FULL, CANTOPEN (sqlite.org/rescode.html); empty is a full disk."""
HIDDEN_COLUMNS = frozenset(
    {"sources", "acid", "base", "tempered_fat", "fresh_fat", "based_on", "wax_solubility_factor", "inci_shares", "natures"}
)


@click.group(context_settings={"help_option_names": ["-h", "--help"]})
def commands() -> None:
    """Formulate and judge solid bath products."""


@commands.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--stage", type=click.Choice(STAGES), default="formula", show_default=True, help="How far the product is.")
def evaluate(file: Path, stage: str) -> None:
    """Print every reading of a formula file as JSON."""
    tables, text = load_tables(), _read_bytes(file)
    told = judge_formula(read_formula_json(text), tables, stage)
    _print_json(asdict(told) | {"not_understood": formula_keys_left(load_json(text, "formula"))})


@commands.command("balance")
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "--target", "targets", multiple=True, required=True, help='Such as "lather.score>=60" or "dough.saturation=0.65..0.95".'
)
@click.option("--objective", type=click.Choice(OBJECTIVES), default="least-change", show_default=True)
@click.option("--lock", "locks", multiple=True, help="Ingredient id that stays as it is.")
@click.option("--free", "frees", multiple=True, help="Id of a scent, colour, preservative or decoration that may move.")
@click.option("--bound", "bounds", multiple=True, help="ID=LOW..HIGH in grams; else a quarter to four times what it is.")
@click.option(
    "--guards/--no-guards", "guarded", default=True, show_default=True, help="Keep proportion, bath pH, skin shares and dough."
)
def balance_command(
    file: Path,
    targets: tuple[str, ...],
    objective: str,
    locks: tuple[str, ...],
    frees: tuple[str, ...],
    bounds: tuple[str, ...],
    guarded: bool,
) -> None:
    """Change a formula as little as possible so that it meets the targets, and print before and after as JSON."""
    from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target  # here: the other commands start sooner
    from rosy_kettle.usecases.formulas.check_formula import check_formula  # as above

    tables, text = load_tables(), _read_bytes(file)
    formula = check_formula(read_formula_json(text), tables)
    wanted = tuple(parse_target(text) for text in targets)
    limits = dict(_bound(text) for text in bounds)
    problem = BalanceProblem(formula, wanted, objective, frozenset(locks), limits, frees=frozenset(frees), guarded=guarded)
    _print_json(asdict(balance(problem, tables)) | {"not_understood": formula_keys_left(load_json(text, "formula"))})


def _bound(text: str) -> tuple[str, tuple[float, float]]:
    name, equals, band = text.partition("=")
    low, dots, high = band.partition("..")
    try:
        ends = float(low), float(high)
    except ValueError as error:
        raise InputError(f'Bound "{text[:60]}" must be ID=LOW..HIGH in grams.', quantity="bound") from error
    if not equals or not dots or not 0 <= ends[0] <= ends[1] < float("inf"):
        raise InputError(f'Bound "{text[:60]}" must be ID=LOW..HIGH in grams, low before high.', quantity="bound")
    return name, ends


@commands.command()
def parse() -> None:
    """Read recipe text on standard input and print a formula file."""
    from rosy_kettle.usecases.formulas.parse_recipe import parse_recipe  # here: the other commands need no reader

    tables = load_tables()
    try:
        text = sys.stdin.buffer.read(LARGEST_READ_BYTES).decode("utf-8-sig", errors="strict")
    except UnicodeDecodeError as error:
        raise InputError("The text is not UTF-8; save it as UTF-8 and try again.", quantity="text") from error
    recipe = parse_recipe(text, tables)
    others = [_recipe_data(each, tables) for each in recipe.others]
    _print_json(_recipe_data(recipe, tables) | ({"others": others} if others else {}))


def _recipe_data(recipe: ReadRecipe, tables: Tables) -> dict[str, Any]:
    """Return one recipe as a formula file with what was guessed and asked; lines nobody knows keep a null ingredient."""
    from rosy_kettle.usecases.formulas.guess_method import guess_method  # here: the other commands need no reader
    from rosy_kettle.usecases.formulas.parse_recipe import formula_of, notes_of  # as above

    file = formula_to_file(formula_of(recipe, guess_method(formula_of(recipe), tables)))
    notes = notes_of(recipe)
    if recipe.lines:
        notes.append(f"Method guessed from the ingredients: {file.method}.")
    data = file.model_dump(exclude_none=True, exclude={"product", "piece", "heat"})
    for portion, read in zip(data["portions"], file.portions, strict=True):
        for line, source in zip(portion["lines"], read.lines, strict=True):
            line["ingredient"] = source.ingredient
    wished = {"piece": {"wished_pieces": recipe.pieces}} if recipe.pieces else {}
    return data | wished | {"notes": notes}


@commands.command("fit-drying")
@click.argument("file", type=click.Path(path_type=Path))
def fit_drying_command(file: Path) -> None:
    """Print when the pieces of a weigh-ins file are dry, as JSON."""
    from rosy_kettle.files.weigh_ins_file import WeighInsFile, read_weigh_ins_json  # here: the other commands start sooner
    from rosy_kettle.usecases.rack.fit_weigh_ins import fit_weigh_ins  # as above

    text = _read_bytes(file)
    told = asdict(fit_weigh_ins(read_weigh_ins_json(text), load_tables()))
    _print_json(told | {"not_understood": keys_left(WeighInsFile, load_json(text, "weigh-ins"))})


@commands.command("learn")
@click.argument("file", type=click.Path(path_type=Path))
def learn_command(file: Path) -> None:
    """Print what observations make of the defaults, as JSON."""
    from rosy_kettle.files.observations_file import (  # here: the other commands start sooner
        LARGEST_OBSERVATIONS_BYTES,
        observation_keys_left,
        read_observations_json,
    )
    from rosy_kettle.usecases.learning.learn_from_file import learn_from_file  # as above

    text = _read_bytes(file, LARGEST_OBSERVATIONS_BYTES + 1)
    told = asdict(learn_from_file(read_observations_json(text), load_tables()))
    _print_json(told | {"not_understood": observation_keys_left(load_json(text, "observations", LARGEST_OBSERVATIONS_BYTES))})


@commands.command("judge-series")
@click.argument("file", type=click.Path(path_type=Path))
def judge_series_command(file: Path) -> None:
    """Print what a series of tests says of its claim, as JSON."""
    from rosy_kettle.core.learning.series import judge_series  # here: the other commands start sooner
    from rosy_kettle.files.series_file import TestSeriesFile, read_series_json  # as above

    text = _read_bytes(file)
    series = read_series_json(text)
    told = asdict(judge_series(series.claim.claim(), series.figures()))
    _print_json(told | {"not_understood": keys_left(TestSeriesFile, load_json(text, "test series"))})


@commands.command("label")
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--market", required=True, help="US, EU or UK.")
@click.option("--width-mm", default=USUAL_LABEL_MM[0], show_default=True, type=float, help="Width of the label.")
@click.option("--height-mm", default=USUAL_LABEL_MM[1], show_default=True, type=float, help="Height of the label.")
@click.option("--pdf", "pdf_path", type=click.Path(path_type=Path), help="Write it as PDF at true size.")
@click.option("--svg", "svg_path", type=click.Path(path_type=Path), help="Write it as SVG at true size.")
def label_command(
    file: Path, market: str, width_mm: float, height_mm: float, pdf_path: Path | None, svg_path: Path | None
) -> None:
    """Print the label of a formula file for a market, as JSON."""
    from rosy_kettle.files.label_file import read_label_facts  # here: the other commands start sooner
    from rosy_kettle.papers.label import label_pdf, label_svg  # as above
    from rosy_kettle.usecases.formulas.check_formula import check_formula  # as above
    from rosy_kettle.usecases.labels.make_label import make_label  # as above

    text, tables = _read_bytes(file), load_tables()
    formula = check_formula(read_formula_json(text), tables)
    made = make_label(formula, tables, read_label_facts(text), market, width_mm, height_mm)
    title = f"{formula.name}, {market}"
    for path, data in ((pdf_path, label_pdf), (svg_path, label_svg)):
        if path is not None:
            made.refuse_too_small()
            drawn = data(made.layout, title, draft=made.draft)
            _write_bytes(path, drawn if isinstance(drawn, bytes) else drawn.encode())
    smallest = made.smallest_mm
    _print_json({
        "market": market, "texts": [asdict(each) for each in made.texts_told()],
        "missing": [asdict(each) for each in made.texts.missing], "blocks": [asdict(each) for each in made.blocks],
        "draft": made.draft, "fits": made.fits,
        "smallest": None if smallest is None else {"width_mm": smallest[0], "height_mm": smallest[1]},
        "width_mm": width_mm, "height_mm": height_mm, "not_understood": formula_keys_left(load_json(text, "formula")),
    })  # fmt: skip


@commands.command("diagnose")
@click.argument("file", type=click.Path(path_type=Path))
def diagnose_command(file: Path) -> None:
    """Print why a piece went wrong, by what is known of it, as JSON."""
    from rosy_kettle.core.clinic.diagnose import diagnose  # here: the other commands start sooner
    from rosy_kettle.files.trouble_file import read_trouble_json, trouble_keys_left  # as above
    from rosy_kettle.reference import load_troubles  # as above
    from rosy_kettle.usecases.formulas.check_formula import check_formula  # as above

    text, tables = _read_bytes(file), load_tables()
    trouble = read_trouble_json(text)
    formula_file = trouble.formula_file()
    formula = None if formula_file is None else check_formula(formula_file, tables)
    found = diagnose(trouble.symptom, formula, tables, load_troubles(), trouble.batch, trouble.answers)
    causes = [
        {
            **asdict(cause),
            "evidence": [{"for": each.supports, "what": each.what, "source": each.source} for each in cause.evidence],
        }
        for cause in found.causes
    ]
    questions = [{"id": each.id, "text": each.text, "choices": list(each.choices)} for each in found.questions]
    left = trouble_keys_left(load_json(text, "trouble"))
    _print_json({
        "symptom": trouble.symptom, "causes": causes, "questions": questions, "caution": found.caution, "not_understood": left,
    })  # fmt: skip


@commands.command()
def ingredients() -> None:
    """Print the reference table as CSV."""
    columns = [field.name for field in fields(Ingredient) if field.name not in HIDDEN_COLUMNS]
    writer = csv.writer(sys.stdout, lineterminator="\n")
    writer.writerow(columns)
    for item in load_tables().ingredients.values():
        writer.writerow(["" if (value := getattr(item, column)) is None else value for column in columns])


@commands.command()
@click.option("--host", default="127.0.0.1", show_default=True)
@click.option("--port", default=DEFAULT_PORT, show_default=True, type=click.IntRange(0, 65535))
@click.option("--seed-demo", is_flag=True, help="Fill a studio that has no formula yet with the demo data.")
@click.option(
    "--scale-port", default=None, help="Serial port of a real scale, such as /dev/ttyUSB0; without it weighings are typed."
)
@click.option(
    "--lan", is_flag=True, help="Serve the network too: devices that are paired on this machine's screen come in, nobody else."
)
@click.option(
    "--unguarded",
    is_flag=True,
    help="Serve beyond this machine although nobody is asked who they are: all on the network can read and change the studio.",
)
@click.option(
    "--name",
    "names",
    multiple=True,
    help="A name the studio is reached under, such as studio.lan behind a proxy; repeatable. Its own addresses need none.",
)
@click.option(
    "--clock-rate",
    default=1.0,
    type=click.FloatRange(1.0, 3600.0),
    help="How fast the bench's clock runs; for trying things out.",
)
def serve(
    host: str, port: int, seed_demo: bool, scale_port: str | None, lan: bool, unguarded: bool, names: tuple[str, ...],
    clock_rate: float,
) -> None:  # fmt: skip
    """Serve the studio in the data folder."""
    gc.disable()  # until all is loaded: looking for garbage among what stays is a tenth of the start
    from rosy_kettle.api.server import serve_studio  # imported late: the other commands start faster without the server
    from rosy_kettle.devices import BenchClock, open_devices

    bench = open_devices(BenchClock(clock_rate), scale_port)
    reached = "0.0.0.0" if lan and host == "127.0.0.1" else host  # noqa: S104 - asked for, and guarded by pairing
    serve_studio(reached, port, seed_demo=seed_demo, bench=bench, unguarded=unguarded, lan=lan, names=names)


@commands.command()
@click.option("--port", default=DEFAULT_PORT, show_default=True, type=click.IntRange(0, 65535))
def demo(port: int) -> None:
    """Serve a throwaway demo studio from a temporary folder."""
    from rosy_kettle.api.server import serve_studio  # as above

    with tempfile.TemporaryDirectory(prefix="rosy-kettle-demo-") as folder:
        serve_studio("127.0.0.1", port, seed_demo=True, folder=Path(folder))


@commands.command("demo-reset")
def demo_reset() -> None:
    """Put the demo studio back as it was delivered, keeping a copy of what was there."""
    from rosy_kettle.usecases.studio.seed_demo import reset_demo  # as above

    kept = reset_demo()
    click.echo("Demo data restored." + (f" The former studio is kept as {kept.name}." if kept else ""))


@commands.command()
@click.argument("file", type=click.Path(path_type=Path))
def backup(file: Path) -> None:
    """Copy the studio into FILE, verified; it may be in use meanwhile."""
    from rosy_kettle.usecases.studio.keep_copies import backup_studio  # as above

    rows = backup_studio(file)
    click.echo(
        f"{file} holds the studio: {rows.get('formulas', 0)} formulas, {rows.get('batches', 0)} batches; integrity checked."
    )


@commands.command()
@click.option(
    "--repair",
    is_flag=True,
    help="Accept that acknowledged writes are missing, and set aside records that no page can read; nothing is thrown away.",
)
@click.option("--take-back", "number", type=click.IntRange(1), help="Put the record that was set aside under this number back.")
def check(*, repair: bool, number: int | None) -> None:
    """Print whether the studio's file is whole and every record of it can be read, as JSON."""
    from rosy_kettle.api.read_records import read_records  # as above
    from rosy_kettle.usecases.studio.check_studio import check_studio, take_record_back  # as above

    if number is not None:
        click.echo(f"Taken back: {take_record_back(number)}.", err=True)
    found = check_studio(repair=repair, read=lambda studio: read_records(studio, _said_now_and_then("records")))
    _print_json(asdict(found))
    if found.missing_after is not None:
        raise InputError(next(each.text for each in found.warnings if each.code == "missing_writes"), quantity="file")
    if found.integrity != "ok":
        raise InputError("The studio's file is damaged; restore a backup.", quantity="file")


@commands.command()
@click.argument("file", type=click.Path(path_type=Path))
def restore(file: Path) -> None:
    """Put the backup FILE in the place of the studio, keeping a copy of what was there."""
    from rosy_kettle.usecases.studio.keep_copies import restore_studio  # as above

    kept = restore_studio(file)
    click.echo("Restored." + (f" What was there is kept as {kept.name}." if kept else ""))


@commands.command("export")
@click.argument("file", type=click.Path(path_type=Path))
def export_command(file: Path) -> None:
    """Write the whole studio into FILE, a zip of open files; it may be in use meanwhile."""
    from rosy_kettle.store import open_studio  # here: the other commands start sooner
    from rosy_kettle.usecases.studio.exchange.export_studio import export_studio  # as above

    studio = open_studio()
    try:
        files = export_studio(studio, file, _said_now_and_then())
    finally:
        studio.close()
    _print_json({"file": str(file), "files": files})


@commands.command("import")
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--merge", is_flag=True, help="Take it into a studio that is not empty; both sides of what differs are printed.")
def import_command(file: Path, *, merge: bool) -> None:
    """Take a studio zip in, whole or not at all, and print what is new and what differs, as JSON."""
    from rosy_kettle.store import open_studio  # as above
    from rosy_kettle.usecases.studio.exchange.import_studio import import_studio  # as above

    studio = open_studio()
    try:
        found = import_studio(studio, file, merge=merge, report=_said_now_and_then())
    finally:
        studio.close()
    _print_json({
        "made_at": found.made_at, "taken": dict(found.taken), "photos": found.photos,
        "differences": [asdict(each) for each in found.differences],
    })  # fmt: skip


def _said_now_and_then(what: str = "files") -> Callable[[int, int], None]:
    """Return what says on the error output how far it is, once in a thousand."""

    def say(done: int, whole: int) -> None:
        if done % FILES_BETWEEN == 0:
            click.echo(f"{done} of {whole} {what} …", err=True)

    return say


@commands.command()
@click.option("--formulas", default=500, show_default=True, type=click.IntRange(1, 100_000))
@click.option("--batches", default=2000, show_default=True, type=click.IntRange(0, 1_000_000))
@click.option("--weigh-ins", default=20_000, show_default=True, type=click.IntRange(0, 10_000_000))
@click.option("--seed", default=1, show_default=True, type=click.IntRange(0, 2**31))
def grow(formulas: int, batches: int, weigh_ins: int, seed: int) -> None:
    """Fill the studio with a made-up history for speed tests and print the counts as JSON."""
    from rosy_kettle.store import open_studio  # here: the other commands start sooner
    from rosy_kettle.usecases.studio.grow import grow_studio  # as above

    if weigh_ins and not batches:
        raise InputError("Weigh-ins need batches to be set out; give --batches above 0.", quantity="batches")
    studio = open_studio()
    try:
        grown = grow_studio(studio, formulas, batches, weigh_ins, seed, lambda said: click.echo(f"{said} …", err=True))
    finally:
        studio.close()
    _print_json(asdict(grown) | {"seed": seed})


def main() -> None:
    """Run the command; bad input ends with 2 and one sentence, our own bugs with 1."""
    gc.set_threshold(SELDOM, 20, 20)  # formulas and rows are made and dropped by the thousand, hardly any of them in circles
    try:
        commands(standalone_mode=False)
    except WorkbenchError as error:
        click.echo(error.message, err=True)
        sys.exit(BAD_INPUT)
    except click.exceptions.Exit as ended:
        sys.exit(ended.exit_code)
    except click.ClickException as error:
        click.echo(error.format_message().splitlines()[0], err=True)
        sys.exit(BAD_INPUT)
    except (click.Abort, KeyboardInterrupt):
        sys.exit(BAD_INPUT)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # whoever read has gone; that is no fault
        sys.exit(0)
    except Exception as error:  # noqa: BLE001 - the outermost place: print the trace, say it is our bug
        if said := _of_the_disk(error):
            click.echo(said, err=True)
            sys.exit(BAD_INPUT)
        traceback.print_exc()
        sys.exit(OUR_BUG)


def _of_the_disk(error: BaseException | None) -> str:
    """Return one sentence where a disk is full or cannot be written, however deep that is said; "" for anything else."""
    full = "The disk is full; nothing was changed. Make room, then try again."
    while error is not None:
        if isinstance(error, OSError) and error.errno in {errno.ENOSPC, errno.EDQUOT}:
            return full
        if isinstance(error, OSError) and error.errno in {errno.EROFS, errno.EACCES, errno.EPERM}:
            return f"{error.filename or 'The folder'} cannot be written: {error.strerror}; choose another place, or free it."
        code = getattr(error, "sqlite_errorcode", None)
        if code is not None and code & 0xFF in SQLITE_SAYS:
            return SQLITE_SAYS[code & 0xFF] or full
        error = getattr(error, "orig", None) or error.__cause__ or error.__context__
    return ""


def _read_bytes(path: Path, most: int = LARGEST_READ_BYTES) -> bytes:
    try:
        with path.open("rb") as file:
            return file.read(most)  # one more than any file may hold, so that an endless one ends here
    except OSError as error:
        raise InputError(f"{path} cannot be read: {error.strerror}.", quantity="file", value=str(path)) from error


def _write_bytes(path: Path, data: bytes) -> None:
    try:
        path.write_bytes(data)
    except OSError as error:
        raise InputError(f"{path} cannot be written: {error.strerror}.", quantity="file", value=str(path)) from error


def _print_json(data: Any) -> None:
    click.echo(json.dumps(data, ensure_ascii=False, indent=2, allow_nan=False))
