"""The simulated bowl follows the batch that is being made."""

from __future__ import annotations

from rosy_kettle.core.making.bench.window_watch import bowl_mix
from rosy_kettle.core.models.fats.cooling import bowl_heat
from rosy_kettle.devices import BenchDevices, BowlHeat
from rosy_kettle.usecases.batches.run_batch import Bench

__all__ = ["follow_batch"]

JUG_SHARE = 0.2  # of the whole bowl's heat that a jug of melted fat holds [-]; a stand-in needs no more


def follow_batch(bench: Bench, devices: BenchDevices) -> None:
    """Put into the simulated bowl what the step in hand has in it."""
    step = bench.state.step
    if step is None or step.kind != "temperature" or any(taken[0] == step.key for taken in bench.state.temperatures):
        return
    mix, bowl_j_k = bowl_mix(bench.made, bench.tables)
    heat_j_k, loss_w_k, latent = bowl_heat(mix, bowl_j_k)
    now = devices.clock.now()
    devices.bowl.room_c = bench.made.room.temperature_c
    if step.key == "window":
        dough = bench.now.dough or bench.now.portions[0].dough
        warm_c = None if dough is None else dough.mix_temperature_c
        devices.bowl.fill(warm_c or bench.made.room.temperature_c, BowlHeat(heat_j_k, loss_w_k, latent), now)
    elif step.low_c is not None:  # melting begins at the room's temperature
        devices.bowl.fill(bench.made.room.temperature_c, BowlHeat(JUG_SHARE * heat_j_k, JUG_SHARE * loss_w_k), now)
