"""Captures: the state as found, kept before it is disturbed, and looked at again at refit."""

from pydantic import computed_field

from hollet.core.book.removals import back_steps
from hollet.core.entries import BookState, Captured, Compared, Decision, Entry, Wire
from hollet.core.entries.status import plan_of
from hollet.core.procedure.pieces import CAPTURE_KINDS, Capture
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, exact
from hollet.core.view import View

__all__ = [
    "CaptureView",
    "all_captures",
    "captures_of",
    "compared_words",
    "compares_of",
    "mismatches",
    "uncaptured",
    "within",
]


class CaptureView(View):
    """One capture: demanded by the sheet or made by hand; `state` is missing, let go, kept, same or
    differs.
    """

    id: str
    what: str
    kind: str
    kind_words: str
    because: str
    within: str | None
    step: str | None
    number: str
    state: str
    words: str
    place: str | None = None
    strokes: int | None = None
    factory: bool = False
    wires: tuple[Wire, ...] = ()
    typed: str | None = None
    photo: str | None = None
    compare_at: str | None = None
    compared: str = ""
    who: str = ""
    time: str = ""

    @computed_field
    @property
    def todo(self) -> bool:
        """Whether it is demanded and was neither kept nor let go."""
        return self.state == "missing"

    @computed_field
    @property
    def gone(self) -> bool:
        """Whether it was let go."""
        return self.state == "let go"

    @computed_field
    @property
    def agrees(self) -> bool:
        """Whether it was compared, and is as it was."""
        return self.state == "same"

    @computed_field
    @property
    def differs(self) -> bool:
        """Whether it was compared, and is not as it was."""
        return self.state == "differs"

    @computed_field
    @property
    def by_length(self) -> bool:
        """Whether it is compared by a length typed again."""
        return self.kind == "length"


def _found(body: Captured) -> str:
    """What was kept, in words."""
    parts = []
    if body.strokes:
        strokes = "stroke" if body.strokes == 1 else "strokes"
        parts.append(f"{body.strokes} {strokes}{', factory mark' if body.factory else ''}")
    elif body.factory:
        parts.append("factory mark")
    if body.wires:
        parts.append("; ".join(f"{w.terminal}: {w.colour}" for w in body.wires))
    parts += [text for text in (body.place, body.typed, body.words) if text]
    return ", ".join(parts) or ("photo" if body.photo else "seen")


def _view(state: BookState, spec: Capture | None, step_id: str | None, capture: str) -> CaptureView:
    plan = plan_of(state)
    step = plan.find_step(step_id)
    last = state.newest(Captured, "capture", capture)
    let_go = next(
        (
            e
            for e in state.each(Decision, "step", step_id or "")
            if e.body.about == "capture" and e.body.thing == capture
        ),
        None,
    )
    looked = _looked(state, capture)
    now, words, compared = "missing", "not kept yet", ""
    if last is not None:
        now, words = "kept", _found(last.body)
        if looked is not None:
            now, compared = (
                ("same" if looked.body.same else "differs"),
                compared_words(last, looked),
            )
    elif let_go is not None:
        now, words = "let go", f"not kept: {let_go.body.reason}"
    owner = (last.body.removal if last is not None else None) or step_id
    at = next((s for s in plan.step if capture in s.compares), None) or next(
        (s for s in plan.step if owner in s.refits), None
    )
    if at is None and step is not None:
        at = plan.find_step(next(iter(back_steps(plan, step)), None))
    kind = last.body.capture_kind if last is not None else (spec.kind if spec else "photo")
    facts = (
        last.body.model_dump(include={"place", "strokes", "factory", "typed", "photo"})
        if last is not None
        else {}
    )
    return CaptureView(
        id=capture,
        what=last.body.what if last is not None else (spec.what if spec else capture),
        kind=kind,
        kind_words=CAPTURE_KINDS[kind],
        because=spec.because if spec else "kept by hand",
        within=spec.within if spec else None,
        step=step_id,
        number=step.number if step else "",
        state=now,
        words=words,
        wires=last.body.wires if last is not None else (),
        compare_at=at.id if at else None,
        compared=compared,
        who=last.who if last is not None else "",
        time=last.time if last is not None else "",
        **facts,
    )


def _looked(state: BookState, capture: str) -> Entry[Compared] | None:
    """The last look at refit, if it came after what was last kept."""
    looked = state.newest(Compared, "capture", capture)
    return looked if looked is not None and looked == state.live("capture", capture)[-1] else None


def compared_words(kept: Entry[Captured], looked: Entry[Compared]) -> str:
    """What the second look found against the first, in words."""
    a, b = kept.body, looked.body
    if b.strokes is not None and a.strokes is not None:
        return f"{b.strokes} of {a.strokes} strokes in line" + (f", {b.words}" if b.words else "")
    if b.value is not None and a.value is not None:
        by = float(exact(b.value, "length", "value")) - float(exact(a.value, "length", "value"))
        return f"{b.typed}, was {a.typed}: " + (
            "the same"
            if by == 0
            else f"{decimal_text(abs(by), 3)} mm {'longer' if by > 0 else 'shorter'}"
        )
    return b.words or ("the same" if b.same else "not the same")


def captures_of(state: BookState, step: Step) -> tuple[CaptureView, ...]:
    """The captures that a step demands, and those made there by hand."""
    demanded = tuple(_view(state, spec, step.id, spec.id) for spec in step.capture)
    known = {view.id for view in demanded}
    own = dict.fromkeys(
        e.body.capture for e in state.each(Captured, "step", step.id) if e.body.capture not in known
    )
    return (*demanded, *(_view(state, None, step.id, name) for name in own))


def all_captures(state: BookState) -> tuple[CaptureView, ...]:
    """The register: every capture that is demanded, in the order of the plan, then those made by
    hand.
    """
    demanded = {
        spec.id: _view(state, spec, step.id, spec.id)
        for step in plan_of(state).step
        for spec in step.capture
    }
    kept = {entry.body.capture: entry.body.step for entry in state.all(Captured)}
    own = (_view(state, None, step, name) for name, step in kept.items() if name not in demanded)
    return (*demanded.values(), *own)


def compares_of(state: BookState, step: Step) -> tuple[CaptureView, ...]:
    """What a refit step has to look at again: the captures it names, and those kept of what it puts
    back.
    """
    return tuple(
        view
        for view in all_captures(state)
        if view.compare_at == step.id and view.state not in ("missing", "let go")
    )


def uncaptured(state: BookState, step: Step) -> CaptureView | None:
    """The first demanded capture that is neither kept nor let go with a reason."""
    return (
        next((view for view in captures_of(state, step) if view.state == "missing"), None)
        if step.capture
        else None
    )


def mismatches(state: BookState) -> tuple[CaptureView, ...]:
    """Captures that were not the same at refit and were not put right since."""
    differ = {
        name
        for name, _ in state.names("capture")
        if (look := _looked(state, name)) is not None and not look.body.same
    }
    return (
        tuple(view for view in all_captures(state) if view.id in differ and view.state == "differs")
        if differ
        else ()
    )


def within(spec: str | None, kept: str, now: str) -> bool | None:
    """Whether two lengths agree within what the sheet allows; None when it says nothing."""
    if spec is None:
        return None
    allowed, a, b = (parse(text, "length", "mm").nominal for text in (spec, kept, now))
    return None if allowed is None or a is None or b is None else abs(b - a) <= allowed
