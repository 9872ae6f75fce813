"""Reading a sheet: its shape, its figures, its references; the first mistake is named with what
would be right.
"""

from typing import Any

from pydantic import ValidationError

from hollet.core.errors import Refused
from hollet.core.limits import Limit
from hollet.core.procedure.joints import Joint, stage_range
from hollet.core.procedure.laws.references import check_references
from hollet.core.procedure.mistakes import STEP_KINDS, mistake, plain
from hollet.core.procedure.rows import row_laws
from hollet.core.procedure.sheet import Sheet
from hollet.core.quantities.parse import parse
from hollet.core.tightening.generic import read_thread

__all__ = ["TABLES", "read_sheet"]

TABLES = (
    "option",
    "school",
    "extra",
    "agreement",
    "limit",
    "variant",
    "joint",
    "setting",
    "fluid",
    "trace",
    "tie",
    "row",
    "learnt",
    "step",
)


def read_sheet(data: dict[str, Any], text: str = "") -> Sheet:
    """Check a sheet read from TOML; the first mistake is named with its line, its field and what
    would be right.

    Raises
    ------
    Refused
        `sheet_mistake`, with the line in the message when `text` is given.
    """
    flat = {**data.get("sheet", {}), **{key: data[key] for key in TABLES if key in data}}
    for stray in set(data) - {"sheet", *TABLES}:
        raise mistake(
            text,
            (stray,),
            f"'{stray}' does not belong in a sheet: only [sheet], "
            f"{', '.join(f'[[{t}]]' for t in TABLES)}",
        )
    try:
        sheet = Sheet.model_validate(flat)
    except ValidationError as error:
        first = error.errors()[0]
        path = tuple(
            part for part in first["loc"] if not (isinstance(part, str) and part in STEP_KINDS)
        )
        raise mistake(text, path, plain(first)) from error
    for index, limit in enumerate(sheet.limit):
        _check_limit(limit, text, index)
    for index, joint in enumerate(sheet.joint):
        _check_joint(joint, text, index)
    check_references(sheet, text)
    for key, index, words in row_laws(sheet.row, sheet):
        raise mistake(text, ("row", index, key), words)
    return sheet


def _check_limit(limit: Limit, text: str, index: int) -> None:
    lo, hi = limit.figure("lo"), limit.figure("hi")
    if lo is not None and hi is not None and lo > hi:
        raise mistake(text, ("limit", index, "lo"), "the lower limit lies above the upper limit")


def _check_joint(joint: Joint, text: str, index: int) -> None:
    try:
        joint.sequence()
    except Refused as refusal:
        raise mistake(
            text,
            ("joint", index, "order" if joint.pattern == "order" else "layout"),
            refusal.message,
        ) from refusal
    for number, stage in enumerate(joint.stage):
        if len(stage.given()) > 1:
            raise mistake(
                text,
                ("joint", index, "stage"),
                f"stage {number + 1} must have one of torque, angle, stretch, turning, feel, till",
            )
        if not stage.given() or stage.state() is not None:
            continue
        try:
            stage_range(stage)
        except Refused as refusal:
            words = f"stage {number + 1}: {refusal.message}"
            raise mistake(text, ("joint", index, "stage"), words) from refusal
    if joint.thread is not None:
        try:
            read_thread(joint.thread)
        except Refused as refusal:
            raise mistake(text, ("joint", index, "thread"), refusal.message) from refusal
    try:
        if joint.tolerance is not None:
            parse(joint.tolerance, "percent", "%")
    except Refused as refusal:
        raise mistake(text, ("joint", index, "tolerance"), refusal.message) from refusal
