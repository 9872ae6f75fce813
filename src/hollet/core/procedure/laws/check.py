"""A sheet held against all the laws: each breach with its line and what would be right."""

from hollet.core.errors import Refused
from hollet.core.procedure.laws.breach import Breach, Law
from hollet.core.procedure.laws.choosing import CHOOSING
from hollet.core.procedure.laws.closing import CLOSING
from hollet.core.procedure.laws.fastening import FASTENING
from hollet.core.procedure.laws.figures import FIGURES
from hollet.core.procedure.laws.loads import LOADS
from hollet.core.procedure.laws.warning import WARNING
from hollet.core.procedure.mistakes import line_of
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Sheet

__all__ = ["LAWS", "breaches", "refuse_unsafe"]

LAWS: tuple[Law, ...] = (*LOADS, *CLOSING, *FASTENING, *FIGURES, *WARNING, *CHOOSING)
"""Every law, those of loads first."""


OF_ONE = ("assumed", "expected")
"""Laws of what one sheet says of itself; a plan of several may be half of any vehicle."""


def breaches(sheet: Sheet, text: str = "") -> tuple[Breach, ...]:
    """All that a sheet, or a plan of several, breaks: what can hurt somebody first, then as it
    stands in the sheet.
    """
    found = []
    several = isinstance(sheet, Plan) and len(sheet.sheets) > 1
    for law in (law for law in LAWS if not (several and law.id in OF_ONE)):
        for path, words in law.find(sheet):
            line = line_of(text, path) if text else None
            name = ".".join(str(p + 1) if isinstance(p, int) else p for p in path)
            found.append(
                Breach(
                    law=law.id,
                    name=law.name,
                    field=name,
                    line=line,
                    words=words,
                    right=law.right,
                    safety=law.safety,
                )
            )
    return tuple(sorted(found, key=lambda b: (not b.safety, b.line or 0)))


def refuse_unsafe(found: tuple[Breach, ...]) -> None:
    """Refuse a sheet that breaks a law of safety.

    Raises
    ------
    Refused
        `sheet_unsafe`: the first such breach with its line, and how many more there are.
    """
    unsafe = [breach for breach in found if breach.safety]
    if not unsafe:
        return
    first = unsafe[0]
    at = f"line {first.line}, " if first.line else ""
    more = f" And {len(unsafe) - 1} more of safety." if len(unsafe) > 1 else ""
    raise Refused(
        "sheet_unsafe",
        f"{at}{first.field}: {first.words}. Right would be: {first.right}.{more}",
        field=first.field,
    )
