"""The setting a formula is judged in: method, room, tub, dose, with every default filled in."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.batch_loss import batch_loss
from rosy_kettle.core.mixing.mix import Mix, make_mix
from rosy_kettle.core.mixing.palette import FloatArray, Palette, dried_palette, require
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.mixing import MixingParameters
from rosy_kettle.core.records import Certificate, Formula, Method, Piece, Tables
from rosy_kettle.core.records.evaluation import Assumed, Missing

__all__ = ["Setting", "assumed_settings", "dough_fault", "missing_of", "setting_of"]


@dataclass(frozen=True, slots=True)
class Setting:
    """Everything that stands beside the masses."""

    formula: Formula
    method: Method
    assumed: Assumed
    tables: Tables

    @property
    def judged_c(self) -> float:
        """Temperature the dough is judged at [°C]."""
        return self.assumed.room_c if self.method.judged_at_c is None else self.method.judged_at_c

    @property
    def dried_first(self) -> bool:
        """Whether the method dries the surfactant's water off before the acid goes in."""
        return self.method.dried_first

    @property
    def wet_c(self) -> float:
        """Temperature of the wet phase as it is poured [°C]."""
        if self.formula.heat.wet_c is not None:
            return self.formula.heat.wet_c
        return self.assumed.room_c if self.method.wet_c is None else self.method.wet_c

    @property
    def bowl_j_k(self) -> float:
        """Heat capacity of the bowl [J/K]."""
        return self.method.bowl_j_k if self.formula.heat.bowl_j_k is None else self.formula.heat.bowl_j_k

    @property
    def certificates(self) -> dict[str, Certificate]:
        """Certificates of the scents: the formula's own stand over the studio's; a limit of another category is none."""
        found = {**self.tables.certificates, **self.formula.product.certificates}
        category = self.formula.product.scent_category
        return {id_: paper.counted_for(category, self.tables.safety.substances) for id_, paper in found.items()}

    def mix(self, palette: Palette, mass_g: FloatArray, *, sloped: bool = False) -> Mix:
        """Put masses into this setting; the fat is looked up at the temperatures that matter here."""
        worked = dried_palette(palette) if self.dried_first else palette
        return make_mix(worked, mass_g, (self.judged_c, self.assumed.room_c), sloped=sloped)


def assumed_settings(formula: Formula, method: Method, mass_g: float, p: MixingParameters = USUAL.mixing) -> Assumed:
    """Return the piece, the bath and the room a formula is judged in.

    Parameters
    ----------
    formula : Formula
        What the maker said
    method : Method
        What stands in for the rest
    mass_g : float
        Batch mass, for the loss [g]
    p : MixingParameters
        How loss grows with the surface

    Returns
    -------
    Assumed
        Settings with their units in their names
    """
    piece, use = formula.piece, formula.use
    return Assumed(
        method=method.id,
        piece_mass_g=method.piece_mass_g if piece.mass_g is None else piece.mass_g,
        half_thickness_mm=_half_thickness_mm(piece, method),
        packing=piece.packing or method.packing,
        dose_g=method.dose_g if use.dose_g is None else use.dose_g,
        way=use.way or method.way,
        tub_l=use.tub_l,
        bath_c=use.bath_c,
        room_c=formula.room.temperature_c,
        humidity_pct=formula.room.humidity_pct,
        loss_fraction=batch_loss(method.loss_fraction, mass_g, p),
    )


def _half_thickness_mm(piece: Piece, method: Method) -> float:
    """Return half the thickness of a piece: as typed, else that of the method's piece, grown like a body of the same shape.

    A piece of another mass keeps shape and density, so every length goes with the cube root of its mass.
    """
    if piece.half_thickness_mm is not None:
        return piece.half_thickness_mm
    if piece.mass_g is None:
        return method.half_thickness_mm
    return float(method.half_thickness_mm * (piece.mass_g / method.piece_mass_g) ** (1 / 3))


def setting_of(formula: Formula, tables: Tables, mass_g: float) -> Setting:
    """Return the setting of a formula.

    Parameters
    ----------
    formula : Formula
        What the maker said
    tables : Tables
        Reference tables
    mass_g : float
        Batch mass [g]

    Returns
    -------
    Setting
        With every default filled in
    """
    method = tables.method_of(formula)
    return Setting(formula, method, assumed_settings(formula, method, mass_g, tables.parameters.mixing), tables)


def dough_fault(mix: Mix) -> MissingDataError | None:
    """Return what keeps the dough from being judged: a powder without liquid demand, a liquid without density.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    MissingDataError or None
        The first property that is not known
    """
    palette, used = mix.palette, mix.mass_g > 0
    try:
        require(palette, palette.liquid_demand_ml_g, used, "liquid_demand_ml_100g")
        require(palette, palette.dough_volume_ml_g, used, "true_density_g_ml")
    except MissingDataError as error:
        return error
    return None


def missing_of(reading: str, error: MissingDataError) -> Missing:
    """Return the entry that says why a reading is null.

    Parameters
    ----------
    reading : str
        Dotted path of the reading
    error : MissingDataError
        What is not known

    Returns
    -------
    Missing
        Naming ingredient and property
    """
    return Missing(reading, str(error.facts["ingredient"]), str(error.facts["property"]), error.message)
