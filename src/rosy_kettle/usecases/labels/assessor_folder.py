"""What an assessor asks for beside the product record: exposure, use and misuse, register, complaints."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy.orm import Session

from rosy_kettle.core.making.label.record_part import RecordPart
from rosy_kettle.core.parameters.exposure import ExposureParameters
from rosy_kettle.core.safety.exposure import Bather, ExposureRow, bathers, exposure_rows
from rosy_kettle.store.complaints import complaints_of_batches
from rosy_kettle.usecases.labels.complaints import report_by
from rosy_kettle.usecases.labels.product_record import ProductRecord

__all__ = ["exposure_notes", "exposure_of", "folder_parts"]

TO_FILL = "Not on file here; to be filled in by the maker or the assessor."
MISUSE = (
    "Swallowed by a child or a pet; taken for something to eat.", "Used dry on wet skin, or on broken skin.",
    "More than one piece in a bath, or in a small tub.", "Left open in a wet bathroom and used for months.",
    "Stood on in the tub: oil makes it slippery.",
)  # fmt: skip
"""Misuse that can be foreseen of a solid bath product; common practice, no published source."""


def exposure_of(record: ProductRecord) -> tuple[tuple[ExposureRow, ...], tuple[Bather, ...]]:
    """Return the exposure to every substance of a batch, and who it is worked out for."""
    p = ExposureParameters()
    told, product = record.told, record.facts.formula.product
    rows = exposure_rows(told.label.names, told.assumed.dose_g, p, left_on=product.leave_on_use)
    return rows, bathers(p)


def exposure_notes(record: ProductRecord) -> list[str]:
    """Return what the sheet rests on, a sentence each."""
    p, assumed = ExposureParameters(), record.told.assumed
    stays = p.retained_on_share if record.facts.formula.product.leave_on_use else p.retained_share
    people = "; ".join(f"{who.name} {who.weight_kg:g} kg, {who.skin_cm2:g} cm2 of skin" for who in bathers(p))
    return [
        f"{assumed.dose_g:.1f} g a bath in {assumed.tub_l:g} L, {p.minutes:g} min, {p.baths_a_day:g} bath a day.",
        f"Of it {stays:g} stays on the skin, and all of that is counted as taken up.",
        f"{people}.",
        "Retention: SCCS Notes of Guidance, 12th revision; children: US EPA Exposure Factors Handbook 2011; from memory.",
        "No verdict: which margin is enough is the assessor's to say.",
    ]


def folder_parts(session: Session, record: ProductRecord) -> list[RecordPart]:
    """Return the parts that the product record alone has not."""
    rows, people = exposure_of(record)
    table = [["Substance", "%", "mg in a bath", *(f"mg/kg/day, {who.name}" for who in people), "NOAEL", "Reference"]]
    table += [
        [row.name, f"{row.share_pct:.3f}", f"{row.in_bath_mg:.1f}", *(f"{each:.2g}" for each in row.mg_kg_day), "", ""]
        for row in rows
    ]  # fmt: skip
    product = record.facts.formula.product
    persons = [f"{market}: {person}" for market, person in record.said.responsible_person.items() if person]
    return [
        RecordPart("Exposure", exposure_notes(record), table, [50, 14, 20, 22, 22, 22, 14, 14], (1, 2, 3, 4, 5)),
        RecordPart("Impurities and suppliers' papers", (TO_FILL,)),
        RecordPart("Packaging", (f"Pack: {product.pack.replace('_', ' ')}. {TO_FILL}",)),
        RecordPart("Good manufacturing practice", (f"Statement after ISO 22716: {TO_FILL}",)),
        RecordPart("Undesirable effects", _complaints(session, record.facts.bench.row.id)),
        RecordPart("Foreseeable misuse", MISUSE),
        RecordPart("Responsible person", persons or (TO_FILL,)),
        RecordPart("US register", _register(product.records)),
    ]


def _complaints(session: Session, batch_id: int) -> Sequence[str]:
    rows = complaints_of_batches(session, [batch_id])
    said = [
        f"{row.at:%Y-%m-%d}, {row.kind}{', serious' if row.serious else ''}: {row.what} {row.done or 'Nothing done yet.'}"
        + (f" US report by {day}." if (day := report_by(row)) else "")
        for row in rows
    ]  # fmt: skip
    return said or ("None is known of this batch.",)


def _register(records: Sequence[str]) -> Sequence[str]:
    """Say what of the US register is on file: facility, listing; serious events stand among undesirable effects."""
    facility = "on file" if "us_registration" in records else "not on file"
    listing = "on file" if "us_listing" in records else "not on file"
    return (f"Facility registration: {facility}. Product listing: {listing}. Small businesses may be exempt: FD&C Act s. 612.",)
