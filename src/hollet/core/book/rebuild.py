"""The order of rebuilding, made from the log of the take-down and from the sheet's own order; taken
over as a plan edit."""

from collections.abc import Mapping, Sequence

from pydantic import computed_field

from hollet.core.book.bags import size_words
from hollet.core.book.captures import CaptureView, all_captures
from hollet.core.book.order_back import Apart, Choices, back_title, merged_links, new_id
from hollet.core.book.removals import Removal
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, status_of
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.reversing import Clash, Rebuilt
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import STAGES, Stage
from hollet.core.view import View

__all__ = ["Contradicts", "RebuildLine", "RebuildView", "rebuild_view"]


class Why(View):
    """One reason of a line: it goes on after `after`, because; where the reason comes from."""

    after: str
    after_title: str
    because: str
    kind: str
    origin: str

    @computed_field
    @property
    def assumed(self) -> bool:
        """Whether nobody said it: it follows only from the order of coming off."""
        return self.origin == "log"


class RebuildLine(View):
    """One step of the order back; `no_reason`: it puts something back, and nobody and nothing says
    what it goes on after.
    """

    step: str
    number: str
    title: str
    stage: str
    new: bool
    removal: str | None
    from_words: str
    bags: tuple[str, ...]
    marks: tuple[str, ...]
    why: tuple[Why, ...]
    done: bool
    not_reversed: str | None
    no_reason: bool

    @computed_field
    @property
    def stage_name(self) -> str:
        """Its stage as it is called."""
        return STAGES[self.stage]


class Contradicts(View):
    """Take-down and sheet say opposite things: both with their reasons, and which is kept."""

    before: str
    then: str
    before_title: str
    then_title: str
    take_down: str
    sheet: str
    kept: str

    @computed_field
    @property
    def by_sheet(self) -> bool:
        """Whether the sheet's way is kept."""
        return self.kept == "sheet"


class RebuildView(View):
    """The whole proposal; `new` counts the steps that taking it over puts in."""

    lines: tuple[RebuildLine, ...]
    contradictions: tuple[Contradicts, ...]
    one_way: tuple[Apart, ...]
    off: int
    new: int
    reasons: int
    assumed: int
    taken: bool


def rebuild_view(state: BookState, choices: Choices | None = None) -> RebuildView:
    """The order back, with a reason for every "before"."""
    choices = choices or Choices()
    plan, found, fresh, merged, one_way = merged_links(state, choices)
    titles = {step.id: f"{step.number} {step.title}" for step in plan.step} | {
        name: back_title(r) for name, (r, _) in fresh.items()
    }
    marks = [c for c in all_captures(state) if not c.todo and not c.gone]
    backs: dict[str, list[Removal]] = {}
    for removal in found:
        for name in removal.back or (new_id(removal.id),):
            backs.setdefault(name, []).append(removal)
    lines = tuple(
        _line(state, plan, name, fresh, merged, backs.get(name, []), titles, marks)
        for name in merged.order
        if name in fresh or plan.find_step(name) is not None
    )
    clashes = [clash for clash in merged.clashes if _said(clash)]
    return RebuildView(
        lines=lines,
        contradictions=tuple(_contradicts(clash, titles, choices) for clash in clashes),
        one_way=one_way,
        off=len(found),
        new=len(fresh),
        reasons=sum(len(line.why) for line in lines),
        assumed=sum(w.assumed for line in lines for w in line.why),
        taken=not fresh and bool(found),
    )


def _line(
    state: BookState,
    plan: Plan,
    name: str,
    fresh: Mapping[str, tuple[Removal, Stage]],
    merged: Rebuilt,
    own: Sequence[Removal],
    titles: Mapping[str, str],
    marks: Sequence[CaptureView],
) -> RebuildLine:
    """One step of the order back: what came off for it, its bags, its marks, its reasons."""
    step = plan.find_step(name)
    why = tuple(
        Why(
            after=x.before,
            after_title=titles[x.before],
            because=x.because,
            kind=x.kind,
            origin=x.origin,
        )
        for x in merged.links
        if x.then == name
    )
    off = {r.id for r in own}
    return RebuildLine(
        step=name,
        number=step.number if step else "",
        title=step.title if step else titles[name],
        new=step is None,
        stage=step.stage if step else fresh[name][1],
        removal=fresh[name][0].id if name in fresh else None,
        from_words=", ".join(f"{r.number} {r.what}".strip() for r in own),
        bags=tuple(
            f"bag {b.bag}: "
            + ", ".join(f"{c.count} × {size_words(c.size, c.length)}" for c in b.lines)
            for r in own
            for b in r.bags
        ),
        marks=tuple(
            f"{c.kind_words}: {c.what}, {c.words}"
            for c in marks
            if c.compare_at == name or (c.step in off and not c.compare_at)
        ),
        why=why,
        done=step is not None and status_of(state, step).status in SETTLED,
        not_reversed=_not_reversed(plan, step, own, name in merged.not_reversed),
        no_reason=bool(own) and all(w.assumed for w in why),
    )


def _said(clash: Clash) -> bool:
    """Whether somebody gave both reasons: the bare order of coming off contradicts nothing."""
    return clash.dropped.origin != "log" and all(link.origin != "log" for link in clash.kept)


def _not_reversed(plan: Plan, step: Step | None, own: Sequence[Removal], moved: bool) -> str | None:
    said = [
        text
        for r in own
        if (source := plan.find_step(r.id)) is not None and (text := source.not_reversed)
    ]
    said += [step.not_reversed] if step is not None and step.not_reversed else []
    if said:
        return said[0]
    return "not in the reverse order: the reasons beside it say why" if moved else None


def _contradicts(clash: Clash, titles: Mapping[str, str], choices: Choices) -> Contradicts:
    """A clash in words, always told as: the take-down wants `before` first, the sheet the other way
    round.
    """
    dropped, kept = clash.dropped, clash.kept
    if dropped.origin == "sheet":
        a, b = dropped.then, dropped.before
        take_down = kept[0].because if kept else "chosen by hand"
        return Contradicts(
            before=a,
            then=b,
            before_title=titles.get(a, a),
            then_title=titles.get(b, b),
            take_down=take_down,
            sheet=dropped.because,
            kept="take_down",
        )
    opposite = "; ".join(
        f"{titles.get(x.then, x.then)} after {titles.get(x.before, x.before)}: {x.because}"
        for x in kept
    )
    return Contradicts(
        before=dropped.before,
        then=dropped.then,
        before_title=titles.get(dropped.before, dropped.before),
        then_title=titles.get(dropped.then, dropped.then),
        take_down=dropped.because,
        sheet=opposite or "the stages come in another order",
        kept="sheet",
    )
