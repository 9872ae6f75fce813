"""Like parts side by side: what their pattern supports, and mostly what it does not."""

from collections.abc import Sequence

from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.limits import Judgement
from hollet.core.procedure.kinds.inspect import InspectPart
from hollet.core.steps.causes import CauseFacts
from hollet.core.steps.faces import FaceFacts
from hollet.core.steps.parts import InspectionFacts
from hollet.core.steps.results import result_of
from hollet.core.view import View

__all__ = ["PositionTable", "position_tables"]

FEW = 4


class PositionRow(View):
    """One position of a group: its findings by face, the worst grade, the clearance
    measured there.
    """

    position: str
    part: str
    faces: tuple[FaceFacts, ...]
    grade: int
    clearance: Judgement | None
    clearance_name: str


class PositionTable(View):
    """Like parts side by side, with what the pattern does and does not say."""

    group: str
    rows: tuple[PositionRow, ...]
    says: tuple[str, ...]


def position_tables(
    state: BookState,
    found: Sequence[InspectionFacts],
    spec: dict[str, InspectPart],
    causes: Sequence[CauseFacts],
    tools: Sequence[Instrument],
) -> tuple[PositionTable, ...]:
    groups: dict[str, list[PositionRow]] = {}
    told: dict[str, list[CauseFacts]] = {}
    for step, part in ((facts.step, p) for facts in found for p in facts.parts):
        if part.group is None:
            continue
        told[part.group] = [cause for cause in causes if cause.step in (None, step)]
        judgement, name = _clearance(state, spec[part.id], tools)
        groups.setdefault(part.group, []).append(
            PositionRow(
                position=part.position or part.name,
                part=part.name,
                faces=part.faces,
                grade=max((f.grade or 0 for f in part.faces), default=0),
                clearance=judgement,
                clearance_name=name,
            )
        )
    return tuple(
        PositionTable(group=group, rows=tuple(rows), says=_says(rows, told[group]))
        for group, rows in groups.items()
    )


def _clearance(
    state: BookState, part: InspectPart, tools: Sequence[Instrument]
) -> tuple[Judgement | None, str]:
    step = plan_of(state).find_step(part.clearance[0]) if part.clearance else None
    if part.clearance is None or step is None:
        return None, ""
    result = next((r for r in step.results() if r.id == part.clearance[1]), None)
    return (result_of(state, step, result, tools).judgement, result.name) if result else (None, "")


def _says(rows: Sequence[PositionRow], causes: Sequence[CauseFacts]) -> tuple[str, ...]:
    """What the pattern of like parts supports, and mostly what it does not."""
    said = []
    unseen = sum(any(f.state == "not_seen" for f in row.faces) for row in rows)
    if unseen:
        said.append(f"{unseen} of {len(rows)} are not wholly seen: no pattern yet")
    worst = max((row.grade for row in rows), default=0)
    bad = [row for row in rows if row.grade == worst] if worst else []
    read = [row for row in rows if row.clearance is not None and row.clearance.value is not None]
    if bad and len(bad) < len(rows) and len(read) >= 2 and not unseen:
        tight = min(read, key=lambda row: row.clearance.value or 0.0)  # type: ignore[union-attr]
        loose = max(read, key=lambda row: row.clearance.value or 0.0)  # type: ignore[union-attr]
        apart = (loose.clearance.value or 0.0) - (tight.clearance.value or 0.0)  # type: ignore[union-attr]
        big_u = max(row.clearance.U or 0.0 for row in read)  # type: ignore[union-attr]
        names = ", ".join(row.position for row in bad)
        if apart <= 2 * big_u:
            said.append(
                "their clearances differ by no more than the tools can tell: clearance explains "
                "nothing here"
            )
        elif len(bad) == 1 and bad[0] is tight:
            said.append(f"the worst one ({names}) is the tightest: clearance may be the reason")
        elif len(bad) == 1 and bad[0] is loose:
            said.append(
                f"the worst one ({names}) is the loosest: reason or result, clearance alone "
                "does not tell"
            )
        else:
            said.append(
                f"the worst ({names}) is neither the tightest ({tight.position}) nor the "
                f"loosest ({loose.position}): clearance does not explain it"
            )
    elif bad and len(bad) == len(rows) and len(rows) > 1 and not unseen:
        said.append(
            "all of them alike: look for what they share, oil and filter, not for the one place"
        )
    if bad and len(rows) < FEW:
        said.append(f"{len(rows)} samples prove little")
    doubts = [cause.doubt for cause in causes if cause.doubt]
    return (*said, *doubts[:1]) if bad else tuple(said)
