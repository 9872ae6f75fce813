"""A cool-down that is waited for: after an engine got too hot, or ran without coolant, nobody fires
it again before it has stood, and a hand has been laid on it.
"""

from datetime import datetime

from hollet.core.entries import AttemptEnded, AttemptStarted, BookState, Confirmed
from hollet.core.entries.status import plan_of
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.steps.heat import FIRED
from hollet.core.steps.run import attempt_facts
from hollet.core.view import View

__all__ = ["COLD", "COOL_S", "CoolDown", "cool_down"]

COOL_S = 30 * 60.0
"""How long it stands after it was too hot, in s: a rule of thumb, the maker's word goes first."""
COLD = "Cold: a hand can stay on the head and on the hose"


class CoolDown(View):
    """Why it has to cool, since when (UTC), how long it stands at least (s) and how much of that is
    left; then it is felt: the box.
    """

    why: str
    since: str
    stands_s: float
    left_s: float
    box: str


def cool_down(state: BookState, step: RunStep, now: str) -> CoolDown | None:
    """What is still to be waited for before this rung is climbed; None where nothing is."""
    if step.rung not in FIRED:
        return None
    runs = {s.id: r for s in plan_of(state).step if (r := s.as_run()) is not None}
    found = None
    for start in state.all(AttemptStarted):
        run = runs.get(start.body.step)
        ends = state.each(AttemptEnded, "run", start.body.attempt)
        if run is None or run.rung not in FIRED or not ends:
            continue
        facts = attempt_facts(state, run, start.body.attempt)
        hot = next((t for t in facts.tracks if t.key == "coolant" and t.verdict == "outside"), None)
        if hot is not None:
            found = ("it was too hot", ends[0])
        elif start.body.gate == "limited" and run.rung == "fire":
            found = ("it ran without coolant", ends[0])
    if found is None:
        return None
    why, end = found
    felt = [
        e
        for name in runs
        for e in state.each(Confirmed, "step", name)
        if e.body.what == COLD and e.seq > end.seq and _gone(end.time, e.time) >= COOL_S
    ]
    if felt:
        return None
    left = max(0.0, COOL_S - _gone(end.time, now))
    return CoolDown(why=why, since=end.time, stands_s=COOL_S, left_s=left, box=COLD)


def _gone(since: str, at: str) -> float:
    return (datetime.fromisoformat(at) - datetime.fromisoformat(since)).total_seconds()
