"""The line protocol of instruments: one JSON object a line, UTF-8, ended by a line feed.

Over a serial line, TCP or WebSocket. A device says `hello` first, then something at least twice a
second; figures are decimal text with their unit beside them, never a bare number. A line that is
not whole and right is *damaged*: it is counted and told, and nothing is taken from it.
"""

import json
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter, ValidationError

from hollet.core.errors import Refused

__all__ = [
    "LONGEST",
    "VERSION",
    "AnyLine",
    "Begins",
    "Bye",
    "Ends",
    "Hello",
    "Here",
    "Read",
    "Samples",
    "Trouble",
    "Zeroed",
    "encode",
    "line_schema",
    "read_line",
]

VERSION = 1
LONGEST = 16_384
"""Bytes of a line; a longer one is damaged."""
MOST_SAMPLES = 500
"""In one line: half a second at 1 kHz."""

Figure = Annotated[str, Field(pattern=r"^-?\d{1,9}(\.\d{1,9})?$")]
Name = Annotated[str, Field(min_length=1, max_length=60)]
Unit = Annotated[str, Field(min_length=1, max_length=12)]
Sample = Annotated[float, Field(ge=-1e5, le=1e5)]
Seconds = Annotated[float, Field(ge=0, le=1e7)]


class _Line(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", strict=True, allow_inf_nan=False)


class Hello(_Line):
    """Who it is: the first line of a connection, and again after a change of its unit or range.

    `id` is its own for ever; `token` is asked of a device that comes over the network.
    """

    say: Literal["hello"]
    hollet: Literal[1]
    id: Annotated[str, Field(pattern=r"^[A-Za-z0-9._-]{1,40}$")]
    name: Name
    measures: Literal[
        "torque", "length", "angle", "pressure", "temperature", "speed", "resistance", "mass"
    ]
    unit: Unit
    lo: Figure | None = None
    hi: Figure | None = None
    resolution: Figure | None = None
    traces: bool = False
    zeroes: bool = False
    token: Annotated[str, Field(max_length=80)] | None = None


class Here(_Line):
    """It is on, and how full its battery is, in percent."""

    say: Literal["here"]
    battery: Annotated[int, Field(ge=0, le=100)] | None = None


class Zeroed(_Line):
    """It was set to zero where it stands."""

    say: Literal["zeroed"]


class Read(_Line):
    """What it reads now; `pressed`: its button was pressed, this is a reading to be taken;
    `stable`: it rests.
    """

    say: Literal["read"]
    value: Figure
    unit: Unit
    stable: bool = True
    pressed: bool = False
    angle: Figure | None = None


class Begins(_Line):
    """A pull begins: samples follow."""

    say: Literal["begins"]
    rate: Annotated[int, Field(ge=10, le=5000)]
    unit: Unit


class Samples(_Line):
    """Torque in the unit of the pull, and angle in degrees, at its rate; `n` is the number of the
    first one, so that a gap shows.
    """

    say: Literal["samples"]
    n: Annotated[int, Field(ge=0, le=10_000_000)]
    torque: Annotated[tuple[Sample, ...], Field(min_length=1, max_length=MOST_SAMPLES)]
    angle: Annotated[tuple[Sample, ...], Field(min_length=1, max_length=MOST_SAMPLES)]


class Ends(_Line):
    """The pull is over: the highest torque, the angle from its start, as the device has them."""

    say: Literal["ends"]
    value: Figure
    unit: Unit
    angle: Figure | None = None


class Trouble(_Line):
    """What is wrong with it, in its own words."""

    say: Literal["trouble"]
    words: Annotated[str, Field(min_length=1, max_length=200)]


class Bye(_Line):
    """It is switched off on purpose."""

    say: Literal["bye"]


AnyLine = Annotated[
    Hello | Here | Zeroed | Read | Begins | Samples | Ends | Trouble | Bye,
    Field(discriminator="say"),
]
LINES: TypeAdapter[Any] = TypeAdapter(AnyLine)


def read_line(raw: bytes) -> Any:
    """A line as it came, without its line feed.

    Raises
    ------
    Refused
        `damaged_line`: too long, not UTF-8, not JSON, a name twice, or not one of these lines.
    """
    if len(raw) > LONGEST:
        raise _damaged(f"longer than {LONGEST} bytes")
    try:
        found = json.loads(raw.decode("utf-8"), object_pairs_hook=_once, parse_constant=_constant)
        line = LINES.validate_json(json.dumps(found))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError, ValueError) as error:
        first = error.errors()[0]["msg"] if isinstance(error, ValidationError) else str(error)
        raise _damaged(first[:120]) from error
    if isinstance(line, Samples) and len(line.torque) != len(line.angle):
        raise _damaged(f"{len(line.torque)} torques and {len(line.angle)} angles")
    return line


def _damaged(why: str) -> Refused:
    return Refused("damaged_line", f"a line that is damaged: {why}", field="line")


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) != len(pairs):
        raise ValueError("a name stands twice in it")
    return found


def _constant(name: str) -> float:
    raise ValueError(f"{name} is no number")


def encode(line: BaseModel) -> bytes:
    """A line as it goes out, with its line feed."""
    return (line.model_dump_json(exclude_none=True) + "\n").encode()


def line_schema() -> dict[str, Any]:
    """The JSON Schema of every line."""
    found = LINES.json_schema()
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Hollet instrument line, version {VERSION}",
        **found,
    }
