"""Gas: what acid and base give off, in the tub and before it."""

from rosy_kettle.core.models.gas.gas_release import GasRelease, gas_release

__all__ = ["GasRelease", "gas_release"]
