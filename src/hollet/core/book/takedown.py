"""Whether the build accepts what is written while things come off and go back: removals, bags,
captures, supports, stops.
"""

from typing import Any

from hollet.core.book import edits as e
from hollet.core.book import entries as b
from hollet.core.book.bags import bag_contents, check_taken
from hollet.core.book.captures import within
from hollet.core.book.fold import BookState
from hollet.core.book.hand import Hand
from hollet.core.book.removals import find_removal
from hollet.core.book.settings import find_setting
from hollet.core.book.status import plan_of
from hollet.core.book.supports import forbidden_point
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.fasteners import tidy_line
from hollet.core.procedure.sheet import Capture, Step
from hollet.core.procedure.stuck import StuckFacts, Try, stuck_ladder
from hollet.core.quantities.parse import measured, parse
from hollet.core.quantities.quantity import Quantity, decimal_text

__all__ = ["TAKE_DOWN", "step_named", "tries_of"]

JUST_BEFORE = 40


def step_named(state: BookState, step_id: str) -> Step:
    """The step with this id; raises NotFound."""
    step = plan_of(state).find_step(step_id)
    if step is None:
        raise NotFound("step", step_id)
    return step


def _free_bag(state: BookState, bag: int, owner: str) -> None:
    content = next((c for c in bag_contents(state) if c.bag == bag), None)
    if content is not None and content.owner != owner and content.left:
        raise Refused(
            "bag_taken",
            f"bag {bag} holds the fasteners of {content.number} {content.what}".replace("  ", " ")
            + ": take the next number",
            field="bag",
        )


def _bagged(state: BookState, edit: e.BaggedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    _free_bag(state, edit.bag, step.id)
    return b.Bagged(
        step=step.id, bag=edit.bag, lines=tuple(map(tidy_line, edit.lines)), place=edit.place
    )


def _removed(state: BookState, edit: e.RemovedEdit, hand: Hand) -> b.Body:
    if edit.step is not None:
        step_named(state, edit.step)
    if state.removed.get(edit.removal):
        raise Conflict(
            f"{edit.what} is logged already: strike that line to write it anew",
            reason_code="id_used",
        )
    if edit.lines and edit.bag is None:
        raise Refused("bad_entry", "say into which bag the fasteners go", field="bag")
    if edit.bag is not None:
        if not edit.lines:
            raise Refused(
                "bad_entry", f"say what goes into bag {edit.bag}, such as 4 m8x25", field="lines"
            )
        _free_bag(state, edit.bag, edit.removal)
    if not edit.sure:
        recent = (state.entries[i] for i in state.order[-JUST_BEFORE:] if i not in state.struck)
        twin = next(
            (
                x
                for x in recent
                if x.kind == "removed" and x.body.what.casefold() == edit.what.casefold()
            ),
            None,
        )
        if twin is not None:
            where = f", bag {twin.body.bag}" if twin.body.bag else ""
            raise Refused(
                "logged_already",
                f"{twin.body.what} was logged by {twin.who}{where}: if it is another one, write "
                "it all the same",
                field="what",
            )
    return b.Removed(
        **edit.model_dump(exclude={"kind", "sure", "lines"}),
        lines=tuple(map(tidy_line, edit.lines)),
    )


def _unbagged(state: BookState, edit: e.UnbaggedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    check_taken(state, edit.bag, edit.lines)
    return b.Unbagged(step=step.id, bag=edit.bag, lines=edit.lines, how=edit.how)


def _replaced(state: BookState, edit: e.ReplacedEdit, hand: Hand) -> b.Body:
    content = next((c for c in bag_contents(state) if c.bag == edit.bag), None)
    if content is None or edit.count > content.missing:
        raise Refused(
            "not_in_bag",
            f"of bag {edit.bag} {content.missing if content else 0} are lost, not {edit.count}",
            field="count",
        )
    return b.Replaced(bag=edit.bag, count=edit.count, by=edit.by)


def _length(text: str | None) -> Quantity | None:
    if text is None:
        return None
    parsed = parse(text, "length", "mm")
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused("bad_number", f"'{text}': type one length, such as 61.5 mm", field="typed")
    return Quantity(value=decimal_text(parsed.nominal), unit="mm")


def _captured(state: BookState, edit: e.CapturedEdit, hand: Hand) -> b.Body:
    spec: Capture | None = None
    if edit.step is not None:
        spec = next((c for c in step_named(state, edit.step).capture if c.id == edit.capture), None)
    elif edit.removal is None or find_removal(state, edit.removal) is None:
        raise Refused(
            "bad_entry", "say at which step, or of which removal, this was found so", field="step"
        )
    kind, what = (spec.kind, spec.what) if spec else (edit.capture_kind, edit.what)
    if kind is None or not what:
        raise Refused("bad_entry", "say what is kept and of which kind it is", field="what")
    _enough(edit, kind)
    value = _length(edit.typed) if kind == "length" else None
    return b.Captured(
        **edit.model_dump(exclude={"kind", "what", "capture_kind"}),
        what=what,
        capture_kind=kind,
        value=value,
    )


def _enough(edit: e.CapturedEdit, kind: str) -> None:
    """What each kind cannot do without; a mark is a photo's business only if nobody can put it in
    words.
    """
    wants = {
        "photo": (edit.photo is not None, "photo", "take the photo first"),
        "wires": (bool(edit.wires), "wires", "name each terminal and the colour of its wire"),
        "mark": (
            (edit.strokes is not None or edit.factory) and bool(edit.place),
            "strokes",
            "count the strokes, two or more, and say where they are",
        ),
        "index": (bool(edit.words), "words", "say how it stands, such as long side up"),
        "length": (bool(edit.typed), "typed", "type the length, such as 61.5 mm"),
        "reading": (bool(edit.typed or edit.words), "typed", "type what was read"),
        "straight_ahead": (bool(edit.place), "place", "say where the mark is"),
    }
    met, field, words = wants[kind]
    if not met:
        raise Refused("not_kept", words, field=field)
    if kind == "mark" and edit.strokes == 1 and not edit.factory:
        raise Refused(
            "one_stroke",
            "one stroke cannot be told from a scratch: make two or more",
            field="strokes",
        )
    if len({w.terminal.casefold() for w in edit.wires}) < len(edit.wires) and any(
        not w.note for w in edit.wires
    ):
        raise Refused(
            "twice",
            "a terminal is named twice: put both wires on one line, or say in the note which is "
            "which",
            field="wires",
        )


def _compared(state: BookState, edit: e.ComparedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    made = state.captured.get(edit.capture, [])
    if not made:
        raise NotFound("capture", edit.capture)
    kept = made[-1].body
    value = _length(edit.typed) if kept.value is not None else None
    spec = next((c for s in plan_of(state).step for c in s.capture if c.id == edit.capture), None)
    same = _same(edit, kept, value, spec)
    return b.Compared(
        step=step.id,
        capture=edit.capture,
        same=same,
        words=edit.words,
        strokes=edit.strokes,
        typed=edit.typed,
        value=value,
    )


def _same(edit: e.ComparedEdit, kept: Any, value: Quantity | None, spec: Capture | None) -> bool:
    """Whether it is as found: what the hand saw as different stays so; else strokes and lengths say
    it themselves.

    A length that differs, and of which no sheet says how far it may, counts as the same only with
    words that say why.
    """
    if edit.same is False:
        return False
    if edit.strokes is not None and kept.strokes is not None:
        return bool(edit.strokes == kept.strokes)
    if value is not None and edit.typed and kept.typed:
        agrees = within(spec.within if spec else None, kept.typed, edit.typed)
        return (
            agrees if agrees is not None else value == kept.value or bool(edit.same and edit.words)
        )
    if edit.same is None:
        raise Refused("bad_entry", "say whether it is the same as it was found", field="same")
    return edit.same


def _guarded(state: BookState, edit: e.GuardedEdit, hand: Hand) -> b.Body:
    step_named(state, edit.step)
    if find_setting(state, edit.setting) is not None:
        raise Conflict("this setting is guarded already", reason_code="id_used")
    return b.Guarded(**edit.model_dump(exclude={"kind"}))


def _disturbed(state: BookState, edit: e.DisturbedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    setting = find_setting(state, edit.setting)
    if setting is None:
        raise NotFound("setting", edit.setting)
    return b.Disturbed(
        step=step.id,
        setting=setting.id,
        what=setting.what,
        holds=setting.holds,
        blocks=setting.blocks,
        reason=edit.reason,
    )


def _set_anew(state: BookState, edit: e.SetAnewEdit, hand: Hand) -> b.Body:
    live = state.live(f"setting:{edit.setting}")
    if not live or live[-1].kind != "disturbed":
        raise Conflict("this setting is not disturbed", reason_code="not_disturbed")
    return b.SetAnew(step=step_named(state, edit.step).id, setting=edit.setting, how=edit.how)


def tries_of(state: BookState, step: str, part: str) -> tuple[Try, ...]:
    """The tries on a stuck part at a step, oldest first, without their age."""
    live = (
        x.body
        for x in state.of_step(step)
        if x.kind == "tried" and x.body.part.casefold() == part.casefold()
    )
    return tuple(
        Try(rung=body.rung, minutes=body.time.figure("time") / 60, came=body.came) for body in live
    )


def _tried(state: BookState, edit: e.TriedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    ladder = stuck_ladder(
        tries_of(state, step.id, edit.part),
        StuckFacts(near=edit.near, cleaned=edit.cleaned, wiped=edit.wiped),
    )
    rung = next(r for r in ladder if r.id == edit.rung)
    if rung.state == "refused":
        raise Refused("not_here", f"{rung.name}: {rung.words}", field="rung")
    time = measured(edit.time, "time", "min", "time")
    return b.Tried(**edit.model_dump(exclude={"kind", "time"}), time=time)


def _photo(state: BookState, edit: e.PhotoEdit, hand: Hand) -> b.Body:
    if edit.step is not None:
        step_named(state, edit.step)
    _numbered_once(edit.pins)
    return b.Photo(**edit.model_dump(exclude={"kind"}))


def _pinned(state: BookState, edit: e.PinnedEdit, hand: Hand) -> b.Body:
    if not state.photos.get(edit.photo):
        raise NotFound("photo", edit.photo)
    _numbered_once(edit.pins)
    return b.Pinned(photo=edit.photo, pins=edit.pins)


def _numbered_once(pins: tuple[b.Pin, ...]) -> None:
    numbers = [pin.n for pin in pins]
    if len(set(numbers)) < len(numbers):
        raise Refused("twice", "two pins have the same number: give each its own", field="pins")


def _supported(state: BookState, edit: e.SupportedEdit, hand: Hand) -> b.Body:
    why = forbidden_point(edit.point)
    if why and not edit.gone:
        raise Refused(
            "forbidden_point",
            f"never under {edit.point}: {why}. Choose another place",
            field="point",
        )
    if edit.step is not None:
        step_named(state, edit.step)
    rated = (
        measured(edit.rated, "mass", "kg", "rated") if edit.rated and edit.rated.strip() else None
    )
    if rated is not None and rated.figure("mass") <= 0:
        raise Refused(
            "bad_number",
            f"'{edit.rated}': what it is rated for is above zero, such as 2000 kg",
            field="rated",
        )
    return b.Supported(**edit.model_dump(exclude={"kind", "rated"}), rated=rated)


def _vehicle_stands(state: BookState, edit: e.VehicleStandsEdit, hand: Hand) -> b.Body:
    return b.VehicleStands(**edit.model_dump(exclude={"kind"}))


def _stopped(state: BookState, edit: e.StoppedEdit, hand: Hand) -> b.Body:
    return b.Stopped(**edit.model_dump(exclude={"kind"}))


def _secured(state: BookState, edit: e.SecuredEdit, hand: Hand) -> b.Body:
    return b.Secured(**edit.model_dump(exclude={"kind"}))


def _gone_on(state: BookState, edit: e.GoneOnEdit, hand: Hand) -> b.Body:
    said = state.live("stop")
    if not said or said[-1].kind == "gone on":
        raise Conflict("work is not stopped", reason_code="not_stopped")
    return b.GoneOn(note=edit.note)


def _surroundings(state: BookState, edit: e.SurroundingsEdit, hand: Hand) -> b.Body:
    return b.Surroundings(around=tuple(dict.fromkeys(edit.around)))


TAKE_DOWN: dict[str, Any] = {
    "bagged": _bagged,
    "removed": _removed,
    "unbagged": _unbagged,
    "replaced": _replaced,
    "captured": _captured,
    "compared": _compared,
    "guarded": _guarded,
    "disturbed": _disturbed,
    "set anew": _set_anew,
    "tried": _tried,
    "photo": _photo,
    "pinned": _pinned,
    "supported": _supported,
    "vehicle stands": _vehicle_stands,
    "stopped": _stopped,
    "secured": _secured,
    "gone on": _gone_on,
    "surroundings": _surroundings,
}
