"""Makes pasted text plain before it is read: one kind of space, ASCII digits, fractions written with a slash, no HTML."""

from __future__ import annotations

import re
import unicodedata
from html.parser import HTMLParser

__all__ = ["plain_text", "tidy_line"]

BLOCK_TAGS = frozenset({"br", "div", "h1", "h2", "h3", "h4", "h5", "h6", "li", "ol", "p", "table", "tr", "ul"})
CELL_TAGS = frozenset({"td", "th"})
HTML_TAG = re.compile(r"</?(?:li|td|th|tr|p|br|div|ul|ol|table|h[1-6]|span|strong|b)\b[^<>]{0,200}>", re.IGNORECASE)
DIGIT_FRACTION = re.compile(r"(\d)[\s-]?<(\d+/\d+)>")
LONE_FRACTION = re.compile(r"<(\d+/\d+)>")
ORDINAL = re.compile(r"(\d/\d{1,2})(?:rds?|ths?|nds?)\b", re.IGNORECASE)  # "2/3rds of a cup"
SPACES = re.compile(r"[^\S\t]+")


class _Text(HTMLParser):
    """Collects the text of a pasted page; blocks become lines, cells are parted by tabs."""

    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.parts: list[str] = []

    def handle_starttag(self, tag: str, attrs: object) -> None:  # noqa: ARG002 - the parser's own signature
        if tag in BLOCK_TAGS:
            self.parts.append("\n")

    def handle_endtag(self, tag: str) -> None:
        if tag in BLOCK_TAGS:
            self.parts.append("\n")
        elif tag in CELL_TAGS:
            self.parts.append("\t")

    def handle_data(self, data: str) -> None:
        self.parts.append(data)


def plain_text(text: str) -> str:
    """Return pasted text with line ends unified and, where it is HTML, without tags."""
    text = text.replace("\r\n", "\n").replace("\r", "\n").replace("\x00", " ")
    if not HTML_TAG.search(text):
        return text
    page = _Text()
    page.feed(text)
    page.close()
    return "\n".join(line.rstrip("\t ") for line in "".join(page.parts).split("\n"))


def tidy_line(line: str) -> str:
    """Return one line with single spaces, ASCII digits and fractions as "1 1/2"."""
    if not line.isascii():
        line = "".join(map(_plain_character, line))
        line = LONE_FRACTION.sub(r"\1", DIGIT_FRACTION.sub(r"\1 <\2>", line))
        line = unicodedata.normalize("NFC", line)
    return SPACES.sub(" ", ORDINAL.sub(r"\1", line)).strip(" ")


def _plain_character(char: str) -> str:
    if char.isascii():
        return char
    spelled = unicodedata.decomposition(char)
    if spelled.startswith("<fraction>"):
        return "<" + unicodedata.normalize("NFKC", char).replace("⁄", "/") + ">"
    if char == "⁄":  # the fraction slash
        return "/"
    if char == "∕":  # the division slash
        return "/"
    category = unicodedata.category(char)
    if category == "Nd":
        return str(unicodedata.digit(char))
    if category in {"Zs", "Cf"}:
        return " " if category == "Zs" else ""
    return unicodedata.normalize("NFKC", char) if spelled.startswith(("<wide>", "<compat>", "<narrow>")) else char
