"""A fault followed up: which causes are left after each test, which test splits them best now, what
stands against a test; what was changed last and what is temporary goes first.
"""

from collections.abc import Sequence

from hollet.core.book.ledger import temporary_items
from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.entries import (
    BookState,
    CauseFound,
    Entry,
    FaultStopSeen,
    FaultTested,
    SymptomSaid,
)
from hollet.core.entries.status import plan_of
from hollet.core.faults import Engine, FaultCause, FaultStop, FaultTest, Symptom
from hollet.core.procedure.words import RUNGS
from hollet.core.view import View

__all__ = ["FaultFacts", "changed_last", "fault_items", "fault_of", "faults_of", "stands_against"]

NEEDS_RUNG: dict[Engine, str] = {
    "crank": "crank",
    "run": "fire",
    "lifted": "gear",
    "drive": "drive",
}
"""The rung that has to be free for a test of this kind."""
KINDS = ("T", "R", "A")


class CauseLeft(View):
    """A cause that is still possible, what proves it, and whether something left open fits it."""

    id: str
    what: str
    proof: str
    sort: str


class TestNow(View):
    """A test that can be done: what is seen before, the answers, and what holds it, if anything."""

    id: str
    do: str
    before: tuple[str, ...]
    engine: Engine
    reading: bool
    answers: tuple[str, ...]
    held: str


class Tested(View):
    """A test that was done, and how many causes it left."""

    do: str
    words: str
    figure: str
    who: str
    time: str
    left: int


class FaultFacts(View):
    """One fault: its causes left, the tests in the order in which they split them, what was tested,
    what stands stopped; `go` another symptom that an answer points to.
    """

    id: str
    symptom: str
    name: str
    words: str
    since: str
    who: str
    ended: str
    stopped: tuple[FaultStop, ...]
    stops: tuple[FaultStop, ...]
    causes: tuple[CauseLeft, ...]
    tests: tuple[TestNow, ...]
    tested: tuple[Tested, ...]
    go: str | None
    against: str


def faults_of(state: BookState, shut: Sequence[str]) -> tuple[FaultFacts, ...]:
    """Every fault, those still followed up first; `shut` are the rungs that are shut now."""
    found = [fault_of(state, name, shut) for name, _ in state.names("fault")]
    known = [fault for fault in found if fault is not None]
    return tuple(sorted(known, key=lambda f: bool(f.ended)))


def fault_of(state: BookState, fault: str, shut: Sequence[str]) -> FaultFacts | None:
    """One fault as it stands; None where no symptom of it was said."""
    said = state.newest(SymptomSaid, "fault", fault)
    tree = state.lore.symptom_of(said.body.symptom) if said is not None else None
    if said is None or tree is None:
        return None
    tests = state.each(FaultTested, "fault", fault)
    stops = state.each(FaultStopSeen, "fault", fault)
    ended = state.newest(CauseFound, "fault", fault)
    left, history, against = _left(tree, tests)
    done = {e.body.test for e in tests}
    open_tests = [] if ended else [t for t in tree.test if t.id not in done]
    stopped = () if ended else tuple(FaultStop(when=s.body.when, then=s.body.then) for s in stops)
    last = tests[-1].body if tests else None
    return FaultFacts(
        id=fault,
        symptom=tree.id,
        name=tree.name,
        words=said.body.words,
        since=said.time,
        who=said.who,
        ended=ended.body.line("") if ended is not None else "",
        stopped=stopped,
        stops=tree.stop,
        causes=tuple(_cause(c) for c in left),
        tests=tuple(_test(t, stopped, shut) for t in _ordered(open_tests, left)),
        tested=history,
        go=_go(tree, last) if last is not None and not ended else None,
        against=against,
    )


def _left(
    tree: Symptom, tests: Sequence[Entry[FaultTested]]
) -> tuple[list[FaultCause], tuple[Tested, ...], str]:
    """The causes left after each test; answers that leave none together contradict each other, and
    the last one counts.
    """
    left = [c.id for c in tree.cause]
    history, against = [], ""
    for entry in tests:
        test = next((t for t in tree.test if t.id == entry.body.test), None)
        if test is None or entry.body.answer >= len(test.answer):
            continue
        names = test.answer[entry.body.answer].causes
        both = [name for name in left if name in names]
        if names and not both:
            against = "two answers contradict each other: look again, one at a time"
            left = list(names)
        elif names:
            left = both
        history.append(
            Tested(
                do=entry.body.do,
                words=entry.body.words,
                figure=entry.body.figure,
                who=entry.who,
                time=entry.time,
                left=len(left),
            )
        )
    causes = [c for c in tree.cause if c.id in left]
    causes.sort(key=lambda c: (KINDS.index(c.kind), -c.weight))
    return causes, tuple(history), against


def _ordered(tests: Sequence[FaultTest], left: Sequence[FaultCause]) -> list[FaultTest]:
    """Tests that still split what is left, the one whose worst answer leaves fewest first."""
    names = {c.id for c in left}
    if len(names) < 2:
        return []

    def worst(test: FaultTest) -> int:
        return max((len(names.intersection(a.causes) or names) for a in test.answer), default=0)

    splits = [
        t for t in tests if len({frozenset(names.intersection(a.causes)) for a in t.answer}) > 1
    ]
    return sorted(splits, key=worst)


def _cause(cause: FaultCause) -> CauseLeft:
    sort = {"T": "temporary or left open", "R": "changed in the rebuild", "A": "age"}[cause.kind]
    return CauseLeft(id=cause.id, what=cause.what, proof=cause.proof, sort=sort)


def _test(test: FaultTest, stopped: Sequence[FaultStop], shut: Sequence[str]) -> TestNow:
    return TestNow(
        id=test.id,
        do=test.do,
        before=test.before(),
        engine=test.engine,
        reading=test.record == "reading",
        answers=tuple(answer.words for answer in test.answer),
        held=stands_against(test, stopped, shut),
    )


def stands_against(test: FaultTest, stopped: Sequence[FaultStop], shut: Sequence[str]) -> str:
    """Why a test is not done now: the engine stays off while something stopped it, and no test
    climbs a rung that is shut.
    """
    if test.engine == "still":
        return ""
    if stopped and (test.engine != "crank" or any("no starter" in s.then for s in stopped)):
        return f"stopped: {stopped[0].when}. First the cause, mended and looked at"
    rung = NEEDS_RUNG[test.engine]
    return f"{RUNGS[rung]} is shut" if rung in shut else ""


def _go(tree: Symptom, last: FaultTested) -> str | None:
    test = next((t for t in tree.test if t.id == last.test), None)
    return test.answer[last.answer].go if test and last.answer < len(test.answer) else None


def changed_last(state: BookState, most: int = 3) -> tuple[str, ...]:
    """The first suspects: what is temporary and still in, and what was changed last."""
    plan = plan_of(state)
    temporary = [item.what for item in temporary_items(state)]
    changed = []
    for entry in state.last_lines(80):
        step = plan.find_step(entry.body.at())
        done = entry.body.stands().status == "done"
        if done and step is not None and step.as_run() is None and not step.readings():
            changed.append(f"{step.number} {step.title}")
    return (*temporary[:5], *changed[:most])


def fault_items(state: BookState) -> list[OpenItem]:
    """Faults that are followed up: one that was stopped shuts the rung at which it showed, others
    the next one.
    """
    rungs = list(RUNGS)
    found = []
    for fault in faults_of(state, ()):
        tree = state.lore.symptom_of(fault.symptom)
        if fault.ended or tree is None:
            continue
        first = min(tree.rungs, key=rungs.index)
        after = rungs[min(rungs.index(first) + 1, rungs.index("drive"))]
        found.append(
            open_item(
                id=f"fault:{fault.id}",
                kind="fault",
                what=f"{fault.name}: {fault.stopped[0].when if fault.stopped else 'not found yet'}",
                blocks=first if fault.stopped else after,
                step=None,
                undo="find the cause",
                since=fault.since,
                who=fault.who,
            )
        )
    return found
