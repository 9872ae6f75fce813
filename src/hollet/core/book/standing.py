"""What the vehicle of a build cannot do now, read from its steps: it stands on stands, a brake line
is open, a track rod is off, a lead is off. Nobody types it.
"""

from collections import Counter

from hollet.core.book.fluids import empty_fluids
from hollet.core.book.ledger import left_open
from hollet.core.book.loads import counted_words, loads_now
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of, statuses
from hollet.core.steps.tighten import joint_facts

__all__ = ["cannot_do"]

TO_START = ("power_on", "crank", "fuel_on", "fire")
BY_SAFETY = {"brakes": "brakes", "steering": "steers", "wheels": "rolls", "suspension": "rolls"}


def cannot_do(state: BookState) -> dict[str, str]:
    """Of `rolls`, `steers`, `brakes`, `starts` those that it cannot, each with why in words."""
    found: dict[str, str] = {}
    under = [s for s in loads_now(state).supports.values() if s.carries == "vehicle"]
    if under and not any(s.kind == "wheels" for s in under):
        counts = Counter(s.kind for s in under)
        found["rolls"] = "it stands on " + " and ".join(
            counted_words(kind, n) for kind, n in sorted(counts.items())
        )
    for item in left_open(state):
        if item.blocks in TO_START:
            found.setdefault("starts", item.what)
    for fluid in empty_fluids(state):
        if "brake" in fluid.name.casefold():
            found.setdefault("brakes", f"{fluid.name} is drained")
    plan, known = plan_of(state), statuses(state)
    for step in plan.step:
        joints = (plan.find_joint(name) for name in step.takes_out())
        if known[step.id].status != "done":
            continue
        for joint in joints:
            ability = BY_SAFETY.get(joint.safety or "") if joint is not None else None
            if ability is None or joint is None:
                continue
            facts = joint_facts(state, joint)
            if not (facts.begun if ability == "rolls" else facts.final):
                words = "not final" if facts.begun else "off"
                found.setdefault(ability, f"{joint.name}: {words}")
    return found
