"""A recall as a list, and as a draft of the letter to those who have the pieces."""

from __future__ import annotations

from collections.abc import Iterator

from rosy_kettle.usecases.labels.find_again import Recall

__all__ = ["letter_of", "rows_of"]

PARTS = ("lots", "batches", "trays", "labels", "orders", "people", "photos", "complaints")
NAMES = ("name", "who", "market", "kind", "file")


def rows_of(found: Recall) -> Iterator[list[str]]:
    """Yield a heading and a row for everything a recall found: of which kind, its number, code, name, pieces, and how."""
    yield ["what", "id", "code", "name", "pieces", "how"]
    for part in PARTS:
        for each in getattr(found, part):
            name = next((str(each[key]) for key in NAMES if each.get(key)), "")
            number = str(each.get("id", each.get("order_id", "")))
            yield [
                part,
                number,
                str(each.get("code", "")),
                name,
                str(each.get("pieces", each.get("copies", ""))),
                str(each["how"]),
            ]
    for each in found.assumed:
        yield ["assumed", str(each["id"]), "", str(each["noun"]), "", str(each["text"])]


def letter_of(found: Recall, maker: str, contact: str) -> tuple[str, list[str]]:
    """Return subject and paragraphs of the letter; what the maker has to fill in stands in square brackets."""
    codes = ", ".join(each["code"] for each in found.batches) or found.code
    names = ", ".join(dict.fromkeys(each["name"] for each in found.batches)) or "[product]"
    people = ", ".join(dict.fromkeys(each["who"] for each in found.people)) or "[to whom]"
    reason = "We ask you not to use pieces with the code above any more, and to keep them apart. [Why, in one plain sentence.]"
    return f"Please do not use: {names}, {codes}", [
        "DRAFT. Read it, fill in what stands in brackets, and ask your assessor or authority before it is sent.",
        f"To: {people}", f"Product: {names}. Code on the pack: {codes}.", reason,
        "[What to do with them: bring them back, throw them away, be paid back.]",
        "If anybody feels unwell after using one, ask a doctor or the poison centre; in an emergency call the local number.",
        f"{maker or '[name]'}. {contact or '[telephone or address]'}",
    ]  # fmt: skip
