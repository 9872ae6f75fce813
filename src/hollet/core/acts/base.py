"""What a hand may do. An act is one class: what it sends, and the facts that are added to it.

An act takes the fields that the body of its entry shares with it from that body; whatever only
Hollet adds (names from the plan, a tool as it was, what a reason passed) it cannot send.
"""

from abc import abstractmethod
from typing import Annotated, Any, ClassVar, Generic, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from hollet.core.acts.hand import Hand
from hollet.core.book.passing import Obstacle, passed_by_words
from hollet.core.book.spoken import spoken_reason
from hollet.core.entries import Body, BookState, Key
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.instruments import Instrument
from hollet.core.procedure.sheet import Step

__all__ = ["Act", "Passing", "held", "is_thin", "own_reason", "step_named", "tool_of"]

B = TypeVar("B", bound=Body)


def is_thin(text: str) -> bool:
    """Whether a reason says nothing: under ten characters, or without two different words."""
    words = {word.casefold() for word in text.split() if any(c.isalnum() for c in word)}
    return len(text.strip()) < 10 or len(words) < 2


def _enough(text: str) -> str:
    if is_thin(text):
        raise PydanticCustomError(
            "reason_thin",
            "say why in ten characters or more and two words, or press one of the reasons offered",
        )
    return text.strip()


Passing = Annotated[str, Field(max_length=1000), AfterValidator(_enough)]
"""A reason for passing something: the large keys give it, or words. Bodies keep what was accepted
before (`Reason`).
"""


class Act(BaseModel, Generic[B]):
    """Base of all acts: frozen, unknown fields refused, no number that is not finite."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    body: ClassVar[type[Body]]
    by_device: ClassVar[bool] = False
    """It comes from an instrument at this moment, and names no subject: it is never late."""

    @abstractmethod
    def accepted(self, state: BookState, hand: Hand) -> B:
        """The body to write: the act with its facts.

        Raises
        ------
        Refused
            It may not be done now, in one sentence with the field.
        NotFound
            The step, reading, result, bolt, tool or entry does not exist.
        Conflict
            It is done already, or something newer stands there.
        """

    def concerns(self) -> Key:
        """What a newer line must not stand at, where the act itself is refused."""
        return Key("step", str(getattr(self, "step", None) or ""))

    def files(self) -> tuple[tuple[str, str], ...]:
        """Files that must lie on the disk before it is written: their sort and their name."""
        return ()

    def sent_events(self) -> tuple[str, ...]:
        """What instruments have sent, of which it is made."""
        return ()

    def filled(self, **facts: Any) -> B:
        """The body made of the act's own fields, with `facts` added or put in their place."""
        shared = set(self.body.model_fields) & set(type(self).model_fields)
        own = {name: getattr(self, name) for name in shared}
        return self.body(**own | facts)  # type: ignore[return-value]


def step_named(state: BookState, step_id: str | None) -> Step:
    """The step with this id; raises NotFound."""
    step = plan_of(state).find_step(step_id)
    if step is None:
        raise NotFound("step", str(step_id))
    return step


def tool_of(hand: Hand, tool_id: str) -> Instrument:
    """A tool as it is now, without the chain behind what it was set with; raises NotFound."""
    if tool_id not in hand.tools or hand.tools[tool_id].retired:
        raise NotFound("tool", tool_id)
    tool = hand.tools[tool_id]
    if tool.set_with is not None and tool.set_with.id in hand.tools:
        return tool.model_copy(
            update={"set_with": tool.set_with.model_copy(update={"set_with": None})}
        )
    return tool


def own_reason(
    state: BookState, step: Step, reason: str | None, spoken: str | None
) -> tuple[str | None, str | None]:
    """The reason for passing something, and the spoken note that gave it: words win."""
    voice = spoken if reason is None else None
    return reason or spoken_reason(state, step, voice), voice


CODES = {"danger": "danger", "box": "box", "load": "load", "must_wait": "must_wait"}


def held(step: Step, obstacle: Obstacle, field: str) -> Refused:
    """The refusal for what stands in the way: what is so, and what alone passes it."""
    code = CODES.get(obstacle.code, "not_complete")
    joined = " " if code == "must_wait" else ": "
    words = f"{step.number}{joined}{obstacle.words}. {passed_by_words(obstacle)}"
    return Refused(code, words, field=field)
