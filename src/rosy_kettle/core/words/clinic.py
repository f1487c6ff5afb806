"""What the clinic says: facts as sentences, questions with their choices."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["FACT_WORDS", "PEOPLE_CAUTION", "QUESTIONS", "SPOILT_CAUTION", "Question"]

PEOPLE_CAUTION = (
    "Rinse, and stop using it. If skin stings, reddens or itches, or it was a child, ask a doctor or pharmacist; "
    "nobody is diagnosed here."
)
SPOILT_CAUTION = "What smells off, has grown or was wetted and kept is thrown away, not mended."


@dataclass(frozen=True, slots=True)
class Question:
    """One question to the maker: its key among the answers, its words, and what can be answered."""

    id: str
    text: str
    choices: tuple[str, ...]
    facts: tuple[str, ...]
    """Facts it settles."""


QUESTIONS = (
    Question("packed", "How hard was it packed?", ("hard", "light"), ("packed-hard", "packed-light")),
    Question("sifted", "Were the powders sifted?", ("yes", "no"), ("not-sifted",)),
    Question("dough_c", "How warm was the dough?", ("°C",), ("dough-warm", "dough-cold")),
    Question("room_c", "How warm was the room?", ("°C",), ("room-warm", "room-cold")),
    Question("room_humidity_pct", "How damp was the room?", ("%",), ("humid",)),
    Question("hours_in_mould", "How long was it in the mould?", ("hours",), ("mould-short",)),
    Question("hours_dried", "How long did it dry?", ("hours",), ("dried-short",)),
    Question("weeks_open", "How many weeks has it lain open?", ("weeks",), ("long-open",)),
    Question("wrapped", "Was it wrapped once it was dry?", ("yes", "no"), ("not-wrapped",)),
    Question("scent_browns", "Does the scent hold vanilla or turn brown?", ("yes", "no"), ("scent-browns",)),
    Question("re_worked", "How often was it worked again?", ("times",), ("re-worked",)),
    Question("liquid_added_after_acid_g", "How much liquid went in after the acid?", ("g",), ("liquid-after-acid",)),
    Question("tap", "Which tap water was it?", ("soft", "moderate", "hard", "very-hard"), ("tap-hard",)),
    Question("way", "How did it go into the bath?", ("crumbled", "held", "whole"), ("way-still",)),
    Question("tub_l", "How many litres were in the tub?", ("L",), ("dose-low",)),
    Question("bath_c", "How warm was the bath?", ("°C",), ("bath-cool",)),
    Question("weighed", "Was it weighed on a scale or measured in cups?", ("scale", "cups"), ("weighed-cups",)),
    Question("stirred_while_pouring", "Was it stirred while it was poured?", ("yes", "no"), ("not-stirred",)),
)
FACT_WORDS = {
    "dough-dry": ("The dough is drier than its method wants.", "The dough is not too dry by its reading."),
    "felt-dry": ("The hands found it crumbly.", "The hands did not find it crumbly."),
    "dough-wet": ("The dough is wetter than its method wants.", "The dough is not too wet by its reading."),
    "felt-wet": ("The hands found it sticky.", "The hands did not find it sticky."),
    "weighed-cups": ("It was measured in cups.", "It was weighed on a scale."),
    "fat-melts-here": ("Its fat melts in this room.", "Its fat does not melt in this room."),
    "harsh-surfactant": ("A harsh surfactant is a good part of it.", "No harsh surfactant is a good part of it."),
    "room-warm": ("The room was warm.", "The room was not warm."),
    "room-cold": ("The room was cold.", "The room was not cold."),
    "dough-warm": ("The dough was warmer than its window.", "The dough was not too warm."),
    "dough-cold": ("The dough was colder than its window.", "The dough was not too cold."),
    "humid": ("The air was damp.", "The air was dry enough."),
    "not-wrapped": ("It was not wrapped.", "It was wrapped once it was dry."),
    "liquid-after-acid": ("Liquid went in after the acid.", "No liquid went in after the acid."),
    "acid-and-water": ("A fast acid and a watery liquid are in one dough.", "No fast acid meets water in the dough."),
    "humectant-high": ("Much of it is glycerin, which never leaves.", "There is not much glycerin in it."),
    "drying-long": ("Even in ordinary air it dries for days by its reading.", "In ordinary air it dries in time by its reading."),
    "air-too-damp": ("In that air it does not dry; in ordinary air it would.", "It dries in that air too."),
    "piece-thin": ("It is thin from skin to heart.", "It is not thin."),
    "surfactant-powder-high": ("Much of it is fine surfactant powder.", "There is not much surfactant powder."),
    "foam-low": ("The Desk says little foam.", "The Desk says foam enough."),
    "oil-high": ("Much oil and butter comes to one bath.", "Not much oil comes to one bath."),
    "tap-hard": ("The tap is hard.", "The tap is not hard."),
    "way-still": ("It went into still water.", "It was crumbled under the tap."),
    "packed-hard": ("It was packed hard.", "It was not packed hard."),
    "packed-light": ("It was packed lightly.", "It was not packed lightly."),
    "mould-short": ("It left its mould within hours.", "It stayed in its mould long enough."),
    "dried-short": ("It dried for less than the reading says.", "It dried as long as the reading says."),
    "re-worked": ("It was worked again.", "It was not worked again."),
    "not-sifted": ("The powders were not sifted.", "The powders were sifted."),
    "solid-fat-low": ("There is little solid fat in it.", "There is solid fat in it."),
    "liquid-oil-high": ("Much of the fat is liquid oil.", "Not much of it is liquid oil."),
    "ring-high": ("The Desk says a ring.", "The Desk says no ring."),
    "not-stirred": ("It was not stirred while it was poured.", "It was stirred while it was poured."),
    "emulsifier-missing": ("No emulsifier takes up the oils.", "There is an emulsifier for the oils."),
    "mica-bare": ("Mica is in it, and no emulsifier.", "No mica goes without an emulsifier."),
    "colour-high": ("There is much colour in it.", "There is not much colour in it."),
    "dye-dry": ("A dye is in it that has to be dissolved.", "There is no dye to be dissolved."),
    "sugar-on-it": ("Sugar decorates it.", "No sugar decorates it."),
    "scent-browns": ("The scent browns.", "The scent does not brown."),
    "scent-hot": ("The scent went into hot fat.", "The scent went in cool enough."),
    "scent-low": ("There is little scent in it.", "There is scent enough."),
    "acid-low": ("There is little acid for the soda.", "There is acid for the soda."),
    "one-dough": ("Both halves are of one dough.", "The halves are of two doughs."),
    "density-high": ("It is denser than water.", "It is lighter than water."),
    "long-open": ("It has lain open for weeks.", "It has not lain open long."),
    "dose-low": ("The dose is small for the tub.", "The dose fits the tub."),
    "bath-cool": ("The bath was cool.", "The bath was warm."),
    "wax-high": ("There is much wax in it.", "There is not much wax in it."),
    "lot-changed": ("Another jar was named at the bench.", "The jars were those that were to be used."),
    "weighing-off": ("A weighing was off its target.", "Every weighing was within its tolerance."),
    "line-left-out": ("A line was left out.", "No line was left out."),
    "two-weighings-off": ("Two weighings are off the other way round.", "No two weighings look exchanged."),
    "hardener-missing": ("Nothing in it stiffens it.", "There is something in it that stiffens it."),
    "bath-ph-high": ("The bath is alkaline by its reading.", "The bath is mild by its reading."),
    "harsh": ("It is harsh by its reading.", "It is mild by its reading."),
}
"""By fact: where it is so, and where it is not."""
