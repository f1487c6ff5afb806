"""Practice: bowls with hidden truth, run after run."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.batches import BatchAnswer, EventSave
from rosy_kettle.api.schemas.happenings import coming_of, name_of
from rosy_kettle.api.schemas.practice_runs import (
    ActSave,
    BestHandAnswer,
    CalledAnswer,
    CardAnswer,
    CardList,
    CardQuery,
    DebriefAnswer,
    FeltAnswer,
    JarAnswer,
    MomentAnswer,
    PracticeBowl,
    PracticeBowlList,
    RunAnswer,
    RunGlance,
    RunList,
    RunPath,
    RunQuery,
    RunSave,
    StepEffect,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.practice.bowl import Act
from rosy_kettle.core.practice.debrief import HINT_COSTS, Debrief
from rosy_kettle.files import formula_to_file
from rosy_kettle.reference import load_practice, load_tables
from rosy_kettle.store.practice_runs import list_practice_runs
from rosy_kettle.usecases.clinic.practise import (
    Run,
    act_in_run,
    begin_run,
    cards,
    look_at_run,
    state_words,
    truth_words,
    was_done,
)
from rosy_kettle.usecases.clinic.practise_at_bench import act_of_event, bench_of_run

__all__ = ["blueprint"]

blueprint = part("practice_runs", __name__, "/api/practice-runs", (404, 409, 422))


@blueprint.get("/bowls", summary="Bowls one can practise at", responses={200: PracticeBowlList})
def bowls() -> Response:
    methods = load_tables().methods
    return respond(PracticeBowlList(items=[
        PracticeBowl(id=each.id, title=each.title, story=each.story, level=each.level, method=methods[each.method].name)
        for each in load_practice().values()
    ]))  # fmt: skip


@blueprint.get("/cards", summary="Doughs for the eye", responses={200: CardList})
def eye(query: CardQuery) -> Response:
    states = list(load_tables().parameters.dough.lower_edges)
    return respond(CardList(items=[CardAnswer(saturation=s, state=state) for s, state in cards(query.seed)], states=states))


@blueprint.get("", summary="Runs, the newest first", responses={200: RunList})
def list_(query: RunQuery) -> Response:
    bowls_ = load_practice()
    with current_studio().reading() as session:
        rows = list_practice_runs(session, before=query.cursor, limit=query.limit + 1)
        items = [
            RunGlance(
                id=row.id, scenario=row.scenario, title=bowls_[row.scenario].title if row.scenario in bowls_ else row.scenario,
                seed=row.seed, ended=row.ended, score=row.score, created_at=row.created_at,
            )
            for row in rows[: query.limit]
        ]  # fmt: skip
    return respond(RunList(items=items, next=items[-1].id if len(rows) > query.limit else None))


@blueprint.post("", summary="Begin a run", responses={201: RunAnswer})
def begin(body: RunSave) -> Response:
    with current_studio().writing() as session:
        run_id = begin_run(session, body.scenario, body.seed, body.key).id
    return _told(run_id, 201)


@blueprint.get("/<int:run_id>", summary="One run", responses={200: RunAnswer})
def read(path: RunPath) -> Response:
    return _told(path.run_id)


@blueprint.post("/<int:run_id>/acts", summary="Do one thing", responses={200: RunAnswer, 201: RunAnswer})
def act(path: RunPath, body: ActSave) -> Response:
    name = name_of(body.id)
    with current_studio().writing() as session:
        if was_done(session, path.run_id, name):
            return _told(path.run_id)
        act_in_run(session, path.run_id, body.after, Act(body.kind, body.ingredient, body.value, body.word), name)
    return _told(path.run_id, 201)


@blueprint.post("/<int:run_id>/events", summary="Let one thing of the bench happen", responses={200: RunAnswer, 201: RunAnswer})
def happen(path: RunPath, body: EventSave) -> Response:
    coming = coming_of(body)
    with current_studio().writing() as session:
        if was_done(session, path.run_id, coming.id):
            return _told(path.run_id)
        done = act_of_event(look_at_run(session, path.run_id), coming.kind, coming.data)
        act_in_run(session, path.run_id, coming.after, done, coming.id)
    return _told(path.run_id, 201)


def _told(run_id: int, status: int = 200) -> Response:
    with current_studio().reading() as session:
        return respond(_answer(look_at_run(session, run_id)), status)


def _answer(run: Run) -> RunAnswer:
    scenario, state = run.scenario, run.state
    last = state.path[-1]
    dough = state.told.dough
    jars = dict.fromkeys([*scenario.lines, scenario.wet, scenario.dry])
    return RunAnswer(
        id=run.row.id, scenario=scenario.id, seed=run.row.seed, title=scenario.title, story=scenario.story,
        hint=scenario.hint if state.hinted or state.ended else None, hint_costs=HINT_COSTS,
        level=scenario.level, wanted=list(dough.wanted.states) if dough is not None else [],
        jars=[JarAnswer(ingredient=id_, name=_name(id_), mass_g=scenario.lines.get(id_)) for id_ in jars],
        dry=scenario.dry, wet=scenario.wet, done=len(run.row.acts), minutes=last.minutes,
        temperature_c=round(last.temperature_c, 1),
        humidity_pct=scenario.humidity_pct, room_c=scenario.room_c,
        added=[JarAnswer(ingredient=id_, name=_name(id_), mass_g=mass_g) for id_, mass_g in state.shown_g.items()],
        felt=[
            FeltAnswer(minutes=each.minutes, state=state_words(each.saturation), temperature_c=each.temperature_c)
            for each in state.felt
        ],
        fresh=state.fresh, ended=state.ended, bench=_bench(run),
        debrief=None if run.debrief is None else _debrief(run, run.debrief),
    )  # fmt: skip


def _bench(run: Run) -> BatchAnswer:
    bench = bench_of_run(run)
    return BatchAnswer(
        id=run.row.id, formula_id=0, version=1, name=run.scenario.title, method=run.scenario.method, batch_g=bench.before.mass_g,
        pieces=bench.pieces, pieces_now=bench.pieces,
        created_at=run.row.created_at, closed_at=None, planned=formula_to_file(bench.planned),
        made=formula_to_file(bench.made), state=bench.state, bowl=1, bowls=1, events=[], held=[], before=bench.before,
        now=bench.now, so_far=bench.now, watch=None, feel=bench.feel, clock_rate=1.0,
    )  # fmt: skip


def _debrief(run: Run, found: Debrief) -> DebriefAnswer:
    best = found.best
    return DebriefAnswer(
        truth=truth_words(run.scenario), wanted_low=found.wanted[0], wanted_high=found.wanted[1], settles_at=found.settles_at,
        path=[
            MomentAnswer(minutes=each.minutes, settles_at=each.settles_at, now=each.now, temperature_c=each.temperature_c)
            for each in run.state.path
        ],
        effects=[
            StepEffect(
                minutes=each.minutes, ingredient=each.act.ingredient, name=_name(each.act.ingredient), mass_g=each.act.value,
                before=each.before, after=each.after,
            )
            for each in found.effects
        ],
        called=[
            CalledAnswer(minutes=each.minutes, called=each.word, was=state_words(each.saturation), saturation=each.saturation)
            for each in run.state.called
        ],
        score={name: round(points, 1) for name, points in asdict(found.score).items()} | {"whole": round(found.score.whole, 1)},
        best=BestHandAnswer(
            words=[_words(each) for each in best.acts], score=round(best.score.whole, 1), settles_at=best.settles_at
        ),
    )  # fmt: skip


def _words(act_: Act) -> str:
    if act_.kind == "add":
        return f"add {act_.value:g} g {_name(act_.ingredient).lower()}"
    return f"{act_.kind} {act_.value:g} min" if act_.value else act_.kind


def _name(id_: str) -> str:
    items = load_tables().ingredients
    return items[id_].short_name if id_ in items else id_
