"""Fasteners as a hand types them: "1 m8x60 p8", "4 nuts m8", "2 m10x1.25x55 holes 3 4, flat washer".

Metric sizes are written as ISO 261 names them: M, the diameter in mm, the pitch where it is not the coarse one, the length.
"""

import re

from hollet.core.errors import Refused
from hollet.core.procedure.sheet import BagLine

__all__ = ["fastener_words", "read_fasteners"]

COARSE = {3: 0.5, 4: 0.7, 5: 0.8, 6: 1.0, 7: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 14: 2.0, 16: 2.0, 18: 2.5, 20: 2.5, 22: 2.5, 24: 3.0}
"""Coarse pitch in mm by diameter in mm, ISO 261."""
METRIC = re.compile(r"^m(\d+(?:\.\d+)?)((?:x\d+(?:\.\d+)?)*)$")
HOLES = re.compile(r"\b(?:pins?|holes?|at|p|h)\s*((?:\d+\b[\s,+]*)+)$", re.IGNORECASE)
FORM = "count, size and length, such as 4 m8x25, 1 m8x60 p8, or 3 clips"


def read_fasteners(text: str) -> BagLine:
    """One kind of fastener from a typed line.

    The count comes first (1 when left out), then words or a metric size, with `x` between size, pitch and length in mm; `p` or
    `holes` with numbers says where it belongs; what stands behind a comma is what is odd about it.

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
    counted = re.match(r"^(\d+)\s*(?:x\s+|x(?=m\d)|\s)\s*(.+)$", head) or re.match(r"^(\d+)(?=m\d)(.+)$", head, re.IGNORECASE)
    count, named = (int(counted[1]), counted[2].strip()) if counted else (1, head.strip())
    if not 1 <= count <= 500:
        raise Refused("bad_fasteners", f"'{text.strip()}': the count must be 1 to 500", field="text")
    if not re.search(r"[A-Za-z]", named):
        raise Refused("bad_fasteners", f"'{text.strip()}': no size in it; type {FORM}", field="text")
    size, length = _size(named, text)
    places = " ".join(re.findall(r"\d+", holes[1])) if holes else None
    return BagLine(count=count, size=size, length=length, holes=places, odd=odd.strip()[:80] or None)


def _size(named: str, text: str) -> tuple[str, str | None]:
    """Size and length; a word such as nuts, clips, washers goes before the size."""
    words = named.split()
    metric = METRIC.match(words[-1].lower())
    if metric is None:
        if any(METRIC.match(word.lower()) for word in words[:-1]) or re.match(r"^m\d", words[-1].lower()):
            raise Refused("bad_fasteners", f"'{text.strip()}' cannot be told apart; type {FORM}", field="text")
        return named[:40], None
    kind = " ".join(words[:-1])
    figures = [part for part in metric[2].split("x") if part]
    diameter = float(metric[1])
    if not 1.6 <= diameter <= 64 or len(figures) > 2:
        raise Refused("bad_fasteners", f"'{text.strip()}': M1.6 to M64, then pitch and length; type {FORM}", field="text")
    pitch, length = (figures[0], figures[1]) if len(figures) == 2 else (None, figures[0] if figures else None)
    if pitch is None and length is not None and float(length) <= 4:
        pitch, length = length, None
    if length is not None and not 2 <= float(length) <= 500:
        raise Refused("bad_fasteners", f"'{text.strip()}': a length of {length} mm cannot be; 2 to 500", field="text")
    fine = f"×{pitch}" if pitch is not None and float(pitch) != COARSE.get(int(diameter)) else ""
    return f"{kind} M{metric[1]}{fine}".strip(), length


def fastener_words(line: BagLine) -> str:
    """The line as Hollet says it."""
    size = f"{line.size}×{line.length}" if line.length else line.size
    return f"{line.count} × {size}" + (f" at {line.holes}" if line.holes else "") + (f", {line.odd}" if line.odd else "")
