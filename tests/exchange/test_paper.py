"""Paper read by independent readers: its text by one, its codes by another that sees only the
picture.
"""

import io

import pypdfium2
import pytest
import zxingcpp
from pypdf import PdfReader

from hollet.core.errors import NotFound, Refused
from hollet.exchange.card_pdf import card_pdf
from hollet.exchange.labels_pdf import labels_pdf
from hollet.exchange.list_pdf import list_pdf
from hollet.exchange.paper import (
    CardBolt,
    CardJoint,
    CardStage,
    Label,
    ListGroup,
    ListRow,
    TorqueCard,
)
from hollet.services.again import again, again_list
from hollet.services.debts import debt_list
from hollet.services.labels import labels
from hollet.services.torque_cards import torque_card
from tests.support import Hand

LONG = "Front cover, tensioner side, with the bracket of the alternator and the pump behind it"


def text_of(pdf: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)


def pages_of(pdf: bytes) -> int:
    return len(PdfReader(io.BytesIO(pdf)).pages)


def codes_of(pdf: bytes) -> list[str]:
    """Every code on it, as a camera would see the print."""
    found = []
    for page in pypdfium2.PdfDocument(pdf):
        picture = page.render(scale=3).to_pil()
        found += [code.text for code in zxingcpp.read_barcodes(picture)]
    return found


def card(bolts: int = 10, **own: object) -> TorqueCard:
    """A card of so many bolts in two rows, in three stages."""
    facts = {
        "title": "Head bolts",
        "about": "Threads oiled.",
        "head": "Job, step 6.09, page 1 of 1",
        "bolts": tuple(CardBolt(k + 1, k % (bolts // 2), k // (bolts // 2)) for k in range(bolts)),
        "is_round": False,
        "sides": None,
        "columns": ("Set W2", "Set W2, adapter 60 mm"),
        "stages": (
            CardStage("25 Nm", ("25", "22"), True),
            CardStage("50 Nm", ("50", "44"), True),
            CardStage("90 deg", (), False),
        ),
        "notes": ("book p. 88",),
        "assumed": ("±10 % assumed",),
        "joints": (),
        "caution": "",
    }
    return TorqueCard(**{**facts, **own})


@pytest.mark.parametrize("bolts", [2, 10, 32, 48])
def test_a_card_is_one_page_with_every_figure(bolts: int):
    """Each bolt has its number on the drawing and over its boxes; the page never grows to two."""
    others = tuple(
        CardJoint(f"Joint {k}", "20 N·m, 30 N·m", "30, W2", "new bolts, oiled", LONG, True)
        for k in range(9)
    )
    pdf = card_pdf(card(bolts, joints=others, caution=LONG * 2, about=LONG * 3))
    told = text_of(pdf)
    assert pages_of(pdf) == 1
    assert "?" not in told
    for words in (
        "25 Nm",
        "44",
        "by angle",
        "±10 % assumed",
        "book p. 88",
        "adapter",
        "local codes",
    ):
        assert words in told
    assert told.split().count(str(bolts)) >= 2
    assert "Joint 0" in told or "more: their own cards" in told


def test_codes_open_the_bag_they_stand_on():
    """25 labels on two sheets; a reader that sees only the picture finds each address."""
    wanted = [f"http://192.168.1.20:8765/builds/{'a' * 36}/bags?bag={n}" for n in range(1, 26)]
    made = [Label(str(k), LONG, LONG, address) for k, address in enumerate(wanted, 1)]
    pdf = labels_pdf("Labels", made)
    assert pages_of(pdf) == 2
    assert sorted(codes_of(pdf)) == sorted(wanted)


def test_what_does_not_fit_ends_in_dots():
    """A line that is cut says so; one that fits in a smaller letter is whole."""
    pdf = list_pdf("T", "a", "now", [ListGroup("G", (ListRow(LONG * 3, "x", "right"),))])
    assert "..." in text_of(pdf)
    whole = list_pdf("T", "a", "now", [ListGroup("G", (ListRow(LONG, "x", ""),))])
    assert LONG in text_of(whole)


def test_labels_of_a_build(hand: Hand):
    """Bags in use with what is in them, the next numbers, wires as they were found; a code only
    where a phone can reach Hollet.
    """
    with pytest.raises(Refused, match="no bag is in use"):
        labels(hand.workshop, hand.build, "bags", None)
    with pytest.raises(Refused, match="no wire"):
        labels(hand.workshop, hand.build, "wires", None)
    hand.write("confirmed", step="lead", what="Extinguisher at hand")
    hand.write("done", step="lead")
    line = {"count": 6, "size": "M10", "length": "90"}
    hand.write("bagged", step="head_out", bag=7, lines=[line])
    told = text_of(labels(hand.workshop, hand.build, "bags", None))
    assert "7" in told.split()
    assert "6 × M10×90" in told
    assert codes_of(labels(hand.workshop, hand.build, "bags", None)) == []
    opens = codes_of(labels(hand.workshop, hand.build, "ahead", "10.0.0.5:8765"))
    assert len(opens) == 24
    assert f"http://10.0.0.5:8765/builds/{hand.build}/bags?bag=8" in opens
    wire = {"terminal": "15", "colour": "black/blue", "note": "thick"}
    hand.write(
        "captured",
        step="lead",
        capture="plug",
        what="Coil plug",
        capture_kind="wires",
        wires=[wire],
    )
    assert "black/blue" in text_of(labels(hand.workshop, hand.build, "wires", None))


def test_the_card_and_the_debts_of_a_build(hand: Hand):
    """The figures of the plan are the figures on paper; a step without a joint has no card."""
    told = text_of(torque_card(hand.workshop, hand.build, "head_in"))
    for words in ("Head bolts: 6 bolts", "25 Nm", "50 Nm", "90 deg", "book p. 4", "Cover bolts, 6"):
        assert words in told
    with pytest.raises(NotFound):
        torque_card(hand.workshop, hand.build, "lead")
    hand.write("skipped", step="cover_on", reason="it was on when it came here")
    told = text_of(debt_list(hand.workshop, hand.build))
    assert "Cover bolts" in told
    assert "passed over" in told


def test_what_is_looked_at_again_on_paper(hand: Hand):
    """Nothing yet; then what was accepted in writing, at its own time."""
    assert again(hand.workshop).builds == ()
    hand.write("reading", step="ring", reading="ring", typed=["0.55"], unit="mm", instrument="f1")
    hand.write(
        "concession",
        step="ring",
        result="g",
        name="MK",
        reason="Pick-up of the post, it does three thousand a year",
        recheck="at 1000 km",
    )
    told = text_of(again_list(hand.workshop))
    assert "accepted in writing" in told
    assert "after 1000 km" in told
    assert again(hand.workshop).title == "0 things are due again, 1 later"
