"""Settings to keep: those of the sheet and those guarded by hand; what of them was disturbed and is
not set anew.
"""

from hollet.core.entries import BookState, Disturbed, Entry, Guarded
from hollet.core.entries.status import plan_of
from hollet.core.procedure.pieces import Setting
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["Keeping", "disturbed", "disturbed_settings", "find_setting", "keeps_of"]


class Keeping(View):
    """A setting at risk: what must not be loosened, what it holds, where to part things;
    `disturbed` with the reason.
    """

    id: str
    what: str
    holds: str
    part_at: str
    disturbed: str | None


def find_setting(state: BookState, setting: str) -> Setting | None:
    """The setting with this id, of the sheet or guarded by hand."""
    known = next((s for s in plan_of(state).setting if s.id == setting), None)
    own = state.each(Guarded, "setting", setting)
    if known is None and own:
        body = own[0].body
        return Setting(
            id=setting, what=body.what, holds=body.holds, part_at=body.part_at, blocks=body.blocks
        )
    return known


def keeps_of(state: BookState, step: Step) -> tuple[Keeping, ...]:
    """What must not be loosened at a step: named by the sheet, or guarded there by hand."""
    own = (entry.body.setting for entry in state.each(Guarded, "step", step.id))
    found = []
    for name in dict.fromkeys((*step.keeps, *own)):
        setting = find_setting(state, name)
        if setting is not None:
            lost = disturbed(state, name)
            found.append(
                Keeping(
                    id=name,
                    what=setting.what,
                    holds=setting.holds,
                    part_at=setting.part_at,
                    disturbed=lost.body.reason if lost else None,
                )
            )
    return tuple(found)


def disturbed(state: BookState, setting: str) -> Entry[Disturbed] | None:
    """The line by which a setting was loosened, where it is not set anew since."""
    lost = state.newest(Disturbed, "setting", setting)
    return lost if lost is not None and lost == state.live("setting", setting)[-1] else None


def disturbed_settings(state: BookState) -> tuple[Entry[Disturbed], ...]:
    """The lines of settings that were loosened and not set anew."""
    return tuple(lost for name, _ in state.names("setting") if (lost := disturbed(state, name)))
