"""Fasteners as a hand types them: "1 m8x60 p8", "4 nuts m8", "2 m10x1.25x55 holes 3 4, flat
washer".

Metric sizes are written as ISO 261 names them: M, the diameter in mm, the pitch where it is not the
coarse one, the length.
"""

import re

from hollet.core.errors import Refused
from hollet.core.procedure.pieces import BagLine

__all__ = ["fastener_words", "read_fasteners", "tidy_line"]

COARSE = {
    3: 0.5,
    4: 0.7,
    5: 0.8,
    6: 1.0,
    7: 1.0,
    8: 1.25,
    10: 1.5,
    12: 1.75,
    14: 2.0,
    16: 2.0,
    18: 2.5,
    20: 2.5,
    22: 2.5,
    24: 3.0,
}
"""Coarse pitch in mm by diameter in mm, ISO 261."""
METRIC = re.compile(r"^m(\d+(?:\.\d+)?)((?:x\d+(?:\.\d+)?)*)$")
ONE_HOLE = r"(?:pins?|holes?|at|p|h)?\s*\d+\b"
HOLES = re.compile(
    rf"\b(?:pins?|holes?|at|p|h)\s*(\d+\b(?:[\s,+]*(?:(?:-|\u2013|to)\s*)?{ONE_HOLE})*[\s,+]*)$",
    re.IGNORECASE,
)
RANGE = re.compile(r"(\d+)\s*(?:-|\u2013|to)\s*(?:pins?|holes?|p|h)?\s*(\d+)", re.IGNORECASE)
PLACES = re.compile(
    r"\b(upper|lower|top|bottom|left|right|front|rear|middle|inner|outer|inlet|exhaust|"
    r"outside|inside|side|centre)\b",
    re.IGNORECASE,
)
MOST_HOLES = 60
FORM = "count, size and length, such as 4 m8x25, 1 m8x60 p8, or 3 clips"


def read_fasteners(text: str) -> BagLine:
    """One kind of fastener from a typed line.

    The count comes first (1 when left out), then words or a metric size, with `x` between size,
    pitch and length in mm; `p` or
    `holes` with numbers, or a word such as lower, says where it belongs; what stands behind a comma
    is what is odd about it.

    Raises
    ------
    Refused
        `bad_fasteners`, with what would be right.

    Examples
    --------
    >>> fastener_words(read_fasteners("1 m8x60 p8"))
    '1 × M8×60 at 8'
    >>> fastener_words(read_fasteners("2 m10x1.25x55, flat washer"))
    '2 × M10×1.25×55, flat washer'
    """
    rest = re.sub(r"(?<=\d)\s*x\s*(?=\d)", "x", " ".join(text.replace("×", "x").split()))
    if not rest:
        raise Refused("bad_fasteners", f"type {FORM}", field="text")
    holes = HOLES.search(rest)
    head, _, odd = (rest if holes is None else rest[: holes.start()].rstrip(" ,")).partition(",")
    if holes is None and (holes := HOLES.search(head)):
        head = head[: holes.start()].strip()
    counted = re.match(r"^(\d+)\s*(?:x\s+|x(?=m\d)|\s)\s*(.+)$", head) or re.match(
        r"^(\d+)(?=m\d)(.+)$", head, re.IGNORECASE
    )
    count, named = (int(counted[1]), counted[2].strip()) if counted else (1, head.strip())
    if not 1 <= count <= 500:
        raise Refused(
            "bad_fasteners", f"'{text.strip()}': the count must be 1 to 500", field="text"
        )
    if not re.search(r"[A-Za-z]", named):
        raise Refused(
            "bad_fasteners", f"'{text.strip()}': no size in it; type {FORM}", field="text"
        )
    named, where = _place_apart(named)
    size, length = _size(named, text)
    places = " ".join(holes_of(holes[1])) if holes else where
    return BagLine(
        count=count, size=size, length=length, holes=places, odd=odd.strip()[:80] or None
    )


def holes_of(text: str) -> list[str]:
    """The numbers of the holes that a text names, each once, in its order; `p1-p4` is all four.

    Raises
    ------
    Refused
        `bad_fasteners`: a range that runs backwards, or of more than 60 holes.

    Examples
    --------
    >>> holes_of("p1-p4, 7")
    ['1', '2', '3', '4', '7']
    """
    found: list[str] = []
    at = 0
    for span in RANGE.finditer(text):
        found += re.findall(r"\d+", text[at : span.start()])
        first, last = int(span[1]), int(span[2])
        if not first < last <= first + MOST_HOLES:
            raise Refused(
                "bad_fasteners",
                f"'{span[0]}' is no row of holes: the lower number comes first, such as p1-p4",
                field="text",
            )
        found += [str(k) for k in range(first, last + 1)]
        at = span.end()
    return list(dict.fromkeys(found + re.findall(r"\d+", text[at:])))


def tidy_line(line: BagLine) -> BagLine:
    """The line with its holes read: numbers in their order, a row spelled out, and what stands
    behind a place word as what is odd.

    Raises
    ------
    Refused
        As `holes_of`.

    Examples
    --------
    >>> tidy_line(BagLine(count=2, size="M8", length="90", holes="lower, long")).odd
    'long'
    """
    if not line.holes or not line.holes.strip():
        return line.model_copy(update={"holes": None})
    text = line.holes.strip()
    if re.fullmatch(rf"(?:{ONE_HOLE}|[\s,+]|-|\u2013|to\b)+", text, re.IGNORECASE):
        return line.model_copy(update={"holes": " ".join(holes_of(text))})
    where, _, odd = text.partition(",")
    said = ", ".join(part for part in (odd.strip(), line.odd or "") if part)
    return line.model_copy(update={"holes": where.strip(), "odd": said[:80] or None})


def _place_apart(named: str) -> tuple[str, str | None]:
    """A place word behind a metric size is where it belongs: "m8x90 lower"."""
    head, _, last = named.rpartition(" ")
    metric = METRIC.match(head.split()[-1].lower()) if head else None
    return (head, last.lower()) if metric and PLACES.fullmatch(last) else (named, None)


def _size(named: str, text: str) -> tuple[str, str | None]:
    """Size and length; a word such as nuts, clips, washers goes before the size."""
    words = named.split()
    metric = METRIC.match(words[-1].lower())
    if metric is None:
        if any(METRIC.match(word.lower()) for word in words[:-1]) or re.match(
            r"^m\d", words[-1].lower()
        ):
            raise Refused(
                "bad_fasteners", f"'{text.strip()}' cannot be told apart; type {FORM}", field="text"
            )
        return named[:40], None
    kind = " ".join(words[:-1])
    figures = [part for part in metric[2].split("x") if part]
    diameter = float(metric[1])
    if not 1.6 <= diameter <= 64 or len(figures) > 2:
        raise Refused(
            "bad_fasteners",
            f"'{text.strip()}': M1.6 to M64, then pitch and length; type {FORM}",
            field="text",
        )
    pitch, length = (
        (figures[0], figures[1]) if len(figures) == 2 else (None, figures[0] if figures else None)
    )
    if pitch is None and length is not None and float(length) <= 4:
        pitch, length = length, None
    if length is not None and not 2 <= float(length) <= 500:
        raise Refused(
            "bad_fasteners",
            f"'{text.strip()}': a length of {length} mm cannot be; 2 to 500",
            field="text",
        )
    fine = f"×{pitch}" if pitch is not None and float(pitch) != COARSE.get(int(diameter)) else ""
    return f"{kind} M{metric[1]}{fine}".strip(), length


def fastener_words(line: BagLine) -> str:
    """The line as Hollet says it."""
    size = f"{line.size}×{line.length}" if line.length else line.size
    return (
        f"{line.count} × {size}"
        + (f" at {line.holes}" if line.holes else "")
        + (f", {line.odd}" if line.odd else "")
    )
