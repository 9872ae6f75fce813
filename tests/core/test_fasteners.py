"""Fasteners as hands type them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.errors import Refused
from hollet.core.procedure.fasteners import COARSE, fastener_words, read_fasteners, tidy_line
from hollet.core.procedure.pieces import BagLine


@pytest.mark.parametrize(
    ("text", "line"),
    [
        ("1 m8x60 p8", (1, "M8", "60", "8", None)),
        ("5 M6x25 pins 1 2 4 5 7", (5, "M6", "25", "1 2 4 5 7", None)),
        ("m6", (1, "M6", None, None, None)),
        ("4 nuts m8", (4, "nuts M8", None, None, None)),
        ("3 clips", (3, "clips", None, None, None)),
        ("2xm10x1.25x55", (2, "M10×1.25", "55", None, None)),
        ("2 x m8x25", (2, "M8", "25", None, None)),
        ("6 m8 x 45", (6, "M8", "45", None, None)),
        ("4m8x25", (4, "M8", "25", None, None)),
        ("2 m8x1.25x30", (2, "M8", "30", None, None)),
        ("1 m10x1", (1, "M10×1", None, None, None)),
        ("2 M8×45, flat washer p3 4", (2, "M8", "45", "3 4", "flat washer")),
        ("4 m8x25 holes 1, 2, 3", (4, "M8", "25", "1 2 3", None)),
        ("4 m8x25 p1-p4", (4, "M8", "25", "1 2 3 4", None)),
        ("5 m8x25 holes 1 to 4, p7", (5, "M8", "25", "1 2 3 4 7", None)),
        ("2 m8x90 lower, long", (2, "M8", "90", "lower", "long")),
    ],
)
def test_read(text, line):
    """Count, size, length, holes, and what is odd."""
    count, size, length, holes, odd = line
    assert read_fasteners(text) == BagLine(
        count=count, size=size, length=length, holes=holes, odd=odd
    )


@pytest.mark.parametrize(
    "text",
    [
        "",
        "   ",
        "8",
        "0 m8",
        "501 m6",
        "m8x60 foo",
        "m8xx",
        "1 m8x600",
        "1 m8x1x2x3",
        "m99",
        "4 m8x25 p4-p1",
    ],
)
def test_refused(text):
    """One sentence that says what would be right."""
    with pytest.raises(Refused) as refusal:
        read_fasteners(text)
    assert refusal.value.reason_code == "bad_fasteners"
    assert refusal.value.field == "text"


@given(
    st.builds(
        BagLine,
        count=st.integers(1, 500),
        size=st.sampled_from(
            [*(f"M{d}" for d in COARSE), "M10×1.25", "nuts M8", "clips", "rubber washers"]
        ),
        length=st.none(),
        holes=st.one_of(
            st.none(),
            st.lists(st.integers(1, 40), min_size=1, max_size=5, unique=True).map(
                lambda n: " ".join(map(str, n))
            ),
        ),
        odd=st.sampled_from([None, "special", "with a long collar"]),
    ),
    st.one_of(st.none(), st.integers(8, 200)),
)
def test_what_hollet_says_it_reads_again(line, length):
    """The words of a line, typed again, give the line."""
    if length is not None and line.size.startswith("M"):
        line = line.model_copy(update={"length": str(length)})
    assert read_fasteners(fastener_words(line)) == line


@pytest.mark.parametrize(
    ("written", "holes", "odd"),
    [
        ("p1-p4", "1 2 3 4", None),
        ("lower, long", "lower", "long"),
        ("3 4", "3 4", None),
        ("bottom, with the dowels", "bottom", "with the dowels"),
        ("  ", None, None),
        ("top", "top", None),
    ],
)
def test_which_holes(written, holes, odd):
    """What is written into the field of the holes is read too, and never kept as one hole called
    p1-p4.
    """
    line = tidy_line(BagLine(count=4, size="M8", length="25", holes=written))
    assert (line.holes, line.odd) == (holes, odd)
