"""A studio out and in again: the same files byte for byte, whole or not at all, both sides shown where two differ."""

from __future__ import annotations

import hashlib
import io
import json
import multiprocessing
import os
import random
import shutil
import signal
import subprocess
import sys
import time
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PIL import Image
from sqlalchemy import func, select

from rosy_kettle.api.app import create_app
from rosy_kettle.core.errors import InputError
from rosy_kettle.files import read_formula_json
from rosy_kettle.files.studio_zip import open_studio_zip
from rosy_kettle.store import Studio, open_studio
from rosy_kettle.store.base import Base
from rosy_kettle.store.copies import damage_of, rows_of
from rosy_kettle.store.lots import LotRow, MovementRow
from rosy_kettle.store.photos import photo_folder
from rosy_kettle.usecases.studio.exchange.export_studio import StoppedError, export_studio
from rosy_kettle.usecases.studio.exchange.import_studio import import_studio
from rosy_kettle.usecases.studio.oddities import oddities_in

PHOTO = f"{'ab' * 16}.jpg"


def picture() -> bytes:
    made = io.BytesIO()
    Image.new("RGB", (8, 6), "teal").save(made, "JPEG")
    return made.getvalue()


@pytest.fixture(scope="module")
def demo_zip(tmp_path_factory: pytest.TempPathFactory, seeded: Path) -> Path:
    folder = tmp_path_factory.mktemp("demo")
    shutil.copy(seeded, folder)
    studio = open_studio(folder)
    photo_folder(studio.path).mkdir()
    (photo_folder(studio.path) / PHOTO).write_bytes(picture())
    client = create_app(studio).test_client()
    client.post("/api/labels", json={"formula_id": 1, "market": "US", "width_mm": 150.0, "height_mm": 150.0, "draft": True})
    client.post("/api/troubles", json={"symptom": "cracks", "batch_id": 12})
    client.post("/api/practice-runs", json={"scenario": "thirsty-starch"})
    client.post("/api/lots", json={"ingredient": "glycerin", "code": "=1+1", "supplier": "12", "quantity_g": 10.5})
    target = folder / "studio.zip"
    export_studio(studio, target)
    studio.close()
    return target


@pytest.fixture
def opened(tmp_path: Path) -> Iterator[Callable[[str], Studio]]:
    studios: list[Studio] = []

    def make(name: str) -> Studio:
        (tmp_path / name).mkdir(exist_ok=True)
        studios.append(open_studio(tmp_path / name))
        return studios[-1]

    yield make
    for studio in studios:
        studio.close()


def files_of(path: Path) -> dict[str, bytes]:
    with zipfile.ZipFile(path) as archive:
        return {name: archive.read(name) for name in archive.namelist() if name != "manifest.json"}


def counts(studio: Studio) -> dict[str, int]:
    with studio.reading() as session:
        return {
            name: session.scalar(select(func.count()).select_from(table)) or 0 for name, table in Base.metadata.tables.items()
        }


def rewritten(path: Path, target: Path, change: Callable[[dict[str, bytes]], None]) -> Path:
    """Write the zip again with other files, its manifest true to them."""
    files = files_of(path)
    change(files)
    sums = {name: hashlib.sha256(data).hexdigest() for name, data in files.items()}
    with zipfile.ZipFile(target, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
        archive.writestr(
            "manifest.json", json.dumps({"format": "rosy-kettle/studio", "version": 1, "made_at": "", "files": sums})
        )
    return target


def bend(files: dict[str, bytes], folder: str, old: bytes, new: bytes) -> None:
    """Change the first file of a folder that holds a text."""
    name = next(name for name in sorted(files) if name.startswith(folder) and old in files[name])
    files[name] = files[name].replace(old, new)


def test_out_in_and_out_again_is_the_same(demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path) -> None:
    fresh = opened("fresh")
    found = import_studio(fresh, demo_zip, merge=False)
    assert (found.photos, found.differences) == (1, ())
    export_studio(fresh, tmp_path / "again.zip")
    assert files_of(tmp_path / "again.zip") == files_of(demo_zip)


def test_the_files_are_open(demo_zip: Path) -> None:
    """Formula files are read by the same reader as any other; sums are SHA-256 as in the manifest."""
    files = files_of(demo_zip)
    formulas = [name for name in files if name.startswith("formulas/")]
    assert len(formulas) >= 12
    for name in formulas:
        read_formula_json(files[name])
    with zipfile.ZipFile(demo_zip) as archive:
        manifest = json.loads(archive.read("manifest.json"))
    assert manifest["files"] == {name: hashlib.sha256(data).hexdigest() for name, data in files.items()}
    assert b",'=1+1,'12," in files["pantry/lots.csv"]
    batch = json.loads(files["batches/000047.json"])
    assert batch["made"]["format"] == "rosy-kettle/formula"


def test_an_import_into_a_full_studio_is_refused_and_changes_nothing(demo_zip: Path, opened: Callable[[str], Studio]) -> None:
    full = opened("full")
    import_studio(full, demo_zip, merge=False)
    before = counts(full)
    with pytest.raises(InputError, match="not empty"):
        import_studio(full, demo_zip, merge=False)
    assert counts(full) == before


def test_merging_the_same_studio_changes_nothing(demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path) -> None:
    full = opened("full")
    import_studio(full, demo_zip, merge=False)
    found = import_studio(full, demo_zip, merge=True)
    assert (dict(found.taken), found.photos, found.differences) == ({}, 0, ())
    export_studio(full, tmp_path / "again.zip")
    assert files_of(tmp_path / "again.zip") == files_of(demo_zip)


def edit(studio: Studio, formula: int, amount: str) -> None:
    client = create_app(studio).test_client()
    answer = client.get(f"/api/formulas/{formula}").json
    answer["formula"]["portions"][0]["lines"][0]["amount"] = amount
    saved = client.put(f"/api/formulas/{formula}", json={"formula": answer["formula"], "revision": answer["revision"]})
    assert saved.status_code == 200


def test_two_edits_of_one_formula_are_both_kept_and_shown(
    demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path
) -> None:
    here, there = opened("here"), opened("there")
    import_studio(here, demo_zip, merge=False)
    import_studio(there, demo_zip, merge=False)
    edit(here, 10, "301")
    edit(there, 10, "207")
    export_studio(there, tmp_path / "there.zip")
    before = counts(here)
    found = import_studio(here, tmp_path / "there.zip", merge=True)
    (difference,) = found.differences
    sides = [side["portions"][0]["lines"][0]["amount"] for side in (difference.here, difference.there)]
    assert (difference.noun, sides) == ("formula", ["301", "207"])
    names = [row["name"] for row in create_app(here).test_client().get("/api/formulas").json["formulas"]]
    assert {"Limpet domes", "Limpet domes (from the other studio)"} <= set(names)
    after = counts(here)
    assert {name: after[name] - before[name] for name in ("formulas", "batches", "movements", "trays")} == {
        "formulas": 1, "batches": 0, "movements": 0, "trays": 0,
    }  # fmt: skip


def test_what_went_on_in_one_studio_goes_on_in_the_other(demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path) -> None:
    here, there = opened("here"), opened("there")
    import_studio(here, demo_zip, merge=False)
    import_studio(there, demo_zip, merge=False)
    client = create_app(there).test_client()
    own = create_app(here).test_client()
    for app, code in ((client, "THERE"), (own, "HERE")):  # the next number is taken on both sides
        app.post("/api/lots", json={"ingredient": "kaolin", "code": code, "quantity_g": 300.0})
    made = client.post("/api/formulas", json=client.get("/api/formulas/10").json["formula"]).json["id"]
    own.post("/api/formulas", json=client.get("/api/formulas/9").json["formula"])
    batch = client.post("/api/batches", json={"formula_id": made, "wishes": [{"pieces": 4}]}).json
    client.post(
        f"/api/batches/{batch['id']}/events", json={"after": batch["state"]["seq"], "event": {"kind": "note", "text": "x"}}
    )
    tray = client.get("/api/rack").json["items"][0]
    client.post(f"/api/rack/{tray['id']}/events", json={"after": tray["state"]["seq"], "event": {"kind": "note", "text": "warm"}})
    export_studio(there, tmp_path / "there.zip")
    found = import_studio(here, tmp_path / "there.zip", merge=True)
    assert found.differences == ()
    batches = own.get("/api/batches").json["batches"]
    assert (batches[0]["name"], batches[0]["formula_id"] != made) == ("Limpet domes", True)
    lots = {lot["code"]: lot["left_g"] for lot in own.get("/api/lots?limit=200").json["items"]}
    assert (lots["THERE"], lots["HERE"]) == (300.0, 300.0)
    with here.reading() as session:
        left = session.scalar(select(func.sum(LotRow.left_g)))
        moved = session.scalar(select(func.sum(MovementRow.mass_g)))
    assert left == pytest.approx(moved)
    again = import_studio(here, tmp_path / "there.zip", merge=True)
    assert (dict(again.taken), again.differences) == ({}, ())


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda files: files.update({"../evil.json": b"{}"}), "which no studio has"),
        (lambda files: files.update({"formulas/000001-0001.json": b"[]"}), "not what stands"),
        (lambda files: files.update({"batches/000001.json": b'{"studio": 4}'}), "not what stands"),
        (lambda files: files.update({"pantry/lots.csv": b"id,code\n1"}), "cannot be read as CSV"),
        (lambda files: files.update({"settings.json": files["settings.json"].replace(b'"updated_at":"2', b'"updated_at":"x')}), "cannot be"),
        (lambda files: files.update({"rack/000001.json": b'{"studio": {"id": 1, "request_key": ["a"]}}'}), "not what stands"),
        (lambda files: files.update({"tub-tests/000001.json": b'{"studio": {"id": 1}, "events": ["a"]}'}), "not what stands"),
        (lambda files: bend(files, "rack/0", b'"mass_g":', b'"mass_g":[],"was_g":'), "rack/.* is not what stands"),
        (lambda files: files.update({"learning.json": b'{"trials": NaN}'}), "no JSON"),
        (lambda files: files.update({"learning.json": b'{"trials": "\\ud800"}'}), "no JSON"),
        (lambda files: files.update({"photos/a.svg": b"<svg/>"}), "which no studio has"),
    ],
)  # fmt: skip
def test_a_bad_zip_is_refused_whole(
    change: Callable[[dict[str, bytes]], None], says: str, demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path
) -> None:
    fresh = opened("fresh")
    before = counts(fresh)
    with pytest.raises(InputError, match=says):
        import_studio(fresh, rewritten(demo_zip, tmp_path / "bad.zip", change), merge=False)
    assert counts(fresh) == before
    assert not list(photo_folder(fresh.path).glob("*")) if photo_folder(fresh.path).exists() else True


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda files: bend(files, "settings.json", b'"said":{', b'"said":{"moon":1,'), "moon"),
        (lambda files: bend(files, "settings.json", b'"tubs":[', b'"tubs":[{"litres":4},'), "tubs"),
        (lambda files: bend(files, "settings.json", b'"hands":', b'"hands":"two","was":'), "hands"),
        (lambda files: bend(files, "batches/", b'"actual_g":', b'"actual_g":{},"was_g":'), ""),
        (lambda files: bend(files, "tub-tests/0", b'"height_cm":', b'"height_cm":[],"was":'), ""),
    ],
)  # fmt: skip
def test_a_setting_or_event_of_another_version_comes_in_as_it_is(
    change: Callable[[dict[str, bytes]], None], says: str, demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path
) -> None:
    """The pages show what they know; the zip of a studio that another version wrote in has to come back."""
    fresh, changed = opened("fresh"), tmp_path / "changed.zip"
    import_studio(fresh, rewritten(demo_zip, changed, change), merge=False)
    export_studio(fresh, tmp_path / "again.zip")
    came, went = files_of(tmp_path / "again.zip"), files_of(changed)
    assert {name: json.loads(came[name]).get("events") for name in came if name.endswith(".json")} == {
        name: json.loads(went[name]).get("events") for name in went if name.endswith(".json")
    }
    assert came["settings.json"] == went["settings.json"]
    assert says in {"", *(each.id for each in oddities_in(fresh.path))}


def test_a_zip_changed_under_its_manifest_or_cut_short_is_refused(
    demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path
) -> None:
    fresh = opened("fresh")
    files = files_of(demo_zip)
    with zipfile.ZipFile(demo_zip) as archive:
        manifest = archive.read("manifest.json")
    with zipfile.ZipFile(tmp_path / "changed.zip", "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data.replace(b"Limpet", b"Limper"))
        archive.writestr("manifest.json", manifest)
    with pytest.raises(InputError, match="was changed"):
        import_studio(fresh, tmp_path / "changed.zip", merge=False)
    (tmp_path / "cut.zip").write_bytes(demo_zip.read_bytes()[: demo_zip.stat().st_size // 2])
    with pytest.raises(InputError, match="no zip"):
        import_studio(fresh, tmp_path / "cut.zip", merge=False)
    newer = json.loads(manifest) | {"version": 2}
    with zipfile.ZipFile(tmp_path / "newer.zip", "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data)
        archive.writestr("manifest.json", json.dumps(newer))
    with pytest.raises(InputError, match="newer"):
        import_studio(fresh, tmp_path / "newer.zip", merge=False)
    bomb = tmp_path / "bomb.zip"
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("settings.json", b"0" * 50_000_000)
        archive.writestr("manifest.json", manifest)
    with pytest.raises(InputError, match="unpacks to more"):
        import_studio(fresh, bomb, merge=False)


def test_a_zip_with_a_byte_changed_anywhere_is_refused_or_reads_the_same(demo_zip: Path, tmp_path: Path) -> None:
    files, whole, chance = files_of(demo_zip), demo_zip.read_bytes(), random.Random(8)
    bent, refused = tmp_path / "bent.zip", 0
    for _ in range(60):
        at = chance.randrange(len(whole))
        bent.write_bytes(whole[:at] + bytes([whole[at] ^ 0x55]) + whole[at + 1 :])
        try:
            source = open_studio_zip(bent)
            assert {name: source.read(name) for name in files} == files
        except InputError:
            refused += 1
    assert refused > 40


def test_stopped_in_the_middle_nothing_has_happened(demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path) -> None:
    fresh = opened("fresh")
    before = counts(fresh)
    steps = iter([False] * 60 + [True] * 1000)
    with pytest.raises(StoppedError):
        import_studio(fresh, demo_zip, merge=False, stopped=lambda: next(steps))
    assert counts(fresh) == before
    with pytest.raises(StoppedError):
        export_studio(fresh, tmp_path / "never.zip", stopped=lambda: True)
    assert not list(tmp_path.glob("*never*"))


def test_killed_in_the_middle_of_an_import_it_is_as_if_it_had_not_begun(demo_zip: Path, tmp_path: Path) -> None:
    """Six kills between the start of the command and its end: nothing or all of it is there, and the file is whole."""
    chance = random.Random(3)
    for number in range(6):
        folder = tmp_path / str(number)
        folder.mkdir()
        open_studio(folder).close()
        before = sum(rows_of(folder / "studio.sqlite3").values())
        environment = {**os.environ, "ROSY_KETTLE_DATA": str(folder)}
        command = [str(Path(sys.executable).parent / "rosy-kettle"), "import", str(demo_zip)]
        with subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL) as running:
            try:
                running.wait(chance.uniform(0.9, 2.2))
            except subprocess.TimeoutExpired:
                running.send_signal(signal.SIGKILL)
        studio = open_studio(folder)
        after = counts(studio)
        studio.close()
        assert damage_of(folder / "studio.sqlite3") == ""
        complete = after["formulas"] > 0
        if complete:
            assert (after["formulas"], after["batches"], after["labels"]) == (12, 49, 1)
        else:
            assert sum(rows_of(folder / "studio.sqlite3").values()) == before
            assert not list(photo_folder(folder / "studio.sqlite3").glob("[!.]*"))


def test_a_second_process_writes_the_same_files(
    demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """From some thousands of files on they are made beside the reading; a stop ends both."""
    full, beside = opened("full"), tmp_path / "beside.zip"
    import_studio(full, demo_zip, merge=False)
    monkeypatch.setattr("rosy_kettle.usecases.studio.exchange.export_studio.MANY", 1)
    monkeypatch.setattr("rosy_kettle.usecases.studio.exchange.export_studio.AT_ONCE", 7)
    export_studio(full, beside)
    assert files_of(beside) == files_of(demo_zip)
    told: list[int] = []
    with pytest.raises(StoppedError):
        export_studio(full, tmp_path / "never.zip", lambda done, _whole: told.append(done), lambda: len(told) > 30)
    assert multiprocessing.active_children() == []
    assert not list(tmp_path.glob(".never*"))


@pytest.mark.parametrize(
    ("file", "rows", "name", "value"),
    [
        ("orders.json", "orders", "state", "lost"),
        ("learning.json", "measurements", "kind", "guess"),
        ("learning.json", "measurements", "facts", {"wetter": "glycerin", "rolls_at_g": "soon", "temperature_c": 21}),
        ("learning.json", "measurements", "formula", {"format": "rosy-kettle/formula"}),
        ("learning.json", "designs", "bounds", [{"ingredient": "glycerin"}]),
        ("learning.json", "designs", "points", [["x"]]),
        ("learning.json", "designs", "reading", "colour.of_the_moon"),
        ("learning.json", "troubles", "symptom", "hiccups"),
        ("learning.json", "practice", "acts", [{"kind": "feel", "loud": True}]),
        ("learning.json", "practice", "scenario", "moon"),
    ],
)
def test_what_a_page_of_the_lists_would_fail_on_is_not_taken_in(
    demo_zip: Path, opened: Callable[[str], Studio], tmp_path: Path, file: str, rows: str, name: str, value: object
) -> None:
    def break_it(files: dict[str, bytes]) -> None:
        data = json.loads(files[file])
        data[rows][0][name] = value
        files[file] = json.dumps(data).encode()

    fresh = opened("fresh")
    empty = counts(fresh)
    with pytest.raises(InputError, match=file):
        import_studio(fresh, rewritten(demo_zip, tmp_path / "broken.zip", break_it), merge=False)
    assert counts(fresh) == empty


EXPORTING = """
import multiprocessing, sys, time
from pathlib import Path
from rosy_kettle.store import open_studio
from rosy_kettle.usecases.studio.exchange import export_studio as at

at.MANY, at.AT_ONCE = 1, 1

def said(done, whole):
    for child in multiprocessing.active_children():
        print(child.pid, flush=True)
        time.sleep(60)

if __name__ == "__main__":
    at.export_studio(open_studio(Path(sys.argv[1])), Path(sys.argv[2]), said)
"""


def test_the_second_process_ends_with_the_first_however_that_ends(demo_zip: Path, tmp_path: Path) -> None:
    script = tmp_path / "exporting.py"
    script.write_text(EXPORTING, encoding="utf-8")
    with subprocess.Popen(
        [sys.executable, str(script), str(demo_zip.parent), str(tmp_path / "never.zip")], stdout=subprocess.PIPE, text=True
    ) as exporting:
        assert exporting.stdout is not None
        child = int(exporting.stdout.readline())
        assert at_work(child)
        exporting.send_signal(signal.SIGKILL)
    deadline = time.monotonic() + 20
    while at_work(child) and time.monotonic() < deadline:
        time.sleep(0.05)
    assert not at_work(child)


def at_work(pid: int) -> bool:
    """Whether a process runs; one that has ended and was not asked after does not."""
    try:
        return Path(f"/proc/{pid}/stat").read_text(encoding="utf-8").rsplit(")", 1)[1].split()[0] != "Z"
    except OSError:
        return False
