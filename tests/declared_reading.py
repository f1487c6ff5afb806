"""A reading that only tests declare: how much of a formula is powder."""

from __future__ import annotations

from rosy_kettle.core.records.reading import Reading

POWDER_SHARE = Reading(
    "dough.powder_share", "Powder", "of it", "exact", "batch", "Powders as a share of the mass.", page="dough", question="hold",
    rests_on=("lather",), compute=lambda look: look.mix.of(~look.mix.palette.is_lean_liquid) / look.mix.total_g, aim=True,
    scale=(0.0, 1.0), decimals=2, desk=2,
)  # fmt: skip
