"""What is put together to come apart again, and what has to point one way."""

from typing import Annotated, Literal

from pydantic import Field

from hollet.core.procedure.words import Id, Part, Words

__all__ = ["ORIENT_KINDS", "Orient", "OrientKind", "Trial"]


class Trial(Part):
    """A dry fit: what it proves, and what is kept back until the last time because it is good for
    one use. It comes apart within its step (`apart` says how), or stays on trial as what the step
    opens, until that is closed.
    """

    proves: Words
    apart: Words | None = None
    kept_back: Annotated[tuple[Words, ...], Field(max_length=8)] = ()


OrientKind = Literal[
    "arrow",
    "side",
    "label",
    "one position",
    "all one way",
    "washer",
    "lip",
    "drain",
    "ring gaps",
    "mark to mark",
    "felt",
]
ORIENT_KINDS: dict[OrientKind, str] = {
    "arrow": "arrow",
    "side": "which side",
    "label": "label that misleads",
    "one position": "goes on in one position",
    "all one way": "all one way",
    "washer": "side of the washer",
    "lip": "lip of the seal",
    "drain": "drain hole",
    "ring gaps": "gaps of the rings",
    "mark to mark": "mark to mark",
    "felt": "felt all round",
}


class Orient(Part):
    """One thing that points one way: of which kind, how, and `misleads` what on it says otherwise
    in this layout. `second`: two people look.
    """

    id: Id
    kind: OrientKind
    how: Words
    misleads: Words | None = None
    second: bool = False
