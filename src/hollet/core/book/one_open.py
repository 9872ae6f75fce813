"""One thing left open: what it is, how bad, the rung that it blocks and where it is cleared."""

from typing import Literal

from pydantic import BaseModel, ConfigDict, computed_field

__all__ = ["RANKS", "OpenItem", "Rank", "open_item"]

Rank = Literal["danger", "wrong", "open", "not_reached"]


RANKS: tuple[Rank, ...] = ("danger", "wrong", "open", "not_reached")


RANK_OF: dict[str, Rank] = {
    "danger": "danger",
    "load": "danger",
    "result": "wrong",
    "part": "wrong",
    "capture": "wrong",
    "setting": "wrong",
    "lost": "wrong",
    "leak": "wrong",
    "fault": "wrong",
    "fuel": "wrong",
    "isolate": "wrong",
    "run": "wrong",
    "swept": "wrong",
    "tie": "wrong",
    "half": "open",
    "temporary": "open",
    "joint": "open",
    "empty": "open",
    "missing": "open",
    "look_again": "open",
    "wire": "open",
    "row": "open",
    "altered": "open",
    "word": "open",
    "step": "not_reached",
}


class OpenItem(BaseModel):
    """One thing left open: what it is, the first rung it blocks, where it is cleared; how bad it
    is, and the box that ends a danger.

    `holds_up`: undoing it asks what carries that body now. `no_closer`: no step of the plan closes
    it.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    kind: str
    what: str
    blocks: str
    step: str | None = None
    clear_at: str | None = None
    clear_number: str = ""
    step_number: str = ""
    stage: str = ""
    undo: str = ""
    since: str = ""
    who: str = ""
    open_for: str | None = None
    note: str | None = None
    assumed: bool = False
    sort: str = "other"
    where: str | None = None
    rank: Rank = "open"
    box: str | None = None
    holds_up: str | None = None
    no_closer: bool = False
    count: int = 1

    @computed_field
    @property
    def temporary(self) -> bool:
        """Whether a press ends it: something left open for a while."""
        return self.kind == "temporary"

    @computed_field
    @property
    def live(self) -> bool:
        """Whether somebody can be hurt by it now."""
        return self.rank == "danger"

    @computed_field
    @property
    def counted_out(self) -> bool:
        """Whether it is one of the covers and caps that are counted out again."""
        return self.sort in ("cover", "cap")

    @computed_field
    @property
    def shuts(self) -> bool:
        """Whether a rung is shut by it."""
        return self.blocks != "nothing"


def open_item(**facts: object) -> OpenItem:
    """One of them, with the rank of its kind."""
    return OpenItem.model_validate({"rank": RANK_OF[str(facts["kind"])], **facts})
