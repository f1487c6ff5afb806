"""Tap water by hardness class."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["AcidSystem", "CarbonateTable", "TapWater"]


@dataclass(frozen=True, slots=True)
class TapWater:
    """A hardness class with typical alkalinity and pH."""

    id: str
    name: str
    hardness_mg_l_caco3: float
    alkalinity_mg_l_caco3: float
    ph: float


@dataclass(frozen=True, slots=True)
class AcidSystem:
    """An acid that gives off protons one by one, from the form it is added in."""

    id: str
    pkas: tuple[float, ...]
    """At 25 °C and zero ionic strength."""
    enthalpies_kj_mol: tuple[float, ...]
    """Of each step; 0 where none is known."""
    first_charge: int
    """Charge of the form with all protons listed."""


@dataclass(frozen=True, slots=True)
class CarbonateTable:
    """Constants of water and carbonic acid over temperature."""

    temperatures_c: tuple[float, ...]
    pkw: tuple[float, ...]
    pk1: tuple[float, ...]
    pk2: tuple[float, ...]
    log_kh: tuple[float, ...]
    """Henry's constant, log10 of mol/(L atm)."""
