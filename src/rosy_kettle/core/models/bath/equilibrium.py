"""Acid-base equilibrium of a bath: one charge balance, solved for the activity of H+.

Written in plain floats: the soak asks for some twenty solutions, each a few microseconds' work.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from rosy_kettle.core.amounts.units import ZERO_CELSIUS_K
from rosy_kettle.core.models.bath.activity import debye_huckel_slope
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.bath import BathParameters
from rosy_kettle.core.records import AcidSystem, CarbonateTable

__all__ = ["BathIons", "Constants", "Solution", "constants_at", "solve_aired", "solve_closed", "solve_outgassing"]

GAS_CONSTANT_KJ = 8.314462618e-3  # [kJ/(mol K)]; CODATA 2018
REFERENCE_K = 298.15  # temperature of the tabulated constants [K]
ROUNDS = 30  # activity rounds; three to six are needed
CHARGE_TOLERANCE = 1e-12  # of the charge balance [mol/L]; a Newton step past it is spent on nothing
ON_THE_WAY_TOLERANCE = 1e-8  # of a minute's state while carbon dioxide leaves: under 0.0001 in pH [mol/L]
STRENGTH_TOLERANCE = 1e-9  # of the ionic strength [mol/L]
HARD_TOLERANCE = 1e-2  # of the free calcium and magnesium, between two rounds [-]
NEWTON_STEPS = 60
ALONE = (1.0, 1.0, 1.0, 1.0, 1.0)  # without calcium and magnesium nothing pairs with them [-]
NO_PAIRS = (0.0, 0.0, 0.0, 0.0, 0.0)
MOST_PROTONS = 3  # of the acids in the table
NEUTRAL_PH = 7.0  # where a solution without a neighbour begins [-]
LN10 = math.log(10.0)


@dataclass(frozen=True, slots=True)
class Constants:
    """Thermodynamic constants at one temperature."""

    slope: float
    kw: float
    k1: float
    k2: float
    kh_mol_l_atm: float
    pair_na_hco3: float
    pair_na_co3: float
    pair_na_citrate: float
    pairs_calcium: tuple[float, ...]
    """With H2Cit-, HCit2-, Cit3-, HCO3- and CO3 2-; the same order for magnesium [L/mol]."""
    pairs_magnesium: tuple[float, ...]
    betas: dict[str, tuple[float, ...]]
    """Cumulative dissociation constants of each acid system."""
    first_charges: dict[str, int]
    parameters: BathParameters = USUAL.bath


@dataclass(frozen=True, slots=True)
class BathIons:
    """Totals in the bath, apart from carbonate."""

    strong_charge_mol_l: float
    """Strong cations over strong anions, all acids' own cations among them [mol/L]."""
    sodium_mol_l: float
    """Sodium that may pair [mol/L]."""
    acids_mol_l: tuple[tuple[str, float], ...]
    """Acid system and its total [mol/L]."""
    spectator_strength_mol_l: float
    """Ionic strength of ions that take no part [mol/L]."""
    calcium_mol_l: float = 0.0
    """Calcium that may pair: the tap's hardness [mol/L]."""
    magnesium_mol_l: float = 0.0
    """Magnesium that may pair, from salts in the dose [mol/L]."""


@dataclass(frozen=True, slots=True)
class Solution:
    """One equilibrium."""

    ph: float
    co2_aq_mol_l: float
    dic_mol_l: float
    ionic_strength_mol_l: float
    sodium_mol_l: float
    """Sodium that is not paired [mol/L]."""
    charge_error_mol_l: float
    calcium_mol_l: float = 0.0
    """Calcium that is not paired, as magnesium below [mol/L]."""
    magnesium_mol_l: float = 0.0


def constants_at(
    temperature_c: float, carbonate: CarbonateTable, systems: dict[str, AcidSystem], p: BathParameters = USUAL.bath
) -> Constants:
    """Return all constants at a temperature: carbonate and water by table, the rest by van 't Hoff.

    Parameters
    ----------
    temperature_c : float
        Bath temperature [°C]
    carbonate : CarbonateTable
        Water and carbonic acid over temperature
    systems : dict
        Acid systems by id
    p : BathParameters
        Ion pairs, activity

    Returns
    -------
    Constants
        Constants on the molal scale
    """
    kelvin = temperature_c + ZERO_CELSIUS_K
    turn = (1 / REFERENCE_K - 1 / kelvin) / (GAS_CONSTANT_KJ * LN10)  # log K moves by enthalpy times this

    def pair(constants: tuple[float, float]) -> float:
        return float(10 ** (constants[0] + constants[1] * turn))

    betas = {}
    for name, system in systems.items():
        total, steps = 0.0, []
        for pka, enthalpy in zip(system.pkas, system.enthalpies_kj_mol, strict=True):
            total += -pka + enthalpy * turn
            steps.append(10**total)
        betas[name] = tuple(steps)
    return Constants(
        slope=debye_huckel_slope(temperature_c, p),
        kw=10 ** -_between(temperature_c, carbonate.temperatures_c, carbonate.pkw),
        k1=10 ** -_between(temperature_c, carbonate.temperatures_c, carbonate.pk1),
        k2=10 ** -_between(temperature_c, carbonate.temperatures_c, carbonate.pk2),
        kh_mol_l_atm=10 ** _between(temperature_c, carbonate.temperatures_c, carbonate.log_kh),
        pair_na_hco3=pair((p.pair_na_hco3_log_k, p.pair_na_hco3_kj_mol)),
        pair_na_co3=pair((p.pair_na_co3_log_k, p.pair_na_co3_kj_mol)),
        pair_na_citrate=pair((p.pair_na_citrate_log_k, p.pair_na_citrate_kj_mol)),
        pairs_calcium=tuple(map(pair, p.pairs("ca"))),
        pairs_magnesium=tuple(map(pair, p.pairs("mg"))),
        betas=betas,
        first_charges={name: system.first_charge for name, system in systems.items()},
        parameters=p,
    )


def solve_closed(ions: BathIons, dic_mol_l: float, constants: Constants, start: Solution | None = None) -> Solution:
    """Return the equilibrium that keeps all inorganic carbon.

    Parameters
    ----------
    ions : BathIons
        Totals in the bath
    dic_mol_l : float
        Dissolved inorganic carbon [mol/L]
    constants : Constants
        Constants at bath temperature
    start : Solution or None
        A neighbouring equilibrium to begin from

    Returns
    -------
    Solution
        pH and what goes with it
    """
    return _solve(ions, constants, dic_mol_l, None, start)


def solve_aired(ions: BathIons, constants: Constants, start: Solution | None = None) -> Solution:
    """Return the equilibrium with room air.

    Parameters
    ----------
    ions : BathIons
        Totals in the bath
    constants : Constants
        Constants at bath temperature
    start : Solution or None
        A neighbouring equilibrium to begin from

    Returns
    -------
    Solution
        pH and what goes with it
    """
    return _solve(ions, constants, None, constants.kh_mol_l_atm * constants.parameters.air_co2_atm, start)


def solve_outgassing(
    ions: BathIons, start: Solution, constants: Constants, rate_per_min: float, co2_at_air_mol_l: float, minutes: int
) -> Solution:
    """Return the equilibrium after some minutes of losing carbon dioxide to the air, in one-minute Euler steps.

    Parameters
    ----------
    ions : BathIons
        Totals in the bath
    start : Solution
        Where it begins
    constants : Constants
        Constants at bath temperature
    rate_per_min : float
        Gas transfer velocity over depth [1/min]
    co2_at_air_mol_l : float
        CO2(aq) in equilibrium with room air [mol/L]
    minutes : int
        How long [min]

    Returns
    -------
    Solution
        pH and what goes with it

    Notes
    -----
    The ionic strength hardly moves meanwhile, so the activity coefficients are those of the start until the last step.
    """
    dic, co2, log_a = start.dic_mol_l, start.co2_aq_mol_l, -start.ph * LN10
    free = (start.sodium_mol_l, start.calcium_mol_l, start.magnesium_mol_l)
    balance = _Balance(ions, constants, dic, None, start.ionic_strength_mol_l, free)
    drift = 0.0
    for _ in range(minutes):
        dic = max(0.0, dic - rate_per_min * (co2 - co2_at_air_mol_l))
        balance.dic = dic
        before = log_a
        # Begun where the last minute's drift leads; on the way a coarser balance will do, the last state is solved in full.
        log_a, _error = _root(balance, log_a + drift, ON_THE_WAY_TOLERANCE)
        drift = log_a - before
        a = math.exp(log_a)
        co2 = dic / (1.0 + balance.c1 / a + balance.c2 / (a * a))
    return solve_closed(ions, dic, constants, replace(start, ph=-log_a / LN10))


def _between(x: float, xs: tuple[float, ...], ys: tuple[float, ...]) -> float:
    if x <= xs[0]:
        return ys[0]
    for index in range(1, len(xs)):
        if x <= xs[index]:
            share = (x - xs[index - 1]) / (xs[index] - xs[index - 1])
            return ys[index - 1] + share * (ys[index] - ys[index - 1])
    return ys[-1]


class _Balance:
    """The charge balance at fixed activity coefficients."""

    def __init__(
        self, ions: BathIons, c: Constants, dic: float | None, co2: float | None, strength: float,
        free: tuple[float, float, float],
    ) -> None:  # fmt: skip
        sodium, calcium, magnesium = free
        capped = min(strength, c.parameters.davies_ends_mol_l)
        root = math.sqrt(capped)
        shape = -c.slope * (root / (1.0 + root) - c.parameters.davies * capped) * LN10
        g1, g2, g3 = math.exp(shape), math.exp(4 * shape), math.exp(9 * shape)
        gamma = {0: 1.0, 1: g1, 2: g2, 3: g3, 4: math.exp(16 * shape)}
        self.g1 = g1
        self.dic, self.co2, self.ions = dic, co2, ions
        self.oh = c.kw / g1
        self.pair1 = c.pair_na_hco3 * g1 * g1
        self.pair2 = c.pair_na_co3 * g2
        self.pair3 = c.pair_na_citrate * g1 * g3 / g2
        # Activity turns each constant of a divalent ion into one of concentrations, by the charges of partner and pair.
        self.calcium = _by_activity(c.pairs_calcium, g1, g2, g3)
        self.magnesium = _by_activity(c.pairs_magnesium, g1, g2, g3) if magnesium else NO_PAIRS
        hard = _whole(self.calcium, calcium, self.magnesium, magnesium)
        self.hard = hard
        self.c1 = c.k1 / g1 * (hard[3] + self.pair1 * sodium)
        self.c2 = c.k1 * c.k2 / g2 * (hard[4] + self.pair2 * sodium)
        self.bare1, self.bare2 = c.k1 / g1, c.k1 * c.k2 / g2
        self.acids: list[tuple[str, float, int, list[float]]] = []
        for name, total in ions.acids_mol_l:
            first = c.first_charges[name]
            weights = [1.0 / gamma[abs(first)]]
            for step, beta in enumerate(c.betas[name], start=1):
                weight = beta / gamma[abs(first - step)]
                if name == "citric":  # pairs with calcium and magnesium at each step, with sodium once fully dissociated
                    weight *= hard[step - 1] + (self.pair3 * sodium if step == 3 else 0.0)  # noqa: PLR2004
                weights.append(weight)
            self.acids.append((name, total, first, weights))
        self.ladders = [
            (total, first, *weights, *(0.0,) * (MOST_PROTONS + 1 - len(weights))) for _, total, first, weights in self.acids
        ]

    def charge(self, a: float) -> tuple[float, float]:
        """Net charge, and its slope against ln a."""
        h, oh = a / self.g1, self.oh / a
        value = self.ions.strong_charge_mol_l + h - oh
        slope = h + oh
        x1, x2 = self.c1 / a, self.c2 / (a * a)
        if self.dic is not None:
            whole = 1.0 + x1 + x2
            f1, f2 = x1 / whole, x2 / whole
            mean = f1 + 2 * f2
            value -= self.dic * mean
            slope += self.dic * (f1 + 4 * f2 - mean * mean)
        else:
            co2 = self.co2 or 0.0
            value -= co2 * (x1 + 2 * x2)
            slope += co2 * (x1 + 4 * x2)
        for total, first, w0, w1, w2, w3 in self.ladders:
            # Written out for up to three protons: this is the innermost loop of all.
            p1 = w1 / a
            p2 = w2 / (a * a)
            p3 = w3 / (a * a * a)
            whole = w0 + p1 + p2 + p3
            mean = (p1 + 2.0 * p2 + 3.0 * p3) / whole
            value += total * (first - mean)
            slope += total * ((p1 + 4.0 * p2 + 9.0 * p3) / whole - mean * mean)
        return value, slope

    def strength_and_free(self, a: float) -> tuple[float, tuple[float, float, float], float, float]:
        """Ionic strength, free sodium, calcium and magnesium, CO2(aq) and DIC of the state reached."""
        ions = self.ions
        co2 = (self.co2 or 0.0) if self.dic is None else self.dic / (1.0 + self.c1 / a + self.c2 / (a * a))
        hco3, co3 = self.bare1 * co2 / a, self.bare2 * co2 / (a * a)
        citrates = self._citrates(a)
        partners = (*citrates, hco3, co3)
        sodium = ions.sodium_mol_l / (1.0 + self.pair1 * hco3 + self.pair2 * co3 + citrates[2] * self.pair3)
        calcium = _unpaired(ions.calcium_mol_l, self.calcium, partners)
        magnesium = _unpaired(ions.magnesium_mol_l, self.magnesium, partners)
        na_hco3, na_co3 = self.pair1 * hco3 * sodium, self.pair2 * co3 * sodium
        na_citrate = citrates[2] * self.pair3 * sodium
        hard = _whole(self.calcium, calcium, self.magnesium, magnesium)
        hard_citrate = citrates[2] * (hard[2] - 1.0)
        strength = ions.spectator_strength_mol_l + 0.5 * (a / self.g1 + self.oh / a + hco3 + 4 * co3 + na_co3 + sodium)
        strength += 0.5 * (max(0.0, ions.strong_charge_mol_l - ions.sodium_mol_l)) + 2 * na_citrate
        # The tap's cations were counted as single charges above; calcium on its own carries two, in a citrate pair one.
        strength += calcium + 0.5 * hard_citrate
        for name, total, first, weights in self.acids:
            power, whole, square = 1.0, 0.0, 0.0
            for step, weight in enumerate(weights):
                part = weight * power
                whole += part
                square += (first - step) ** 2 * part
                power /= a
            paired = 9 * (na_citrate + hard_citrate) + 4 * citrates[1] * (hard[1] - 1.0) if name == "citric" else 0.0
            strength += 0.5 * (total * square / whole - paired)
        dic = co2 + hco3 * hard[3] + co3 * hard[4] + na_hco3 + na_co3
        return max(0.0, strength), (sodium, calcium, magnesium), co2, dic

    def _citrates(self, a: float) -> tuple[float, float, float]:
        """Unpaired H2Cit-, HCit2- and Cit3- [mol/L], with the pairing of this round in their total."""
        for name, total, _first, weights in self.acids:
            if name == "citric":
                whole = sum(weight / a**step for step, weight in enumerate(weights))
                paired = (*self.hard[:2], self.hard[2] + self.pair3 * self.ions.sodium_mol_l)
                one, two, three = (total * weights[step] / paired[step - 1] / a**step / whole for step in (1, 2, 3))
                return one, two, three
        return 0.0, 0.0, 0.0


def _by_activity(pairs: tuple[float, ...], g1: float, g2: float, g3: float) -> tuple[float, float, float, float, float]:
    """Turn the constants of a divalent ion into those of concentrations, by the charges of partner and pair."""
    return pairs[0] * g2, pairs[1] * g2 * g2, pairs[2] * g2 * g3 / g1, pairs[3] * g2, pairs[4] * g2 * g2


def _whole(
    calcium_pairs: tuple[float, ...], calcium: float, magnesium_pairs: tuple[float, ...], magnesium: float
) -> tuple[float, float, float, float, float]:
    """Give each partner and its pairs, against the partner alone [-]. Written out: every round asks for it."""
    if not (calcium or magnesium):
        return ALONE
    ca, mg = calcium_pairs, magnesium_pairs
    return (
        1.0 + ca[0] * calcium + mg[0] * magnesium, 1.0 + ca[1] * calcium + mg[1] * magnesium,
        1.0 + ca[2] * calcium + mg[2] * magnesium, 1.0 + ca[3] * calcium + mg[3] * magnesium,
        1.0 + ca[4] * calcium + mg[4] * magnesium,
    )  # fmt: skip


def _unpaired(total: float, pairs: tuple[float, ...], partners: tuple[float, ...]) -> float:
    """Ion that is not paired [mol/L]."""
    if not total:
        return 0.0
    one, two, three, four, five = partners
    return total / (1.0 + pairs[0] * one + pairs[1] * two + pairs[2] * three + pairs[3] * four + pairs[4] * five)


def _solve(ions: BathIons, constants: Constants, dic: float | None, co2: float | None, start: Solution | None) -> Solution:
    strength = 0.5 * ions.sodium_mol_l + ions.spectator_strength_mol_l if start is None else start.ionic_strength_mol_l
    free = (ions.sodium_mol_l, ions.calcium_mol_l, ions.magnesium_mol_l)
    if start is not None:
        free = (start.sodium_mol_l, start.calcium_mol_l, start.magnesium_mol_l)
    log_a = -(NEUTRAL_PH if start is None else start.ph) * LN10
    co2_now = dic_now = error = 0.0
    for _ in range(ROUNDS):
        balance = _Balance(ions, constants, dic, co2, strength, free)
        log_a, error = _root(balance, log_a)
        before, hard_before = strength, free[1] + free[2]
        strength, free, co2_now, dic_now = balance.strength_and_free(math.exp(log_a))
        settled = abs(free[1] + free[2] - hard_before) < STRENGTH_TOLERANCE + HARD_TOLERANCE * hard_before
        if settled and abs(strength - before) < STRENGTH_TOLERANCE + 1e-4 * before:
            break
    return Solution(-log_a / LN10, co2_now, dic_now if dic is None else dic, strength, free[0], error, free[1], free[2])


def _root(balance: _Balance, log_a: float, tolerance: float = CHARGE_TOLERANCE) -> tuple[float, float]:
    """Newton inside a bracket: the balance rises with the activity of H+."""
    low, high = -16.0 * LN10, 1.0 * LN10
    value = 0.0
    for _ in range(NEWTON_STEPS):
        value, slope = balance.charge(math.exp(log_a))
        if abs(value) < tolerance:
            break
        if value > 0:
            high = log_a
        else:
            low = log_a
        step = log_a - value / slope
        log_a = step if low < step < high else 0.5 * (low + high)
    return log_a, value
