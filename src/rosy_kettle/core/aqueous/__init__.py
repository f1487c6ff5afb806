"""What happens between acid, base and water."""

from rosy_kettle.core.aqueous.gas_release import GasRelease, gas_release

__all__ = ["GasRelease", "gas_release"]
