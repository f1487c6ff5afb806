"""The product record as parts to be printed: headings, sentences, tables."""

from __future__ import annotations

from rosy_kettle.core.making.label.record_part import RecordPart
from rosy_kettle.core.records import Certificate
from rosy_kettle.usecases.labels.product_record import ASSESSOR_DECIDES, ProductRecord

__all__ = ["lead_of", "parts_of_record"]


def lead_of(record: ProductRecord) -> str:
    """Return whose product it is and when it was made."""
    row = record.facts.bench.row
    maker = ", ".join(part for part in (record.said.maker, record.said.place) if part) or "Maker not given"
    closed = f", closed {row.closed_at:%Y-%m-%d}" if row.closed_at else ", still open"
    made = f"Record made {record.made_at:%Y-%m-%d %H:%M} UTC."
    return f"{maker}. Version {row.version}, begun {row.created_at:%Y-%m-%d}{closed}. {made}"


def parts_of_record(record: ProductRecord) -> list[RecordPart]:
    """Return the parts in the order they are read."""
    return [
        RecordPart("What this record does not decide", ASSESSOR_DECIDES),
        RecordPart("Not known", record.unknown or ("Nothing that was looked for is missing.",)),
        _formula(record), _lots(record), _certificates(record), _ledger(record), _readings(record), _batch(record),
        _drying(record), _tests(record), _stability(record), _labels(record),
    ]  # fmt: skip


def _formula(record: ProductRecord) -> RecordPart:
    rows = [["INCI", "Name", "CAS", "Function", "% as made", "g"]]
    rows += [
        [
            line.inci or "not known",
            line.name,
            line.cas or "not on file",
            line.function,
            f"{line.share_pct:.2f}",
            f"{line.mass_g:.1f}",
        ]
        for line in record.lines
    ]
    made = "As it was made: what was left out at the bench is not in it, what was added is."
    return RecordPart("Formula", (made,), rows, [52, 44, 26, 24, 18, 14], (4, 5))


def _lots(record: ProductRecord) -> RecordPart:
    rows = [["Ingredient", "Lot", "Supplier", "Best before", "used, g", "Named", "By its sheet"]]
    for drawn in record.facts.drawn:
        lot = drawn.lot
        sheet = ", ".join(
            f"{name.replace('_fraction', '').replace('_', ' ')} {value:.0%}" for name, value in lot.properties.items()
        )
        name = record.facts.tables.ingredients[lot.ingredient_id].short_name
        best = "not given" if lot.best_before is None else lot.best_before.isoformat()
        named = "named" if drawn.assumed is False else "assumed"
        rows.append([name, lot.code, lot.supplier or "not given", best, f"{drawn.mass_g:.1f}", named, sheet])
    said = ("Assumed: nobody named this jar when it was weighed; the one to expire first was taken for it.",)
    return RecordPart("Lots it was made from", said, rows, [40, 34, 34, 22, 16, 16, 16], (4,))


def _certificates(record: ProductRecord) -> RecordPart:
    used = {line.ingredient for line in record.lines}
    rows = [["Scent", "Limit, %", "Category", "Flash, °C", "Allergens, % of the scent"]]
    rows += [
        [record.facts.tables.ingredients[id_].short_name, *_paper(paper)]
        for id_, paper in record.facts.tables.certificates.items() if id_ in used
    ]  # fmt: skip
    return RecordPart("Certificates of scents", (), rows, [44, 18, 20, 18, 78], (1, 3))


def _paper(paper: Certificate) -> list[str]:
    listed = dict(paper.allergens) | {each.name: each.pct for each in paper.substances}
    allergens = ", ".join(f"{name} {pct:.3g}" for name, pct in sorted(listed.items()))
    limit = "not known" if paper.limit_pct is None else f"{paper.limit_pct:g}"
    flash = "not known" if paper.flash_c is None else f"{paper.flash_c:g}"
    return [limit, _category(paper), flash, allergens or "not known"]


def _category(paper: Certificate) -> str:
    said = [paper.category or "not known", f"amendment {paper.amendment}" if paper.amendment else "", paper.dated or ""]
    return ", ".join(each for each in said if each)


def _ledger(record: ProductRecord) -> RecordPart:
    rows = [["Rule", "Weight", "What it says", "Source"]]
    rows += [[entry.rule, entry.severity, entry.message, entry.source] for entry in record.told.skin.ledger]
    return RecordPart("Skin ledger", ("Findings by rule; their absence is no proof of safety.",), rows, [26, 16, 84, 52])


def _readings(record: ProductRecord) -> RecordPart:
    rows = [["Measure", "Value", "Kind", "Source"]]
    rows += [
        [each.label, "not known" if each.value is None else f"{each.value:.3g} {each.unit}", each.kind, each.source]
        for each in record.told.skin.measures
    ]
    return RecordPart("Measures", (), rows, [60, 32, 20, 66])


def _batch(record: ProductRecord) -> RecordPart:
    rows = [["When (UTC)", "What happened at the bench"], *[[at, text] for at, text in record.story]]
    return RecordPart("Batch sheet", (), rows, [34, 144])


def _drying(record: ProductRecord) -> RecordPart:
    rows = [["Tray", "Place", "Set out (UTC)", "Weigh-ins", "Last, g a piece", "Dry"]]
    for tray in record.facts.trays:
        weighed = [each for each in tray.state.weighings if not each.left_out]
        last = f"{weighed[-1].mass_g / weighed[-1].pieces:.1f}" if weighed else "not weighed"
        dry = "yes" if tray.reading.ready else "not yet"
        rows.append([str(tray.row.id), tray.state.place, f"{tray.row.set_out_at:%Y-%m-%d %H:%M}", str(len(weighed)), last, dry])
    return RecordPart("Drying", (), rows, [14, 40, 36, 22, 34, 32], (3, 4))


def _tests(record: ProductRecord) -> RecordPart:
    rows = [["Begun", "Version", "Dose, g", "Foam seen, cm by minute", "Remarks"]]
    for test in record.tests:
        foam = ", ".join(
            f"{minute:g} min {height:g}" for minute, height in ((each.minutes, each.height_cm) for each in test.state.heights)
        )
        seen = ", ".join(f"{name} {value}" for name, value in test.state.seen.items())
        rows.append(
            [f"{test.row.begun_at:%Y-%m-%d}", str(test.row.version or ""), f"{test.row.use.get('dose_g', '')}", foam, seen]
        )
    return RecordPart("Tests in the tub, of this formula", (), rows, [24, 18, 18, 58, 60])


def _stability(record: ProductRecord) -> RecordPart:
    shelf = record.told.shelf
    loss = (("standing open", shelf.acid_loss_pct_day), ("in film", shelf.in_film_pct_day), ("in a jar", shelf.in_jar_pct_day))
    said = [
        f"Fizz lost a day, {how}: {value:.2g} % (practice, within a factor of 3)." for how, value in loss if value is not None
    ]
    said += [
        f"{each.fact.replace('_', ' ')}: {each.value}; {each.source}." for each in record.known if each.fact == "best_before"
    ]
    outcome = record.facts.bench.state.outcome
    said += [f"What became of it: {key.replace('_', ' ')} {value}." for key, value in outcome.items()]
    return RecordPart("Stability notes", said or ["No stability notes are on file."])


def _labels(record: ProductRecord) -> RecordPart:
    rows = [["Market", "Element", "Text", "Height, mm", "Rule"]]
    for made in record.labels:
        rows += [
            [made.market, text.element.replace("_", " "), text.text, f"{text.height_mm:.2f}", text.rule] for text in made.texts
        ]
    printed = [
        f"Label {row.id}, {row.market}, {row.copies} printed {row.created_at:%Y-%m-%d}" + (", as a draft." if row.draft else ".")
        for row in record.printed
    ]
    return RecordPart("Label texts", printed, rows, [16, 26, 92, 18, 26], (3,))
