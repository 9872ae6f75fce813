"""What may have done it: explanations that compete, and what speaks for and against each."""

from hollet.core.entries import BookState, Cause, Evidence
from hollet.core.view import View

__all__ = ["CauseFacts", "cause_file", "explanations"]


class EvidenceFacts(View):
    """One piece of evidence."""

    entry: str
    sort: str
    text: str
    who: str


class CauseFacts(View):
    """An explanation with all that speaks for and against it, and a warning where it proves
    nothing.
    """

    id: str
    what: str
    step: str | None
    evidence: tuple[EvidenceFacts, ...]
    settled: bool
    doubt: str | None


def explanations(state: BookState) -> tuple[str, ...]:
    """What may have caused it all, as the cause file has it so far."""
    return tuple(entry.body.what for entry in state.each(Cause, "causes"))


def cause_file(state: BookState) -> tuple[CauseFacts, ...]:
    found = []
    for cause in state.each(Cause, "causes"):
        evidence = tuple(
            EvidenceFacts(entry=e.id, sort=e.body.sort, text=e.body.text, who=e.who)
            for e in state.each(Evidence, "causes")
            if e.body.cause == cause.body.cause
        )
        varied = [e.text for e in evidence if e.sort == "varied"]
        changed = [e.text for e in evidence if e.sort == "changed"]
        doubt = None
        if varied and changed:
            doubt = (
                f"{len(varied) + len(changed)} things were changed at once "
                f"({'; '.join([*varied, *changed])[:160]}): what happened tells of none of them "
                "alone"
            )
        elif len(varied) > 1:
            doubt = f"{len(varied)} things were varied at once: change one at a time"
        found.append(
            CauseFacts(
                id=cause.body.cause,
                what=cause.body.what,
                step=cause.body.step,
                evidence=evidence,
                settled=any(e.sort == "settled" for e in evidence),
                doubt=doubt,
            )
        )
    return tuple(found)
