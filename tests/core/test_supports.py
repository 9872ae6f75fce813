"""What carries what, whether it may stay overnight; what to make safe; surroundings; the ladder for
stuck parts.
"""

from datetime import UTC, datetime, timedelta

import pytest

from hollet.core.book.around import around_words
from hollet.core.book.ledger import left_open
from hollet.core.book.points import POINTS
from hollet.core.book.secure import secure_view
from hollet.core.book.supports import support_view
from hollet.core.book.tries import ladder_of, said_of, tries_of
from hollet.core.entries import Tried
from hollet.core.errors import Conflict, Refused
from hollet.core.procedure.stuck import NEAR, StuckFacts, Try, stuck_ladder
from hollet.library.lore import lore
from tests.core.test_passing import press, shelf
from tests.support import TAKE, Book, small_sheet, tools

MEANS = {condition.id: condition.means for condition in lore().around}
STUCK = lore().stuck
LATER = datetime(2030, 1, 1, tzinfo=UTC)
CORNERS = ("frame, front left", "frame, front right", "frame, rear left", "frame, rear right")


@pytest.fixture
def book() -> Book:
    """A build of the take-down sheet."""
    return Book(small_sheet(TAKE), tools())


def put(book: Book, name: str, kind: str, carries: str, point: str, ground: str = "hard", **own):
    """A support in."""
    return book.do(
        "supported",
        support=name,
        support_kind=kind,
        carries=carries,
        point=point,
        ground=ground,
        **own,
    )


def body(book: Book, name: str):
    """How one body stands."""
    return next(b for b in support_view(book.state).bodies if b.body == name)


def test_four_stands_on_hard_ground_stay(book: Book):
    """Three do not; four do; one of four on soft ground does not count."""
    for k, corner in enumerate(CORNERS[:3]):
        put(book, f"s{k}", "stand", "vehicle", corner)
    assert body(book, "vehicle").because == "only 3 places that stay: it needs 4"
    put(book, "s3", "stand", "vehicle", CORNERS[3])
    assert body(book, "vehicle").stays
    assert support_view(book.state).line == "vehicle on 4 stands"
    put(book, "s3", "stand", "vehicle", CORNERS[3], ground="soft")
    assert not body(book, "vehicle").stays
    assert "on soft ground it sinks" in body(book, "vehicle").because


@pytest.mark.parametrize(
    ("supports", "stays", "words"),
    [
        ([("jack", "gearbox tail")], False, "a jack sinks"),
        ([("hook", "front lifting eye")], False, "hangs on a hook"),
        ([("stand", "bell housing")], False, "one stand alone tips"),
        ([("stand", "bell housing"), ("timber", "gearbox tail")], True, "on stand, timber"),
        ([("cradle", "rails of the block")], True, "on cradle"),
        ([("hook", "front lifting eye"), ("cradle", "rails of the block")], True, "on cradle"),
    ],
)
def test_a_unit_overnight(book: Book, supports, stays, words):
    """A jack sinks, a hook swings, one stand tips; two places or a cradle stay."""
    for k, (kind, point) in enumerate(supports):
        put(book, f"u{k}", kind, "engine", point)
    found = body(book, "engine")
    assert (found.stays, words in found.because) == (stays, True)
    assert found.hangs == any(kind == "hook" for kind, _ in supports)


def test_forbidden_points_are_refused(book: Book):
    """Nothing goes under the sill seam, the sump or a bolt; taking something away from there is
    always possible.
    """
    forbidden = [p for p in POINTS if p.forbidden]
    assert len(forbidden) >= 4
    for point in forbidden:
        with pytest.raises(Refused) as refusal:
            put(book, "x", "jack", "vehicle", point.name)
        assert refusal.value.reason_code == "forbidden_point"
    put(book, "x", "jack", "vehicle", "sill seam", gone=True)
    assert support_view(book.state).supports == ()


def test_taken_away_and_struck(book: Book):
    """Away is away; a struck line brings back what was."""
    put(book, "j", "jack", "gearbox", "gearbox tail")
    away = put(book, "j", "jack", "gearbox", "gearbox tail", gone=True)
    assert support_view(book.state).line == "nobody said what carries it"
    book.do("strike", entry=away.id, reason="it is still there")
    assert book.view().carried == "gearbox on a jack"
    assert not book.view().carried_stays


HELD = """
carries = [
  { body = "engine", by = "jack" },
  { body = "gearbox", by = "stand", count = 2, points = [
    "gearbox tail", "gearbox, front of the case"
  ] },
]
"""


def test_a_hand_places_what_a_step_counted():
    """What a step set at named places stays there when one more is put in; only the one that nobody
    placed is taken up by the hand that says where it stands.
    """
    text = TAKE.replace('id = "lead_off"', 'id = "lead_off"' + HELD, 1)
    book = Book(small_sheet(text), tools())
    book.do("done", step="lead_off")
    view = support_view(book.state)
    assert view.title == "Carried on 3 points, 1 of them nobody placed"
    assert [p.x is None for p in view.supports] == [True, False, False]
    put(book, "a", "stand", "gearbox", "bell housing")
    assert len([p for p in support_view(book.state).supports if p.carries == "gearbox"]) == 3
    put(book, "b", "stand", "gearbox", "gearbox tail", padding="timber")
    put(book, "c", "jack", "engine", "bell housing")
    view = support_view(book.state)
    assert view.title == "Carried on 4 points"
    assert sorted(p.point for p in view.supports) == [
        "bell housing",
        "bell housing",
        "gearbox tail",
        "gearbox, front of the case",
    ]


def test_secure_now(book: Book):
    """The list from the state: people first, what hangs, fuel, bare openings, weather; ticked as
    done; then the card.
    """
    for step in ("lead_off", "drained", "cover_off"):
        book.do("done", step=step, reason="left out of this test")
    put(book, "h", "hook", "engine", "front lifting eye")
    book.do(
        "left open",
        step="shaft_off",
        item="f",
        what="Fuel line off",
        blocks="fuel_on",
        sort="disconnected",
    )
    book.do("left open", step="shaft_off", item="p", what="Inlet port", sort="open_port")
    book.do("surroundings", around=["wind", "wind"])
    book.do(
        "stopped", why="a storm", going="up", hurt="MK, hand", near_miss="the door", people_left=1
    )
    view = secure_view(book.state, book.time)
    assert view.stopped
    assert (view.why, view.going, view.hurt) == ("a storm", "going up", "MK, hand")
    assert [i.key for i in view.items] == [
        "people",
        "support:engine",
        "fuel:f",
        "cover:p",
        "weather",
        "tools",
    ]
    assert not view.made_safe
    assert view.leave == (
        "Children, visitors, animals: out now",
        "Two: leaves as soon as nothing is held by hand",
    )
    assert any(line.startswith("Engine going up, hangs") for line in view.card)
    assert view.card[0].startswith("Come back to 2.04 Shaft off")
    book.do("secured", item="people", what="Everybody out")
    put(book, "c", "cradle", "engine", "rails of the block")
    assert [i.key for i in secure_view(book.state, book.time).items if not i.done] == [
        "fuel:f",
        "cover:p",
        "weather",
        "tools",
    ]
    put(book, "h", "hook", "engine", "front lifting eye", gone=True)
    assert "support:engine" not in [i.key for i in secure_view(book.state, book.time).items]
    book.do("gone on", note="dry again")
    assert not secure_view(book.state, book.time).stopped
    with pytest.raises(Conflict):
        book.do("gone on")


def test_a_second_stop_starts_its_list_anew(book: Book):
    """What was ticked at the first stop is not ticked at the second."""
    book.do("stopped", why="a call")
    book.do("secured", item="tools", what="Tools out")
    book.do("gone on")
    book.do("stopped", why="a storm")
    assert not any(i.done for i in secure_view(book.state, book.time).items if i.own)


def test_surroundings_mean_something_for_each_step(book: Book):
    """Each condition has words for any step, and its own for lifting, measuring, tightening or an
    open port.
    """
    step = book.state.plan.find_step("shaft_off")
    words = {w.id: w.words for w in around_words(lore(), tuple(MEANS), step, openings=True)}
    assert words["wind"] == "a hanging load swings: do not lift"
    assert words["dust"] == "openings are bare: cover them first"
    assert words["cold"] == MEANS["cold"]["else"]
    assert set(words) == {"wind", "dust", "cold", "damp", "dark", "noise"}
    book.do("surroundings", around=["dark"])
    assert (
        book.bench("shaft_off").base.around[0].words
        == "nobody is seen in the dark: light the watch points or do not move"
    )
    assert book.view().around == ("dark",)


def rung(name: str, tries: list[Try] | None = None, **facts):
    """One rung of the ladder as it stands."""
    ladder = stuck_ladder(STUCK, tries or [], StuckFacts(**facts))
    return next(r for r in ladder if r.id == name)


REFUSED_BY = {
    "soak": "lining rubber_mount sensor hot",
    "impact": "airbag alloy magnesium heat_treated",
    "strike": "airbag damper alloy magnesium sealed open_bearing",
    "puller": "airbag",
    "heat": "fuel battery airbag damper tyre sealed pressure loaded_spring magnesium lining wiring "
    "heat_treated seal rubber_mount",
    "flame": "fuel battery airbag damper tyre sealed pressure loaded_spring magnesium lining "
    "wiring heat_treated seal rubber_mount alloy",
    "saw": "airbag damper sealed pressure loaded_spring lining",
    "cut": "fuel battery airbag damper tyre sealed pressure loaded_spring magnesium lining wiring",
    "broken": "airbag damper sealed pressure loaded_spring lining",
}


@pytest.mark.parametrize("near", list(NEAR))
def test_what_is_near_refuses_its_rungs_and_no_other(near):
    """Heat and sparks near what burns or bursts, blows on alloy, oil on a lining: refused, with
    what is near named; the rest stays free.
    """
    ladder = stuck_ladder(STUCK, [], StuckFacts(near=(near,), nut="no thread"))
    refused = {r.id for r in ladder if r.refused}
    assert refused == {name for name, by in REFUSED_BY.items() if near in by.split()}
    assert all(NEAR[near] in r.words for r in ladder if r.refused)


SOAKED = [Try(rung="soak", minutes=480, ago_minutes=480)]
WET = [*SOAKED, Try(rung="soak", minutes=5, ago_minutes=14)]


@pytest.mark.parametrize("name", ["heat", "flame", "cut"])
@pytest.mark.parametrize(
    ("tries", "facts", "state"),
    [
        ([], {}, "free"),
        (SOAKED, {}, "refused"),
        (SOAKED, {"wiped": True}, "free"),
        (WET, {"wiped": True}, "refused"),
        ([], {"cleaner": "without chlorine"}, "refused"),
        ([], {"cleaner": "without chlorine", "wiped": True}, "free"),
        ([], {"cleaner": "with chlorine", "wiped": True}, "refused"),
        ([], {"cleaner": "nobody knows", "wiped": True}, "refused"),
        ([Try(rung="work", minutes=1, cleaner="with chlorine")], {"wiped": True}, "refused"),
        ([Try(rung="work", minutes=1, near=("tyre",))], {"wiped": True}, "refused"),
    ],
)
def test_heat_and_sparks(name, tries, facts, state):
    """After oil or cleaner only when wiped and waited; after chlorine or what nobody knows never;
    what was said once is not forgotten.
    """
    assert rung(name, tries, **facts).state == state


@pytest.mark.parametrize(
    ("name", "tries", "state"),
    [
        ("flame", [Try(rung="flame", minutes=1)] * 3, "enough"),
        ("heat", [Try(rung="heat", minutes=11)], "enough"),
        (
            "heat",
            [Try(rung="heat", minutes=1), Try(rung="heat", minutes=1, came=True)],
            "tried",
        ),
        ("strike", [Try(rung="strike", minutes=1)], "enough"),
        ("puller", [Try(rung="puller", minutes=10)], "tried"),
        ("puller", [Try(rung="puller", minutes=11)], "enough"),
        ("soak", [Try(rung="soak", minutes=1)] * 5, "tried"),
        ("soak", [Try(rung="soak", minutes=480)] * 2, "tried"),
        ("soak", [Try(rung="soak", minutes=961)], "enough"),
    ],
)
def test_when_it_is_enough(name, tries, state):
    """Its own minutes or tries; five blows are all of them; soaking counts by its hours alone."""
    assert rung(name, tries, nut="level").state == state


@pytest.mark.parametrize("name", ["strike", "puller"])
def test_the_nut_is_asked_for(name):
    """A bare thread end is not struck and not pulled on, and nothing is done while nobody said."""
    assert "say first" in rung(name).words
    assert "mushrooms" in rung(name, nut="bare").words
    assert rung(name, nut="level").state == "free"


def test_alloy_changes_the_heat():
    """Warm, no flame, with its figure; a fork near a boot, a blow at a taper are warned of."""
    warm = rung("heat", near=("alloy",))
    assert (warm.state, "at most 120 °C" in warm.words) == ("free", True)
    assert "on the boss" in rung("strike", near=("heat_treated",), nut="level").words
    assert "cuts the boot" in rung("wedge", near=("seal",)).words


def test_the_ladder_is_in_its_order():
    """What still holds it first, what is left when it broke last; each says what it may harm and
    when to stop.
    """
    assert [r.id for r in STUCK] == [
        "held_by",
        "soak",
        "counter_hold",
        "work",
        "impact",
        "strike",
        "wedge",
        "puller",
        "heat",
        "flame",
        "saw",
        "cut",
        "broken",
    ]
    assert all(r.harm and r.stop for r in STUCK)
    assert (
        rung("soak", [Try(rung="soak", minutes=30, ago_minutes=90)]).words
        == "soaking for 1.5 h; 8 h do most of it (rule of thumb 2 to 24)"
    )


def test_an_old_try_is_read():
    """Of a cleaner whose kind was not asked nobody knows it; an old rung stays readable."""
    old = {"step": "s", "part": "Bolt 3", "rung": "partial_nut", "came": False, "near": ["seal"]}
    one = Tried.model_validate(Tried.lift(1, {**old, "minutes": 6, "cleaned": True}))
    assert (one.cleaner, one.line("Step")) == (
        "nobody knows",
        "Bolt 3: partial nut, 6 min, did not come",
    )
    two = Tried.model_validate(Tried.lift(2, {**old, "time": one.time, "cleaned": False}))
    assert (two.cleaner, two.near) == ("none", ("seal",))


def test_tries_are_logged_and_refused(book: Book):
    """A try is a line; heat near a seal is refused and nothing is written."""
    book.do("tried", step="shaft_off", part="Nut", rung="soak", time="480 min")
    with pytest.raises(Refused) as refusal:
        book.do("tried", step="shaft_off", part="nut", rung="heat", time="5 min")
    assert refusal.value.reason_code == "not_here"
    book.now += timedelta(minutes=16)
    done = book.do(
        "tried", step="shaft_off", part="Nut", rung="heat", time="5 min", wiped=True, came=True
    )
    assert done.body.came


def test_a_support_taken_away_holds_at_once():
    """One of two hooks away by hand: the engine hangs on the other, and nothing is lifted, let go
    or called safe until somebody says what carries it now.
    """
    up = shelf("powertrain-up")
    up.on_wheels()
    up.absent("wires_off", "bay_photographed", "weight_known")
    press(up, "lift_points_on")
    up.hung("lift_points_on")
    up.do("done", step="lift_points_on", reason="the wires were never on")
    assert "load" not in {o.code for o in up.bench("engine_up").base.obstacles}
    hook = next(s for s in support_view(up.state).supports if s.kind == "hook")
    put(up, hook.id, "hook", "engine", hook.point, gone=True)
    held = next(o for o in up.bench("engine_up").base.obstacles if o.code == "load")
    assert (held.by, held.words) == (
        "load",
        "a hook was taken from the engine: say what carries it now",
    )
    view = support_view(up.state)
    assert view.taken == ("engine",)
    assert next(b.stays for b in view.bodies if b.body == "engine") is False
    put(up, "hands", "helper", "engine", "front lifting eye")
    assert support_view(up.state).taken == ("engine",)
    rest = next(s for s in view.supports if s.kind == "hook")
    put(up, rest.id, "hook", "engine", rest.point)
    assert "load" not in {o.code for o in up.bench("engine_up").base.obstacles}
    assert support_view(up.state).taken == ()


def test_what_is_left_under_a_vehicle():
    """A fifth stand may go; one of four may not without a word."""
    book = shelf("powertrain-up")
    for k, point in enumerate(
        (
            "front left jacking point",
            "front right jacking point",
            "rear left jacking point",
            "rear right jacking point",
            "front cross member",
        )
    ):
        put(book, f"s{k}", "stand", "vehicle", point)
    put(book, "s4", "stand", "vehicle", "front cross member", gone=True)
    assert support_view(book.state).taken == ()
    put(book, "s3", "stand", "vehicle", "rear right jacking point", gone=True)
    assert support_view(book.state).taken == ("vehicle",)
    put(book, "s5", "stand", "vehicle", "rear right jacking point")
    assert support_view(book.state).taken == ()


@pytest.mark.parametrize(("hanging", "rest"), [(8, None), (9, "and 1 more left open")])
def test_the_card_of_a_stop_counts_what_it_leaves_out(hanging, rest):
    """Eight things by name; from the ninth on how many more."""
    book = Book(small_sheet(), tools())
    book.on_wheels()
    already = len(left_open(book.state))
    for number in range(hanging - already):
        item = f"i{number}"
        book.do("left open", step="lead", item=item, what=f"Wire {number}", blocks="fire")
    book.do("stopped", why="telephone")
    card = secure_view(book.state, book.time).card
    assert [line for line in card if line.endswith("more left open")] == ([rest] if rest else [])
    assert sum(line.startswith("Left open: ") for line in card) == 8


def test_a_hook_stands_on_no_ground(book: Book):
    """Whatever a hand says of the ground under it: it does not stand there."""
    put(book, "h", "hook", "engine", "front lifting eye", ground="hard")
    put(book, "s", "stand", "engine", "bell housing", ground="hard")
    ground = {point.id: point.ground for point in support_view(book.state).supports}
    assert ground == {"h": "unknown", "s": "hard"}


STUCK_SHEET = """
[sheet]
id = "stuck"
title = "Stuck"
about = "A nut that soaks overnight."

[[step]]
id = "evening"
stage = "take_down"
kind = "check"
title = "Soak evening"
do = "Oil on it."

[[step]]
id = "nut_off"
stage = "take_down"
kind = "check"
title = "Nut off"
do = "Off it comes."
stuck = { thing = "nut", soak = "evening", harms = "it", spares = "the stud", stop = "it slips" }

[[step]]
id = "other"
stage = "take_down"
kind = "check"
title = "Other"
do = "Off too."
"""


def test_what_was_soaked_anywhere_sees_no_flame():
    """In the evening that the sheet gives, also when it was opened again, or by name at another
    step; what was said near it once stays, whoever asks again without it.
    """
    book = Book(small_sheet(STUCK_SHEET), {})
    nut, now = book.state.plan.find_step("nut_off"), LATER

    def soaked(step, part):
        return [t.rung for t in tries_of(book.state, step, part, now)]

    assert soaked(nut, "Nut") == []
    book.do("done", step="evening")
    assert soaked(nut, "Nut") == ["soak"]
    book.do("reopened", step="evening", reason="one nut was forgotten")
    assert soaked(nut, "Nut") == ["soak"]
    try_it = {"step": "nut_off", "part": "nut", "came": False, "time": "5 min"}
    with pytest.raises(Refused, match="wipe it dry"):
        book.do("tried", rung="flame", **try_it)
    book.do("tried", rung="counter_hold", near=["tyre"], **try_it)
    with pytest.raises(Refused, match="tyre"):
        book.do("tried", rung="flame", wiped=True, **try_it)
    assert said_of(book.state, nut, "NUT", now).near == ("tyre",)
    other = book.state.plan.find_step("other")
    book.do("tried", rung="soak", **{**try_it, "part": "Bush"})
    assert soaked(other, "bush") == ["soak"]
    with pytest.raises(Refused, match="thread end"):
        book.do("tried", rung="strike", **try_it)


def test_the_soak_of_a_struck_line_is_none():
    """A soak written by mistake and struck wets nothing; a struck tyre is not near."""
    book = Book(small_sheet(STUCK_SHEET), {})
    nut = book.state.plan.find_step("nut_off")
    soak = book.do("tried", step="nut_off", part="nut", rung="soak", time="1 h", near=["tyre"])
    states = {r.id: r.state for r in ladder_of(book.state, nut, "nut", StuckFacts(), LATER)}
    assert (states["flame"], states["soak"]) == ("refused", "tried")
    book.do("strike", entry=soak.id, reason="another nut")
    states = {r.id: r.state for r in ladder_of(book.state, nut, "nut", StuckFacts(), LATER)}
    assert (states["flame"], states["soak"]) == ("free", "free")


def test_where_the_step_opens_fuel_it_is_near():
    """Nobody has to say it: the sheet knows that the line held fuel, and drained leaves vapour."""
    fuel = """
[[fluid]]
id = "petrol"
name = "Fuel"
kind = "fuel"
runs_out = "at the union"
"""
    text = STUCK_SHEET.replace("[[step]]", fuel + "\n[[step]]", 1)
    book = Book(small_sheet(text.replace('id = "other"', 'id = "other"\nholds = ["petrol"]')), {})
    other, nut = book.state.plan.find_step("other"), book.state.plan.find_step("nut_off")
    assert said_of(book.state, other, "union", LATER).near == ("fuel",)
    assert said_of(book.state, nut, "union", LATER).near == ()
    try_it = {"part": "union", "came": False, "time": "5 min"}
    with pytest.raises(Refused, match="fuel"):
        book.do("tried", step="other", rung="cut", **try_it)
    book.do("tried", step="nut_off", rung="cut", **try_it)


@pytest.mark.parametrize("again", ["nut 2", "NUT 2", "Nut  2 ", "nut-2", "Nut2."])
def test_a_part_is_the_same_however_it_is_written(again: str):
    """Chlorine on *Nut 2* is on *nut  2*: another way to write it frees nothing."""
    book = Book(small_sheet(STUCK_SHEET), {})
    nut = book.state.plan.find_step("nut_off")
    told = {"step": "nut_off", "rung": "work", "came": False, "time": "5 min"}
    book.do("tried", part="Nut 2", near=["seal"], cleaner="with chlorine", **told)
    found = said_of(book.state, nut, again, LATER)
    assert (found.near, found.cleaner) == (("seal",), "with chlorine")
    ladder = {r.id: r.state for r in ladder_of(book.state, nut, again, StuckFacts(), LATER)}
    assert (ladder["heat"], ladder["flame"]) == ("refused", "refused")


def test_what_burns_near_one_part_is_near_the_next():
    """Another part of the same step: fuel, a battery, an airbag and chlorine go along; a seal that
    the first had beside it does not, and at another step nothing does.
    """
    book = Book(small_sheet(STUCK_SHEET), {})
    told = {"step": "nut_off", "rung": "work", "came": False, "time": "5 min"}
    book.do("tried", part="left nut", near=["fuel", "seal"], cleaner="with chlorine", **told)
    nut, other = (book.state.plan.find_step(name) for name in ("nut_off", "other"))
    found = said_of(book.state, nut, "right nut", LATER)
    assert (found.near, found.cleaner) == (("fuel",), "with chlorine")
    with pytest.raises(Refused, match="fuel"):
        book.do("tried", step="nut_off", part="right nut", rung="flame", came=False, time="5 min")
    assert said_of(book.state, other, "right nut", LATER) == StuckFacts()
