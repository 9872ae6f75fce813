"""Every fastener goes back and is final; counts and lengths agree; each order is one that draws a
part down evenly.
"""

import itertools
import math
import re
from collections import Counter
from collections.abc import Iterator, Sequence

from hollet.core.procedure.joints import Joint
from hollet.core.procedure.laws.breach import Found, Law, index_of
from hollet.core.procedure.pieces import BagSpec
from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.tightening.patterns import Point, moments

__all__ = ["FASTENING"]

FASTENERS = re.compile(r"(\d+)\s*(?:×|x)\s*([A-Za-z]+[\d./-]*)(?:\s*(?:×|x)\s*(\d+(?:\.\d+)?))?")
"""Such as `8 × M11×115` in the words of a joint."""
SAFETY_PARTS = re.compile(
    r"\b(wheel (nuts?|bolts?)|wheels off|hubs?|calipers?|(?<!crank )damper|track rod|ball joint|"
    r"half shaft|retainer|steering|anti-roll|u-bolt|shackle|brake|seat belt)\b",
    re.IGNORECASE,
)
ROD_CAP = re.compile(r"\b(rod caps?|connecting rods?|big ends?)\b", re.IGNORECASE)
SQUARE = 4


def _refits(sheet: Sheet, removed: Step) -> list[Step]:
    """The steps that put back what a step took off: those that name it, or close what it opened."""
    opened = {item.id for item in removed.opens}
    return [s for s in sheet.step if removed.id in s.refits or opened & set(s.closes)]


def _bagged(sheet: Sheet) -> Iterator[Found]:
    """Every bag line goes back into a joint that is tightened, or a step says how it is final."""
    tightened = {joint for step in sheet.step for joint in step.tightens()}
    for index, step in enumerate(sheet.step):
        back = _refits(sheet, step)
        for line in step.bag_specs():
            joint = step.back_into(line)
            if joint is not None and joint not in tightened:
                yield ("step", index, "bag"), f"no step tightens '{joint}' again"
            elif joint is None and not any(s.final for s in back):
                words = f"{line.count} × {line.size} of {step.title}: no joint, and no step that "
                yield ("step", index, "bag"), f"{words}puts it back says how they are final"


def _safe_parts(sheet: Sheet) -> Iterator[Found]:
    """Fasteners of wheels, brakes, steering and springs stand in a joint that says so."""
    for index, step in enumerate(sheet.step):
        for line in step.bag_specs():
            joint = sheet.find_joint(step.back_into(line))
            what = f"{step.title} {line.holes or ''} {line.size} {line.odd or ''}"
            if SAFETY_PARTS.search(what) and (joint is None or joint.safety is None):
                words = f"{line.count} × {line.size} of {step.title}: a safety part in no joint "
                yield ("step", index, "bag"), f"{words}with safety, so in no ledger"


def _counts(sheet: Sheet) -> Iterator[Found]:
    """The bag, the joint's words and its drawing say the same count, and the same lengths."""
    for index, joint in enumerate(sheet.joint):
        drawn = len(joint.layout.names())
        said = FASTENERS.findall(joint.fastener)
        counted = sum(int(count) for count, _, _ in said)
        if said and counted != drawn:
            words = f"{joint.name}: {counted} in words, {drawn} drawn"
            yield ("joint", index, "fastener"), words
        bagged = [
            (k, line)
            for k, step in enumerate(sheet.step)
            for line in step.bag_specs()
            if step.back_into(line) == joint.id
        ]
        for k in dict.fromkeys(k for k, _ in bagged):
            lines = [line for at, line in bagged if at == k]
            yield from _compared(joint, k, lines, drawn, said)


def _compared(
    joint: Joint,
    step: int,
    lines: Sequence[BagSpec],
    drawn: int,
    said: Sequence[tuple[str, str, str]],
) -> Iterator[Found]:
    total = sum(line.count for line in lines)
    if total != drawn:
        yield ("step", step, "bag"), f"{joint.name}: {total} in the bag, {drawn} drawn"
    lengths = Counter({line.length: line.count for line in lines if line.length})
    worded = Counter({length: int(count) for count, _, length in said if length})
    if lengths and worded != lengths:
        yield ("step", step, "bag"), f"{joint.name}: other lengths in the bag than in the joint"


def _orders(sheet: Sheet) -> Iterator[Found]:
    """Rows begin in the middle, circles and squares cross."""
    for index, joint in enumerate(sheet.joint):
        order = joint.sequence()
        if joint.pattern != "order":
            continue
        places = joint.layout.places()
        for group in joint.groups():
            wrong = _uneven([places[order[number - 1]] for number in group])
            if wrong is not None:
                yield ("joint", index, "order"), f"{joint.name}: {wrong}"


def _uneven(points: Sequence[Point]) -> str | None:
    """Why an order draws its part down crooked, for places in that order."""
    columns = {round(x, 3) for x, _ in points}
    rows = {round(y, 3) for _, y in points}
    if len(points) <= 2:
        return None
    if min(len(columns), len(rows)) <= 2 and max(len(columns), len(rows)) > 2:
        axis = 0 if len(columns) > len(rows) else 1
        line = [point[axis] for point in points]
        middle = (min(line) + max(line)) / 2
        away = [round(abs(at - middle), 3) for at in line]
        if any(a > b for a, b in itertools.pairwise(away)):
            return "a row begins in the middle and goes outward"
        return None
    if len(points) == SQUARE and len(columns) == len(rows) == 2:
        crossed = all(a[0] != b[0] and a[1] != b[1] for a, b in (points[:2], points[2:]))
        return None if crossed else "four bolts are drawn crosswise"
    cx, cy = (math.fsum(p[k] for p in points) / len(points) for k in (0, 1))
    most = max(math.hypot(x - cx, y - cy) for x, y in points)
    return None if max(moments(points)) <= most + 1e-6 else "the bolts of a circle are drawn across"


def _caps(sheet: Sheet) -> Iterator[Found]:
    """Both bolts of a rod cap go in turn through all stages, then the rod and the crank are
    proven.
    """
    for index, joint in enumerate(sheet.joint):
        pairs = all(len(group) == 2 for group in joint.groups())
        if ROD_CAP.search(joint.name) and not (joint.in_turn and joint.between and pairs):
            words = f"{joint.name}: one cap at a time, and then the rod slides and the crank turns"
            yield ("joint", index, "group"), words


def _late_safety(sheet: Sheet) -> Iterator[Found]:
    """A joint of a safety part is tightened by a step that shuts its rung."""
    place = index_of(sheet)
    for step in sheet.step:
        for name in step.tightens():
            joint = sheet.find_joint(name)
            if joint is not None and joint.safety and step.blocked(sheet.first) == "nothing":
                words = f"{joint.name}: a safety joint, and nothing is shut while it is loose"
                yield ("step", place[step.id], "blocks"), words


FASTENING = (
    Law(
        "bagged",
        "every bagged fastener goes back and is final",
        "joint on the bag line and a step that tightens it, or refits and final on the step that "
        "puts it back",
        _bagged,
    ),
    Law(
        "safety_joint",
        "a fastener of a safety part stands in a joint",
        "a [[joint]] with safety, such as wheels or suspension, and joint on the bag line",
        _safe_parts,
        safety=True,
    ),
    Law(
        "counts",
        "bag, joint and drawing agree",
        "the same count in bag, fastener and layout, and the same lengths",
        _counts,
    ),
    Law(
        "order",
        "rows start in the middle, circles cross",
        "an order from the middle outward for a row, crosswise for a square or a circle; group for "
        "bolts that draw down different parts",
        _orders,
    ),
    Law(
        "caps",
        "rod caps one at a time",
        "group with the two bolts of each cap, in_turn = true, and between",
        _caps,
    ),
    Law(
        "safety_open",
        "a loose safety joint shuts a rung",
        'blocks = "drive", or "fuel_on" for fuel, on the step that tightens it',
        _late_safety,
        safety=True,
    ),
)
