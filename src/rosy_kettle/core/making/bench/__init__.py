"""The bench: steps, what happened, what to do when it went wrong."""

from rosy_kettle.core.making.bench.as_made import as_made, effects_of, in_grams
from rosy_kettle.core.making.bench.feel import FEELS, FeelAnswer, HandFeel, Mend, answer_feel, check_felt
from rosy_kettle.core.making.bench.fold import BATCH_EVENTS, about_batch, check_event, state_of
from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.making.bench.rescue import RescueOption, rescue_options
from rosy_kettle.core.making.bench.steps import BenchStep, bench_steps, step_from

__all__ = [
    "BATCH_EVENTS",
    "FEELS",
    "BenchState",
    "BenchStep",
    "FeelAnswer",
    "HandFeel",
    "Mend",
    "RescueOption",
    "about_batch",
    "answer_feel",
    "as_made",
    "bench_steps",
    "check_event",
    "check_felt",
    "effects_of",
    "in_grams",
    "rescue_options",
    "state_of",
    "step_from",
]  # fmt: skip
