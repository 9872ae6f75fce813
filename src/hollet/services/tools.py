"""The shop's tools: kept, edited (a new version each time), zeroed, and set with one another."""

from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError

from hollet.core.checking import Checked, check_against, trial
from hollet.core.entries import ToolChecked, ToolEdited, ToolTried
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.instruments import Instrument
from hollet.core.quantities.parse import parse
from hollet.library.shelf import instrument_presets
from hollet.services.workshop import SHOP, Workshop, initials
from hollet.store.records import InstrumentRecord

__all__ = ["check_tool", "edit_tool", "presets", "set_gauge", "try_tool", "zero_tool"]

FIGURES = ("lo", "hi", "resolution", "mpe", "s", "offset", "zero_error", "setting", "setting_s")


def presets() -> tuple[dict[str, Any], ...]:
    """Typical tools to start from."""
    return instrument_presets()


def edit_tool(
    workshop: Workshop, data: dict[str, Any], *, who: str, version: int, reason: str | None = None
) -> Instrument:
    """Keep a new or edited tool; `version` is the one that was edited, 0 for a new tool.

    Raises
    ------
    Refused
        `bad_tool` with the field: a figure that cannot be read, a code used twice.
    Conflict
        The tool was edited since `version`.
    """
    known = workshop.tools()
    tool_id = str(data.get("id") or workshop.new_id())
    old = known.get(tool_id)
    if (old.version if old else 0) != version:
        raise Conflict(
            f"{old.code if old else tool_id} was edited by somebody else: look again",
            reason_code="moved_on",
        )
    try:
        tool = Instrument.model_validate({**data, "id": tool_id, "version": version + 1})
    except ValidationError as error:
        first = error.errors()[0]
        field = ".".join(str(part) for part in first["loc"])
        raise Refused("bad_tool", f"'{field}': {first['msg']}", field=field) from error
    for field in FIGURES:
        text = getattr(tool, field)
        if text is not None:
            _check(tool, field, str(text))
    twin = next(
        (t for t in known.values() if t.code == tool.code and t.id != tool.id and not t.retired),
        None,
    )
    if twin is not None:
        raise Refused(
            "bad_tool",
            f"the code {tool.code} belongs to {twin.name}: write another on this tool",
            field="code",
        )
    speaks = (t for t in known.values() if t.device and not t.retired and t.id != tool.id)
    double = next((t for t in speaks if t.device == tool.device), None)
    if double is not None:
        raise Refused(
            "bad_tool",
            f"{tool.device} speaks for {double.code} already: take it from there first",
            field="device",
        )
    return _keep(workshop, tool, who, reason)


def _check(tool: Instrument, field: str, text: str) -> None:
    try:
        parsed = parse(text, tool.dimension, tool.unit)
    except Refused as refusal:
        raise Refused("bad_tool", f"'{field}': {refusal.message}", field=field) from refusal
    if parsed.nominal is None or (
        field in ("resolution", "mpe", "s", "zero_error", "setting_s") and parsed.nominal < 0
    ):
        raise Refused(
            "bad_tool", f"'{field}' must be one figure, zero or more, in {tool.unit}", field=field
        )


def zero_tool(workshop: Workshop, tool_id: str, *, who: str) -> Instrument:
    """The tool was zeroed again: readings from before and after no longer share a zero error."""
    tool = _find(workshop, tool_id)
    return _keep(
        workshop,
        tool.model_copy(update={"zero_no": tool.zero_no + 1, "version": tool.version + 1}),
        who,
        "zeroed",
    )


def set_gauge(
    workshop: Workshop, gauge_id: str, master_id: str, setting: str, *, who: str
) -> Instrument:
    """A gauge was set with a micrometer at `setting`: it now carries that micrometer's
    zero error.
    """
    gauge, master = _find(workshop, gauge_id), _find(workshop, master_id)
    if gauge.dimension != master.dimension or gauge.id == master.id:
        raise Refused("bad_tool", f"{gauge.code} cannot be set with {master.code}", field="master")
    parsed = parse(setting, gauge.dimension, gauge.unit)
    if parsed.nominal is None or not master.covers(float(parsed.nominal)):
        raise Refused(
            "bad_tool", f"{setting} lies outside the range of {master.code}", field="setting"
        )
    changed = gauge.model_copy(
        update={
            "set_with": master.model_copy(update={"set_with": None}),
            "setting": setting,
            "zero_no": gauge.zero_no + 1,
            "version": gauge.version + 1,
        }
    )
    return _keep(workshop, changed, who, f"set with {master.code} at {setting}")


def check_tool(
    workshop: Workshop,
    tool_id: str,
    *,
    standard: str,
    nominal: str,
    typed: Sequence[str],
    keep_offset: bool,
    who: str,
) -> Checked:
    """Hold a tool against a standard. What it read between its last good check and this one is in
    doubt when it fails.

    Raises
    ------
    Refused
        `no_instrument_data` for a tool without a permissible error; the parser's codes.
    """
    tool = _find(workshop, tool_id)
    found = check_against(tool, nominal, typed, now=workshop.now(), keep_offset=keep_offset)
    said = ToolChecked(
        tool=tool.id,
        code=tool.code,
        standard=standard,
        nominal=nominal,
        typed=tuple(typed),
        off=found.off,
        unit=tool.unit,
        good=found.good,
        kept_offset=keep_offset and not found.good,
    )
    _keep(workshop, found.tool, who, f"checked on {standard}", said)
    return found


def try_tool(
    workshop: Workshop, tool_id: str, *, thing: str, typed: Sequence[str], who: str
) -> Instrument:
    """The deviation of ten readings of one thing by one pair of hands becomes the repeatability of
    the tool in those hands.
    """
    tool = _find(workshop, tool_id)
    changed = trial(tool, typed, thing=thing, who=initials(who))
    said = ToolTried(
        tool=tool.id,
        code=tool.code,
        thing=thing,
        typed=tuple(typed),
        s=changed.hands[-1].s,
        unit=tool.unit,
    )
    return _keep(workshop, changed, who, f"{len(typed)} readings of {thing}", said)


def _find(workshop: Workshop, tool_id: str) -> Instrument:
    tool = workshop.tools().get(tool_id)
    if tool is None:
        raise NotFound("tool", tool_id)
    return tool


def _keep(
    workshop: Workshop,
    tool: Instrument,
    who: str,
    reason: str | None,
    said: ToolChecked | ToolTried | None = None,
) -> Instrument:
    draft = workshop.draft(SHOP, ToolEdited(tool=tool, reason=reason), who)
    before = workshop.draft(SHOP, said, who) if said else None
    with workshop.store.write() as books:
        if before is not None:
            books.log.append(before)
        books.instruments.put(InstrumentRecord(tool.id, tool.model_dump_json(), tool.version))
        books.log.append(draft)
    return tool
