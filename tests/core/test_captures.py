"""The state as found: demanded before the step that destroys it, looked at again at refit."""

import pytest

from hollet.core.book.captures import all_captures
from hollet.core.errors import Conflict, NotFound, Refused
from tests.support import TAKE, Book, small_sheet, tools


@pytest.fixture
def book() -> Book:
    """Lead off and oil drained: the cover is next."""
    made = Book(small_sheet(TAKE), tools())
    made.do("done", step="lead_off")
    made.do("done", step="drained")
    return made


def mark(book: Book, **own):
    """The mark of the cover kept."""
    return book.do(
        "captured",
        step="cover_off",
        capture="cover_mark",
        **{"strokes": 3, "place": "left edge", **own},
    )


def compare(book: Book, capture: str = "cover_mark", **own):
    """A look at refit."""
    return book.do("compared", step="cover_on", capture=capture, **own)


def test_going_on_without_needs_a_reason(book: Book):
    """The step is refused while the capture is missing; kept, or let go with a reason, it may be
    done.
    """
    with pytest.raises(Refused) as refusal:
        book.do("done", step="cover_off")
    assert "the chance is gone" in refusal.value.message
    with pytest.raises(Refused) as refusal:
        book.do("decision", step="cover_off", about="capture", thing="cover_mark")
    assert refusal.value.reason_code == "no_reason"
    book.do(
        "decision", step="cover_off", about="capture", thing="cover_mark", reason="it has a dowel"
    )
    book.do("done", step="cover_off")
    assert all_captures(book.state)[0].state == "let go"
    assert book.bench("cover_on").base.compares == ()


@pytest.mark.parametrize(
    ("own", "code"),
    [
        ({"strokes": 1}, "one_stroke"),
        ({"strokes": None}, "not_kept"),
        ({"place": None}, "not_kept"),
    ],
)
def test_a_mark_is_more_than_a_scratch(book: Book, own, code):
    """One stroke is no mark; a mark without a place or strokes is none either; a maker's mark needs
    no strokes.
    """
    with pytest.raises(Refused) as refusal:
        mark(book, **own)
    assert refusal.value.reason_code == code
    assert mark(book, strokes=None, factory=True).body.factory


def test_a_mark_is_asked_for_again(book: Book):
    """At refit the step waits for the look; as many strokes in line is the same, fewer is a
    mismatch that shuts a gate.
    """
    mark(book)
    book.do("done", step="cover_off")
    book.do("done", step="cover_on", reason="to see what it lacks")
    book.do("reopened", step="cover_on", reason="now in earnest")
    assert book.bench("cover_on").base.lacking == "Cover to case: not compared yet"
    compare(book, strokes=2)
    view = book.bench("cover_on").base.compares[0]
    assert (view.state, view.compared) == ("differs", "2 of 3 strokes in line")
    assert book.open()["capture:cover_mark"] == "crank"
    compare(book, strokes=3)
    assert "capture:cover_mark" not in book.open()
    assert book.bench("cover_on").base.compares[0].state == "same"


def test_what_the_hand_sees_as_different_stays_different(book: Book):
    """All strokes in line and yet not as found: the word of the hand counts."""
    mark(book)
    assert compare(book, same=False, strokes=3, words="the cover sits 1 mm low").body.same is False
    assert "capture:cover_mark" in book.open()


def test_a_length_without_a_tolerance(book: Book):
    """Equal is the same in any unit; different is different, unless words say why it does not
    matter.
    """
    book.do(
        "captured",
        step="shaft_off",
        capture="own-length",
        what="Rod",
        capture_kind="length",
        typed="25.4 mm",
    )
    assert compare(book, "own-length", typed="1 in").body.same is True
    assert compare(book, "own-length", typed="25.5").body.same is False
    assert compare(book, "own-length", typed="25.5", same=True).body.same is False
    assert (
        compare(book, "own-length", typed="25.5", same=True, words="read with a rule").body.same
        is True
    )
    with pytest.raises(Refused):
        compare(book, "own-length")


def test_kept_anew_is_looked_at_anew(book: Book):
    """A second capture of the same thing makes the earlier look stand for nothing."""
    mark(book)
    compare(book, strokes=3)
    mark(book, strokes=4)
    assert all_captures(book.state)[0].state == "kept"


def test_lengths_are_told_apart(book: Book):
    """Within what the sheet allows it is the same, whatever unit was typed; beyond it is not."""
    book.do("captured", step="shaft_off", capture="shaft_length", typed="61.5 mm")
    assert compare(book, "shaft_length", typed="2.46 in").body.same is False
    assert compare(book, "shaft_length", typed="2.42 in").body.same is True
    found = next(c for c in all_captures(book.state) if c.id == "shaft_length")
    assert found.compared == "2.42 in, was 61.5 mm: 0.032 mm shorter"
    with pytest.raises(Refused):
        book.do("captured", step="shaft_off", capture="shaft_length", typed="61.5 Nm")


def test_wires_by_terminal(book: Book):
    """Terminal and colour; a terminal named twice has to say which is which."""
    wires = [{"terminal": "B", "colour": "black"}, {"terminal": "50", "colour": "red/white"}]
    made = book.do(
        "captured",
        step="shaft_off",
        capture="own-map",
        what="Starter",
        capture_kind="wires",
        wires=wires,
    )
    assert [w.terminal for w in made.body.wires] == ["B", "50"]
    for bad, code in (([], "not_kept"), ([*wires, {"terminal": "b", "colour": "blue"}], "twice")):
        with pytest.raises(Refused) as refusal:
            book.do(
                "captured",
                step="shaft_off",
                capture="other",
                what="Starter",
                capture_kind="wires",
                wires=bad,
            )
        assert refusal.value.reason_code == code


def test_own_captures_go_with_their_removal(book: Book):
    """What is kept of something that no step names is asked for where it goes back."""
    book.do("removed", removal="fan", what="Fan")
    book.do(
        "captured",
        removal="fan",
        capture="blade",
        what="Blade to hub",
        capture_kind="index",
        words="long side forward",
    )
    with pytest.raises(Refused):
        book.do(
            "captured", removal="nothing", capture="x", what="X", capture_kind="index", words="up"
        )
    assert next(c for c in all_captures(book.state) if c.id == "blade").words == "long side forward"
    with pytest.raises(NotFound):
        compare(book, "never", same=True)


def test_a_setting_that_was_loosened_is_open_till_set_anew(book: Book):
    """It stands in the gates with its rung, and goes when it is set again."""
    assert book.bench("shaft_off").base.keeps[0].part_at == "the pin"
    book.do("disturbed", step="shaft_off", setting="clamp", reason="the pin was seized")
    assert book.open()["setting:clamp"] == "gear"
    assert book.bench("shaft_off").base.keeps[0].disturbed == "the pin was seized"
    book.do("set anew", step="shaft_off", setting="clamp", how="lever upright in neutral")
    assert "setting:clamp" not in book.open()


def test_a_setting_guarded_by_hand(book: Book):
    """What nobody named before: shown at its step, and open like any other when it is loosened
    after all.
    """
    own = {
        "step": "cover_off",
        "setting": "stop",
        "what": "the stop screw",
        "holds": "idle",
        "part_at": "the cable end",
        "blocks": "fire",
    }
    book.do("guarded", **own)
    with pytest.raises(Conflict):
        book.do("guarded", **own)
    assert [(k.what, k.part_at) for k in book.bench("cover_off").base.keeps] == [
        ("the stop screw", "the cable end")
    ]
    book.do("disturbed", step="cover_off", setting="stop", reason="it sat on the nut")
    assert book.open()["setting:stop"] == "fire"
    with pytest.raises(NotFound):
        book.do("disturbed", step="cover_off", setting="nothing", reason="no such thing")


def test_what_must_be_off_is_asked_again(book: Book):
    """The lead was put on again meanwhile: the step that needs it off says so."""
    mark(book)
    assert book.bench("cover_off").base.needed_open == ()
    book.do("undone", item="lead")
    assert book.bench("cover_off").base.needed_open == ("Lead off",)
    with pytest.raises(Refused) as refusal:
        book.do("done", step="cover_off")
    assert refusal.value.reason_code == "danger"
    assert "lead off" in refusal.value.message


def test_fluids_and_hidden_things(book: Book):
    """What is drained says where the rest runs; a closed circuit stays closed; hidden things stand
    there.
    """
    bench = book.bench("cover_off")
    assert [f.words for f in bench.base.fluids] == [
        "Oil: drained, the rest runs out at the tail",
        "Refrigerant: the circuit stays closed, nothing is opened",
    ]
    book.do("reopened", step="drained", reason="plug was tight")
    assert "tray under it first" in book.bench("cover_off").base.fluids[0].words
    assert bench.base.hidden == ("a fourth nut below",)


def test_no_grinding_over_an_open_port(book: Book):
    """A bare opening holds back the dusty step until it is covered."""
    book.do(
        "left open",
        step="cover_off",
        item="port",
        what="Inlet port",
        sort="open_port",
        where="head",
    )
    assert (
        book.bench("ground").base.lacking == "no grinding or cutting while this is open: Inlet port"
    )
    book.do("undone", item="port")
    assert book.bench("ground").base.lacking is None
