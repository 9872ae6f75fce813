"""Settings to keep: those of the sheet and those guarded by hand; what of them was disturbed and is
not set anew.
"""

from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.book.status import plan_of
from hollet.core.book.views import View
from hollet.core.procedure.sheet import Setting, Step

__all__ = ["Keeping", "disturbed_settings", "find_setting", "keeps_of"]


class Keeping(View):
    """A setting at risk: what must not be loosened, what it holds, where to part things;
    `disturbed` with the reason.
    """

    id: str
    what: str
    holds: str
    part_at: str
    disturbed: str | None


def _guarded(state: BookState, setting: str) -> Entry | None:
    return next(
        (entry for entry in state.live(f"setting:{setting}") if entry.kind == "guarded"), None
    )


def find_setting(state: BookState, setting: str) -> Setting | None:
    """The setting with this id, of the sheet or guarded by hand."""
    known = next((s for s in plan_of(state).setting if s.id == setting), None)
    own = _guarded(state, setting)
    if known is None and own is not None:
        return Setting.model_validate(
            {"id": setting, **own.body.model_dump(include={"what", "holds", "part_at", "blocks"})}
        )
    return known


def keeps_of(state: BookState, step: Step) -> tuple[Keeping, ...]:
    """What must not be loosened at a step: named by the sheet, or guarded there by hand."""
    own = (entry.body.setting for entry in state.of_step(step.id) if entry.kind == "guarded")
    found = []
    for name in dict.fromkeys((*step.keeps, *own)):
        setting = find_setting(state, name)
        live = state.live(f"setting:{name}")
        if setting is not None:
            lost = live[-1].body.reason if live and live[-1].kind == "disturbed" else None
            found.append(
                Keeping(
                    id=name,
                    what=setting.what,
                    holds=setting.holds,
                    part_at=setting.part_at,
                    disturbed=lost,
                )
            )
    return tuple(found)


def disturbed_settings(state: BookState) -> tuple[Entry, ...]:
    """The lines of settings that were loosened and not set anew."""
    return tuple(
        entries[-1]
        for subject, entries in state.by_subject.items()
        if subject.startswith("setting:") and entries and entries[-1].kind == "disturbed"
    )
