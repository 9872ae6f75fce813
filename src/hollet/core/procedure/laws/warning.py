"""Where words speak of a danger, the caution speaks of it too; grinding says that it is dusty;
what is stuck says how far one goes.
"""

import re
from collections.abc import Iterator

from hollet.core.procedure.laws.breach import Found, Law, sentences, words_of
from hollet.core.procedure.laws.closing import NEGATED
from hollet.core.procedure.sheet import Sheet, Step

__all__ = ["HAZARDS", "WARNING"]


def _any(*words: str) -> re.Pattern[str]:
    return re.compile(rf"\b({'|'.join(words)})\b", re.IGNORECASE)


HAZARDS: dict[str, tuple[re.Pattern[str], re.Pattern[str]]] = {
    "a load that hangs": (
        _any(
            "hoist",
            "hook",
            "sling",
            "lift table",
            "hanging load",
            "lifted out",
            "lowered out",
            "(engine|gearbox|unit|box) (lowered|let down|dropped)",
            "raised in",
        ),
        _any("under", "between", "hands?", "fingers?", "swings?", "hang"),
    ),
    "a vehicle in the air": (
        _any(
            "axle stands?",
            "on stands",
            "stands in",
            "(crawl|lie|get) under the vehicle",
            "trolley jack under",
        ),
        _any("jack", "stands?"),
    ),
    "a spring under load": (
        _any(
            "coil springs?",
            "valve springs?",
            "torsion bars?",
            "gas springs?",
            "detents?",
            "snap rings?",
            "circlips?",
            "spring compressor",
            "leaf springs?",
            "tensioner (locked|out|off|released)",
            "shoe springs",
        ),
        _any("springs?", "flies", "fly", "jumps?", "eyes?", "whips?", "strikes?", "pinch(es)?"),
    ),
    "fuel": (
        _any("fuel (line|rail|hose|hoses|pipe|tank|pump|lines)", "petrol", "float bowl"),
        _any("fuel", "flame", "vapour"),
    ),
    "an airbag": (_any("air[ -]?bags?", "pretensioners?"), _any("air[ -]?bags?", "pretensioners?")),
    "refrigerant": (
        _any("refrigerant", "air[- ]condition(ing|er)", "air ?con", "a/c"),
        _any("refrigerant", "circuit"),
    ),
    "heat": (
        _any("hot", "scalds?", "warmed", "oven", "hot plate"),
        _any("hot", "scalds?", "burns?", "steam", "gloves", "cool"),
    ),
    "asbestos": (
        _any(
            "drums? off", "drums?", "brake shoes?", "clutch cover off", "clutch dust", "brake dust"
        ),
        _any("asbestos"),
    ),
    "compressed air": (_any("compressed air", "blown through", "air line"), _any("eyes?")),
}
"""What a step may speak of, and what its caution then speaks of."""
PLANNED = ("plan", "order")
DUSTY = re.compile(
    r"\b(grind(ing|er|s)?|ground (off|flat|down|away)|sandpaper|sanded|saw(n|ed|s)?|grit-?blast\w*|"
    r"stoned|honed|angle grinder|abrasive|wire wheel|cut (off|through) (by|with) a)\b",
    re.IGNORECASE,
)
STUCK = re.compile(
    r"\b(taper|tapers|press(ed)? (fit|out|off)|drawn off|puller|slide hammer|rust(ed|y)|seized|"
    r"corroded|exhaust studs?)\b",
    re.IGNORECASE,
)
SOAKING = re.compile(r"\b(soak\w*|penetrating oil|the evening before)\b", re.IGNORECASE)


def _cautions(sheet: Sheet) -> Iterator[Found]:
    for index, step in enumerate(sheet.step):
        if step.stage in PLANNED:
            continue
        said = _caution(step)
        for hazard, (speaks, warns) in HAZARDS.items():
            if _speaks(step, speaks) and not warns.search(said):
                yield ("step", index, "caution"), f"{step.title}: {hazard}, and no caution says so"
        if (step.lifts or step.moves) and not said:
            yield ("step", index, "caution"), f"{step.title}: a load moves, and no caution says so"
        if step.as_run() is not None and not said:
            yield (
                ("step", index, "caution"),
                f"{step.title}: an engine runs, and no caution says so",
            )


def _caution(step: Step) -> str:
    caution = step.caution
    return f"{caution.text} {caution.why} {caution.confirm or ''}" if caution else ""


def _speaks(step: Step, pattern: re.Pattern[str]) -> bool:
    """Whether the step's words speak of something that is there; "no fuel line" is not."""
    parts = sentences(words_of(step))
    return any(pattern.search(part) and not NEGATED.search(part) for part in parts)


def _dusty(sheet: Sheet) -> Iterator[Found]:
    for index, step in enumerate(sheet.step):
        if step.stage not in PLANNED and _speaks(step, DUSTY) and not step.dusty:
            yield ("step", index, "dusty"), f"{step.title}: it makes grit, and does not say so"


def _stuck(sheet: Sheet) -> Iterator[Found]:
    for index, step in enumerate(sheet.step):
        if not step.takes_off or step.stuck is not None or not _speaks(step, STUCK):
            continue
        words = f"{step.title}: a taper, a press fit or rust, and nothing says how far one goes"
        yield ("step", index, "stuck"), words


def _soaked(sheet: Sheet) -> Iterator[Found]:
    """A stuck part names the step that soaked it, or why none does; a soak is waited for."""
    for index, step in enumerate(sheet.step):
        stuck = step.stuck
        if stuck is None:
            continue
        if (stuck.soak is None) == (stuck.no_soak is None):
            words = f"{stuck.thing}: either the step of its soak evening, or why it is not soaked"
            yield ("step", index, "stuck"), words
        elif stuck.soak is not None and all(link.step != stuck.soak for link in step.after):
            yield ("step", index, "after"), f"{step.title}: it does not wait for its soak evening"


WARNING = (
    Law(
        "caution",
        "a danger in the words stands in the caution",
        "caution with that danger in its text, and why",
        _cautions,
        safety=True,
    ),
    Law("dusty", "what makes grit says so", "dusty = true", _dusty),
    Law(
        "stuck",
        "a taper, press fit or rusted joint says how far one goes",
        "stuck with thing, harms, spares and stop",
        _stuck,
    ),
    Law(
        "soaked",
        "what is stuck has its soak evening",
        "soak with the id of that step, and after on it with kind drying; else no_soak",
        _soaked,
    ),
)
