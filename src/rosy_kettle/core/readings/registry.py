"""The registry of readings: id, unit, kind, basis, and how each is worked out in one sentence."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["READINGS", "Reading"]


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading. Kind is exact (arithmetic, law), physical (published theory) or practice (fitted to common practice)."""

    id: str
    label: str
    unit: str
    kind: str
    basis: str
    explained: str

    @property
    def page(self) -> str:
        """Page of docs/science that derives it."""
        return PAGES.get(self.id, PAGES[self.id.split(".")[0]])


PAGES = {
    "mass_g": "amounts", "dough": "dough", "fizz": "gas", "bath": "bath", "lather": "lather", "firmness": "firmness",
    "release": "release", "drying": "drying", "feel": "feel", "skin": "skin", "piece": "pieces", "shelf": "drying",
    "cost": "money", "dough.mix_temperature_c": "heat", "dough.working_window_c": "dough",
}  # fmt: skip
"""Page of docs/science of each group, and of readings that have one of their own."""
READINGS = (
    Reading("mass_g", "Batch", "g", "exact", "batch", "The sum of all lines in grams."),
    Reading("dough.saturation", "Dough", "", "physical", "batch",
            "Liquid volume against what the powders drink up to the plastic limit; fats count by their molten share. "
            "Band 17 %, wider with volumes."),
    Reading("dough.working_window_c", "Working window", "°C", "physical", "batch",
            "The longest run of temperatures in the wanted state; kneaded doughs keep at least 2 % of their fat solid."),
    Reading("fizz.co2_l", "Fizz", "L", "exact", "batch",
            "Carbon dioxide by stoichiometry, as a gas at bath temperature and 1 atm."),
    Reading("fizz.brisk_co2_l", "Brisk fizz", "L", "practice", "batch",
            "The same with every acid counted by its speed; slow acids such as cream of tartar hardly show."),
    Reading("fizz.base_to_acid", "Base to acid", "g/g", "exact", "batch", "Bases against acids by mass, baking powder left out."),
    Reading("fizz.bicarbonate_left_g", "Bicarbonate left", "g", "exact", "batch", "What the acid leaves unspent."),
    Reading("lather.active_g", "Active in bath", "g", "exact", "dose",
            "Surfactant lines times their active fraction, for one dose."),
    Reading("lather.concentration_mg_l", "Active in water", "mg/L", "exact", "dose",
            "Active surfactant of a dose over the tub's water."),
    Reading("dough.mix_temperature_c", "After mixing", "°C", "physical", "batch",
            "Warm wet phase against powders and bowl at room temperature, melting heat counted. Band 3 °C."),
    Reading("lather.foam_l", "Foam", "L", "practice", "dose",
            "15 L a gram of reference surfactant, lifted by mixing kinds, broken by oil."),
    Reading("lather.score", "Foam score", "of 100", "practice", "dose",
            "Foam in the tub on a scale that fills; well-liked doses score 50 to 70. Band 12."),
    Reading("lather.height_cm", "Foam height", "cm", "practice", "dose", "Foam over the water surface of the tub."),
    Reading("lather.character", "Character", "of 100", "practice", "dose",
            "0 creamy to 100 fluffy, by the surfactants; oil makes it creamier."),
    Reading("lather.half_life_min", "Half gone after", "min", "practice", "dose",
            "Minutes from the full tub until half the foam is gone. Within a factor of 2."),
    Reading("bath.ph_fresh", "Bath pH, fresh", "", "physical", "dose",
            "Charge balance with activity and temperature, all gas still in the water. Band 0.1."),
    Reading("bath.ph_stepin", "pH at step-in", "", "physical", "dose",
            "Half of the fast acids' gas has left as bubbles. Band 0.25."),
    Reading("bath.ph_soak", "Bath pH after 20 min", "", "physical", "dose", "Twenty minutes of losing gas to the air. Band 0.3."),
    Reading("bath.ph_aired", "Bath pH, aired", "", "physical", "dose",
            "Overnight, in balance with the air; nobody bathes in it."),
    Reading("firmness.at_20_c", "Firmness at 20 °C", "of 98", "practice", "piece",
            "What hardens less what softens, by share; fat-carried pieces by solid fat. Band 12; trust a ranking 10 apart."),
    Reading("firmness.at_30_c", "Firmness at 30 °C", "of 98", "practice", "piece",
            "The same piece on a warm shelf."),
    Reading("release.minutes", "Gone after", "min", "practice", "dose",
            "Melting, fizzing and washing together. Within a factor of 1.6."),
    Reading("drying.hours", "Dry after", "h", "practice", "piece",
            "Water, alcohol or fat, whichever takes longest, and the glycerin on top, in your room's air."),
    Reading("feel.oil_g", "Oil per bath", "g", "exact", "dose", "Liquid oil and molten fat in one dose."),
    Reading("feel.free_oil_g", "Free oil", "g", "practice", "dose", "Oil that no emulsifier keeps in the water."),
    Reading("feel.ring", "Ring", "of 100", "practice", "dose",
            "Free oil, solid fat, mica, clay and the like on the tub. Band 15."),
    Reading("skin.harshness_mg_l", "Harshness", "mg/L", "practice", "dose",
            "As much sodium lauryl sulfate as would bite alike; no safety claim. Within a factor of 1.6."),
    Reading("skin.scent_share", "Scent on skin", "of its limit", "exact", "dose",
            "Each scent against its own certificate, summed, on dried mass. Without a certificate it is not known."),
    Reading("piece.density_g_ml", "Density", "g/mL", "physical", "piece", "The mix without air, times how it packs. Band 7 %."),
    Reading("dough.stickiness", "Sticks to gloves", "of 100", "practice", "batch",
            "From S 0.80 on, by how tacky the liquids are. Band 20."),
    Reading("dough.puff_pct", "Puff", "%", "practice", "batch",
            "Lift of the resting dough where acid meets free water; about a third is left once stirred down. Factor of 2."),
    Reading("fizz.prereaction_share", "Acid spent in the bowl", "of it", "practice", "batch",
            "Share of the fast acid that free water lets react before the bath. Within a factor of 2."),
    Reading("fizz.co2_piece_l", "Fizz of a piece", "L", "exact", "piece", "Gas of the batch, by the share of one piece."),
    Reading("feel.tint", "Tint", "of 100", "practice", "dose", "Light a bather loses over 20 cm of water to dyes. Band 15."),
    Reading("feel.cloud", "Cloud", "of 100", "practice", "dose", "The same to what scatters: milk, clay, starch. Band 25."),
    Reading("feel.stain", "Stain", "of the warning line", "practice", "dose",
            "Each colour against the line where it stains, summed."),
    Reading("piece.spin", "Spin", "of 100", "practice", "piece",
            "How much two unequal halves turn a floating piece; from 3 : 1 on it will. Band 25."),
    Reading("shelf.acid_loss_pct_day", "Fizz lost a day, open", "%/day", "practice", "piece",
            "Fast acid a naked piece loses on the shelf in your room's air. Within a factor of 3."),
    Reading("cost.full_piece", "Per piece, all in", "USD", "exact", "piece", "With packaging, labour and overhead."),
    Reading("cost.per_active_g", "Per gram of active", "USD", "exact", "batch", "All ingredients over the active surfactant."),
    Reading("cost.batch", "Batch", "USD", "exact", "batch", "Own prices where entered, else the middle of the reference band."),
    Reading("cost.piece", "Per piece", "USD", "exact", "piece", "Batch cost over what is left after loss, times the piece."),
    Reading("cost.bath", "Per bath", "USD", "exact", "dose", "Cost of a piece times the share of it used in one bath."),
)  # fmt: skip
"""Readings this version computes, in the order makers ask for them."""
