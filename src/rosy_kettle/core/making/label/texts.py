"""What stands on a label: the texts a market asks for, made of the formula and of the maker's facts, and what is still missing.

Nothing here says that a product is safe: which texts are enough is decided by local law and a licensed assessor.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from difflib import get_close_matches

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.amounts.units import OUNCE_G
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.durability import european
from rosy_kettle.core.making.label.letters import heights_of
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.parameters.label import LabelParameters
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.core.safety.called import spoken_tags
from rosy_kettle.core.safety.rules.use import SLIPPERY_PCT
from rosy_kettle.core.safety.scents import allergen_shares
from rosy_kettle.core.words.claims import claims_in
from rosy_kettle.core.words.label import CAUTION_740_17, CLAIMED, OWN_CAUTIONS, TO_BE_CONFIRMED, directions_words
from rosy_kettle.core.words.label_languages import CAUTIONS, DIRECTIONS, FOOD_TAGS, FOODS

__all__ = ["MARKETS", "LabelFacts", "LabelText", "LabelTexts", "MissingElement", "at_area", "label_texts"]

MARKETS = ("US", "EU", "UK")
POUND_OZ, FOUR_POUNDS_OZ, KILOGRAM_G = 16.0, 64.0, 1000.0
ROUNDING = 1e-9  # of a quotient of floats
SINGLE_USE_FREE_G = 5.0  # below it the EU asks for no nominal content [g]; Reg. (EC) 1223/2009 Art. 19(1)(b)
PAO_MONTHS = 30  # keeping longer, the period after opening stands in place of a day [months]; Art. 19(1)(c)
ASKS_FIRST = frozenset({"SKIN-EO-03", "SKIN-SALT-01", "SKIN-EPI-01"})
"""Rules whose finding is a line that sends people to a professional first."""
SAID_BY_FIXED = frozenset({"children", "stop"})
"""Own cautions that the fixed text says already."""
FOOD_WORDS = frozenset("cake cupcake cookie fudge sorbet candy chocolate macaron brownie doughnut ice-cream sweets".split())


@dataclass(frozen=True, slots=True)
class LabelFacts:
    """What the maker says; None and empty are not known."""

    name: str = ""
    """The product's own."""
    scent_name: str = ""
    identity: str = ""
    net_g: float | None = None
    maker: str = ""
    place: str = ""
    contact: str = ""
    batch_code: str = ""
    best_before: str = ""
    best_before_reason: str = ""
    """Why it keeps longer than the shortest-lived raw material; not printed."""
    pao_months: float | None = None
    directions: str = ""
    second_text: str = ""
    """A text in another language, as the maker has it translated; nothing is translated here."""
    languages: tuple[str, ...] = ("en",)
    confirmed_languages: tuple[str, ...] = ()
    """Languages whose texts a native reader has confirmed."""
    responsible_person: Mapping[str, str] = field(default_factory=dict)
    """Name and address of the one in the territory, by market."""
    origin: str = ""
    """Country it was made in, for what is imported."""
    package_panel_mm: tuple[float, float] | None = None
    """Width and height of the package's principal panel, where the sticker is smaller [mm]."""


@dataclass(frozen=True, slots=True)
class LabelText:
    """One text of the label with the height its letters must have."""

    element: str
    text: str
    height_mm: float
    """Of a capital where all are capitals, of the lower-case o else [mm]."""
    panel: str
    """principal or information."""
    bold: bool
    rule: str


@dataclass(frozen=True, slots=True)
class MissingElement:
    """Something the market asks for that is not there, or cannot stand as it is."""

    element: str
    rule: str
    message: str


@dataclass(frozen=True, slots=True)
class LabelTexts:
    """All texts of one market's label."""

    market: str
    texts: tuple[LabelText, ...]
    missing: tuple[MissingElement, ...]
    allergens: tuple[str, ...] = ()
    """Fragrance allergens that are named on it."""


@dataclass(frozen=True, slots=True)
class _LookedAt:
    """What the texts need to know of the formula beside its readings."""

    unknown_scents: tuple[str, ...] = ()
    """Scents nobody has taken apart."""
    asked: tuple[str, ...] = ()
    """Names on a scent's paper that nobody knows, each with what it may mean."""
    tags: frozenset[str] = frozenset()
    """What the names of its ingredients say of them."""


@dataclass(frozen=True, slots=True)
class _Label:
    formula: Formula
    facts: LabelFacts
    market: str
    told: Evaluation
    looked_at: _LookedAt
    roles: Mapping[str, str]
    """Role by ingredient id."""

    @property
    def us(self) -> bool:
        return self.market == "US"


def label_texts(
    formula: Formula, tables: Tables, facts: LabelFacts, market: str, panel_mm2: float, p: LabelParameters | None = None
) -> LabelTexts:
    """Return the texts of a label and what is missing of it.

    Parameters
    ----------
    formula : Formula
        As made
    tables : Tables
        Reference tables, with the certificates of scents
    facts : LabelFacts
        What the maker says
    market : str
        US, EU or UK
    panel_mm2 : float
        Area of the principal panel [mm2]
    p : LabelParameters or None
        Heights; None takes those of the law

    Returns
    -------
    LabelTexts
        Texts in the order they stand; a text that is not known is missing, never made up

    Raises
    ------
    InputError
        If there are no rules for the market.

    References
    ----------
    .. [1] 21 CFR 701.3, 701.11 to 701.13, 740.2, 740.11, 740.17; FD&C Act s. 609(a).
    .. [2] Regulation (EC) 1223/2009, Article 19; in the UK as retained.
    .. [3] Directive 76/211/EEC, Annex I, 3.1: heights of the nominal mass.
    """
    if market not in MARKETS:
        raise InputError(f'There are no label rules for "{market[:20]}" here; choose {", ".join(MARKETS)}.', quantity="market")
    sold = replace(formula, product=replace(formula.product, markets=(market,)))
    roles = {id_: item.role for id_, item in tables.ingredients.items()}
    label = _Label(sold, facts, market, evaluate(sold, tables, "label"), _look_at(sold, tables), roles)
    heights = heights_of(market, facts.net_g, _panel_mm2(facts, panel_mm2), p or LabelParameters())
    texts: list[LabelText] = []
    missing: list[MissingElement] = []
    for element, write, panel, bold in ELEMENTS:
        text, rule, lacking = write(label)
        if lacking:
            missing.append(MissingElement(element, rule, lacking))
        if text:
            texts.append(LabelText(element, text, heights[element], panel, bold, rule))
    more, asked = _other_languages(label, heights["caution"])
    at = next((at for at, text in enumerate(texts) if text.element == "ingredients"), len(texts))
    texts[at:at] = more
    missing += [*asked, *_problems(facts)]
    if label.us:  # in the bottom 30 % of the panel: 21 CFR 701.13(f)
        texts.sort(key=lambda text: text.element == "net_quantity")
    named = () if label.us else label.told.label.allergens
    return LabelTexts(market, tuple(texts), tuple(missing), named)


def at_area(made: LabelTexts, net_g: float | None, panel_mm2: float, p: LabelParameters | None = None) -> tuple[LabelText, ...]:
    """Return the same texts with the heights they must have on a label of another size.

    Parameters
    ----------
    made : LabelTexts
        Texts of one market
    net_g : float or None
        Net weight [g]
    panel_mm2 : float
        Area of the principal panel [mm2]
    p : LabelParameters or None
        Heights; None takes those of the law
    """
    heights = heights_of(made.market, net_g, panel_mm2, p or LabelParameters())
    return tuple(replace(text, height_mm=heights.get(text.element, heights["caution"])) for text in made.texts)


def _panel_mm2(facts: LabelFacts, label_mm2: float) -> float:
    """Return the area the law asks for: the package's principal panel, where that is known and not the sticker's own."""
    return label_mm2 if facts.package_panel_mm is None else facts.package_panel_mm[0] * facts.package_panel_mm[1]


def _look_at(formula: Formula, tables: Tables) -> _LookedAt:
    weighed, _missing = weigh_formula(formula, tables)
    mass_g = np.array([item.mass_g for item in weighed], dtype=np.float64)
    if not mass_g.sum():
        return _LookedAt()
    setting = setting_of(formula, tables, float(mass_g.sum()))
    palette = make_palette([item.ingredient for item in weighed], tables.parameters)
    found = allergen_shares(setting.mix(palette, mass_g), setting)
    scents = tuple(tables.ingredients[id_].short_name if id_ in tables.ingredients else id_ for id_ in found.unknown)
    tags = {tag for item in weighed for tag in spoken_tags(item.ingredient, tables.safety)}
    return _LookedAt(scents, tuple(_asked(name, tables) for name in found.asked), frozenset(tags))


def _asked(name: str, tables: Tables) -> str:
    """Return a name nobody knows, with the nearest that is known behind it."""
    near = get_close_matches(name.casefold(), tables.safety.substances, n=1)
    return f'"{name}" ({tables.safety.substances[near[0]]}?)' if near else f'"{name}"'


Written = tuple[str, str, str]
"""Text, rule, and what is lacking; empty is nothing."""


def _name(label: _Label) -> Written:
    return label.facts.name, "NAME-01", ""


def _scent_name(label: _Label) -> Written:
    return label.facts.scent_name, "NAME-01", ""


def _identity(label: _Label) -> Written:
    rule = "US-LABEL-01" if label.us else "EU-LABEL-01"
    lacking = "" if label.facts.identity else "Say in plain words what it is: solid bubble bath, bath melt."
    return label.facts.identity, rule, lacking


def _net(label: _Label) -> Written:
    rule = "US-LABEL-01" if label.us else "EU-LABEL-01"
    net_g = label.facts.net_g
    if net_g is None or net_g <= 0:
        free = not label.us and label.formula.product.single_use
        return "", rule, "" if free else "The net weight of a dried piece is not given."
    if not label.us:
        return ("", rule, "") if net_g < SINGLE_USE_FREE_G else (f"{_rounded(net_g)} g", rule, "")
    return f"Net Wt {_inch_pound(net_g / OUNCE_G)} ({_metric(net_g)})", rule, ""


def _inch_pound(ounces: float) -> str:
    """Return a mass as 15 USC 1453(a)(2) asks: ounces, from a pound with pounds behind, from four in pounds and ounces."""
    if ounces < POUND_OZ:
        return f"{_rounded(ounces)} oz"
    if ounces < FOUR_POUNDS_OZ:
        hundredths = int(100 * ounces / POUND_OZ + ROUNDING) / 100
        return f"{_rounded(ounces)} oz ({hundredths:.2f} lb)"
    pounds, rest = divmod(ounces + ROUNDING, POUND_OZ)
    tenths = int(rest * 10) / 10
    return f"{pounds:.0f} lb {tenths:g} oz" if tenths else f"{pounds:.0f} lb"


def _metric(net_g: float) -> str:
    return f"{_rounded(net_g / 1000)} kg" if net_g >= KILOGRAM_G else f"{_rounded(net_g)} g"


def _rounded(value: float) -> str:
    """Three figures, never up: a label does not promise more than there is."""
    digits = 0 if value >= 100 else 1 if value >= 10 else 2  # noqa: PLR2004 - three figures
    scaled = int(value * 10**digits + 1e-9) / 10**digits
    return f"{scaled:.{digits}f}".rstrip("0").rstrip(".") if digits else f"{scaled:.0f}"


def _ingredients(label: _Label) -> Written:
    names = label.told.label.declaration
    rule = "LABEL-ORDER-01"
    without = [line.text or "a line" for line in label.formula.lines if line.ingredient is None]
    if not names:
        return "", rule, "Nothing is weighed yet, so nothing can be declared."
    lacking = f'"{without[0]}" is not understood, so the list is not whole.' if without else ""
    return f"Ingredients: {', '.join(names)}.", rule, lacking


def _allergens(label: _Label) -> Written:
    lacking = ""
    if label.looked_at.unknown_scents and not label.us:
        scents = ", ".join(label.looked_at.unknown_scents)
        lacking = f"The allergens of {scents} are not known: ask the supplier, none is never the answer."
    if label.looked_at.asked and not label.us and not lacking:
        lacking = (
            f"What is {', '.join(label.looked_at.asked)} on the scent's paper? Give the name of the list, or the CAS number."
        )
    names = label.told.label.allergens
    text = f"Contains: {', '.join(names)}." if names and not label.us else ""
    return text, "EU-ALL-01", lacking


def _caution(label: _Label) -> Written:
    adults = label.formula.product.adult_only_label
    fixed = CAUTION_740_17 if label.us and _foams(label) and not adults else ""
    keys = [key for key in _keys_of(label) if not (fixed and key in SAID_BY_FIXED)]
    said = _cautions_in(_main_language(label), keys, label)
    return f"{fixed} {said}".strip(), "US-FOAM-01" if label.us else "EU-LABEL-01", ""


def _cautions_in(language: str, keys: Sequence[str], label: _Label) -> str:
    """Return the cautions of some keys in a language."""
    words = CAUTIONS.get(language, OWN_CAUTIONS)
    names = FOODS.get(language, FOODS["en"])
    what = ", ".join(names[tag] for tag in FOOD_TAGS if tag in label.looked_at.tags)
    return " ".join(words[key].format(what=what) for key in keys)


def _main_language(label: _Label) -> str:
    """Return the language its own texts are in: English in the US and UK and wherever it is wanted, else the first of the others.

    In the US no other language stands beside it: 21 CFR 701.2(b) would then ask for every text in that one too.
    """
    wanted = label.facts.languages
    return "en" if label.market != "EU" or "en" in wanted or not wanted else wanted[0]


def _other_languages(label: _Label, height_mm: float) -> tuple[list[LabelText], list[MissingElement]]:
    """Return cautions and directions in the other languages that are wanted, and which a native reader has still to confirm."""
    main = _main_language(label)
    texts: list[LabelText] = []
    wanted = () if label.us else label.facts.languages
    others = [each for each in dict.fromkeys(wanted) if each not in {"en", main}]
    for language in others:
        dose = _directions_in(language, label)
        texts += (
            [LabelText(f"directions_{language}", dose, height_mm, "information", bold=False, rule="EU-LABEL-01")] if dose else []
        )
        said = _cautions_in(language, _keys_of(label), label)
        texts.append(LabelText(f"caution_{language}", said, height_mm, "information", bold=True, rule="EU-LABEL-01"))
    foreign = [each for each in (main, *others) if each != "en" and each not in label.facts.confirmed_languages]
    return texts, [MissingElement(f"caution_{each}", "EU-LABEL-01", TO_BE_CONFIRMED.format(language=each)) for each in foreign]


def _foams(label: _Label) -> bool:
    """Whether it counts as foaming: surfactant in it, of known strength or not, and foam not ruled out."""
    unknown = any(_role(label, item.ingredient) == "surfactant" for item in label.told.lines)
    return label.formula.product.intended_foam is not False and (bool(label.told.lather.active_g) or unknown)


def _keys_of(label: _Label) -> list[str]:
    items = label.told.lines
    fats = sum(item.pct for item in items if _role(label, item.ingredient) in {"butter", "oil"})
    scented = any(_role(label, item.ingredient) == "fragrance" for item in items)
    coloured = any(_role(label, item.ingredient) == "colorant" for item in items)
    tags, adults = label.looked_at.tags, label.formula.product.adult_only_label
    keys = ["adults"] if adults else []
    keys += ["eyes", "children"]
    keys += ["slip"] if fats >= SLIPPERY_PCT else []
    keys += ["patch", "stop"] if scented else ["stop"]
    keys += ["stain"] if coloured else []
    keys += ["contains"] if tags.intersection(FOOD_TAGS) else []
    keys += ["health"] if any(entry.rule in ASKS_FIRST for entry in label.told.skin.ledger) else []
    keys += ["pets"] if "pet_poison" in tags else []
    keys += ["pour"] if any(entry.rule == "SKIN-ASTHMA-01" for entry in label.told.skin.ledger) else []
    facts = label.facts
    food = label.formula.product.looks_like_food or bool(_food_in(f"{facts.name} {facts.scent_name} {facts.identity}"))
    return [*keys, "not_food"] if food else keys


def _role(label: _Label, ingredient: str) -> str:
    return label.roles.get(ingredient, "")


def _directions(label: _Label) -> Written:
    if label.facts.directions:
        return label.facts.directions, "US-FOAM-02", ""
    dose_g = label.formula.use.dose_g or label.told.assumed.dose_g
    if not dose_g:
        return "", "US-FOAM-02", "How much goes into a bath? Give the dose, or the directions."
    main = _main_language(label)
    text = directions_words(dose_g, foams=_foams(label)) if main == "en" else _directions_in(main, label)
    return text, "US-FOAM-02", ""


def _directions_in(language: str, label: _Label) -> str:
    """Return directions by the dose in another language; none where no dose is known."""
    dose_g = label.formula.use.dose_g or label.told.assumed.dose_g
    return DIRECTIONS[language][0 if _foams(label) else 1].format(dose=f"{dose_g:.0f}") if dose_g else ""


def _second(label: _Label) -> Written:
    return label.facts.second_text, "EU-LABEL-01", ""


def _maker(label: _Label) -> Written:
    rule = "US-LABEL-01" if label.us else "EU-LABEL-01"
    facts = label.facts
    named = bool(facts.maker and facts.place) or bool(_person(label))
    lacking = "" if named else "Name and place of business are not given."
    return ", ".join(part for part in (facts.maker, facts.place) if part), rule, lacking


def _person(label: _Label) -> str:
    return "" if label.us else label.facts.responsible_person.get(label.market, "")


def _responsible(label: _Label) -> Written:
    """Who answers for it in the territory, where that is not the maker."""
    said, person = label.facts.responsible_person, _person(label)
    lacking = "" if label.us or person or not said else f"Nobody who is responsible in the {label.market} is named."
    return (f"Responsible person: {person}" if person else ""), "EU-LABEL-01", lacking


def _origin(label: _Label) -> Written:
    """Where it was made: asked for where it is imported, which a responsible person beside the maker says."""
    origin = label.facts.origin
    lacking = "" if origin or not (_person(label) and label.facts.maker) else "The country of origin of an import is not given."
    return (f"Made in {origin}" if origin else ""), "EU-LABEL-01", lacking


def _contact(label: _Label) -> Written:
    lacking = "" if label.facts.contact or not label.us else "No address, telephone or web site for reports of bad reactions."
    return label.facts.contact, "US-LABEL-02" if label.us else "EU-LABEL-01", lacking


def _batch(label: _Label) -> Written:
    code = label.facts.batch_code
    lacking = "" if code or label.us else "The batch number is not given."
    return (f"Batch {code}" if code else ""), "EU-LABEL-01", lacking


def _durability(label: _Label) -> Written:
    facts = label.facts
    if facts.best_before:
        said = f"Best before {facts.best_before}" if label.us else f"Best used before the end of {european(facts.best_before)}"
        return said, "EU-LABEL-02", ""
    months = label.formula.product.shelf_life_months
    if facts.pao_months is not None and months is not None and months > PAO_MONTHS:
        return f"{facts.pao_months:g}M after opening", "EU-LABEL-02", ""
    lacking = "Neither a best-before date nor, beyond 30 months, a period after opening is given."
    return "", "EU-LABEL-02", "" if label.us else lacking


ELEMENTS: tuple[tuple[str, Callable[[_Label], Written], str, bool], ...] = (
    ("name", _name, "principal", True), ("scent_name", _scent_name, "principal", False),
    ("identity", _identity, "principal", True), ("net_quantity", _net, "principal", True),
    ("directions", _directions, "information", False), ("caution", _caution, "information", True),
    ("second_text", _second, "information", False),
    ("ingredients", _ingredients, "information", False), ("allergens", _allergens, "information", False),
    ("maker", _maker, "information", False), ("responsible_person", _responsible, "information", False),
    ("origin", _origin, "information", False), ("contact", _contact, "information", False),
    ("batch", _batch, "information", False), ("durability", _durability, "information", False),
)  # fmt: skip
"""Elements in the order they stand, with how each is written, its panel, and whether it is bold."""


def _problems(facts: LabelFacts) -> list[MissingElement]:
    """Return what the words of a label must not say."""
    words = _food_in(facts.identity)
    typed = " ".join((facts.name, facts.scent_name, facts.identity, facts.directions, facts.second_text))
    found = []
    if words and "bath" not in facts.identity.casefold():
        message = f'"{facts.identity}" is the name of a food; say what it is for the bath.'
        found.append(MissingElement("identity", "NAME-01", message))
    for kind, word in claims_in(typed).items():
        found.append(MissingElement("identity", "ANY-CLAIM-01", CLAIMED[kind].format(word=word)))
    return found


def _food_in(text: str) -> frozenset[str]:
    """Words of food in a text; beside "bath" they count all the same."""
    return FOOD_WORDS & {word.strip(".,;:!?").casefold() for word in text.split()}
