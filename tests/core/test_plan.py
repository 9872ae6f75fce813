"""Plans: conditions on facts, ways, sheets combined, variants, order, contradictions; laws checked
on random plans.
"""

import tomllib

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from hollet.core.errors import Refused
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.facts import Condition, Known, applies
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.late import OFF_AGAIN, late_insertion
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import known_of, select
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.schools import possible
from hollet.core.procedure.sheet import Sheet
from hollet.core.procedure.words import KINDS_OF_REASON, STAGES
from tests.support import SMALL, small_sheet

WAYS = """
[[school]]
id = "way_out"
question = "Way out"
pick = "up"
because = "less height"

[[school.way]]
id = "up"
name = "Up"
does = "Up it goes."
tools = ["hoist"]
people = 2
hours = [4, 6]
risks = "height"
suits = "most"

[[school.way]]
id = "down"
name = "Down"
does = "Down it goes."
people = 3
hours = [3, 5]
risks = "stands"
suits = "rear engines"
needs = [{ fact = "engine_position", one_of = ["rear", "mid"] }]

[[option]]
id = "winch"
name = "Winch on the bumper"
value = ["yes", "no"]

[[extra]]
id = "seal"
thing = "Rear seal"
at = "bore"
because = "it is open now"
now = { hours = [0.5, 1], money = [8, 20] }
later = { hours = [10, 14], money = [8, 20] }

[[variant]]
limit = "clearance"
when = [{ fact = "year", since = 1992 }]
lo = "0.040"
hi = "0.080"
source = "supplement p. 2"

[[step]]
id = "winch_off"
stage = "take_down"
kind = "check"
title = "Winch off"
do = "Off."
when = [{ fact = "winch", one_of = ["yes"] }]

[[step]]
id = "hoist_on"
stage = "take_down"
kind = "check"
title = "Hoist on"
do = "On."
when = [{ school = "way_out", one_of = ["up"] }]
hours = [0.5, 1]

[[step]]
id = "stands_high"
stage = "take_down"
kind = "check"
title = "High stands"
do = "In."
when = [{ school = "way_out", one_of = ["down"] }]

[[step]]
id = "seal_new"
stage = "build_up"
kind = "fit"
title = "Rear seal"
do = "In."
when = [{ extra = "seal" }]
"""


def ways_sheet(text: str = "") -> Sheet:
    """The small sheet with a school, an own option, an extra and a variant."""
    whole = SMALL + WAYS + text
    return read_sheet(tomllib.loads(whole), whole)


def names(plan) -> set[str]:
    """Ids of the steps that apply."""
    return {step.id for step in select(plan).plan.step}


@pytest.mark.parametrize(
    ("condition", "facts", "answer"),
    [
        ({"fact": "drive", "one_of": ["four"]}, {"drive": "four"}, "yes"),
        ({"fact": "drive", "one_of": ["four"]}, {"drive": "rear"}, "no"),
        ({"fact": "drive", "one_of": ["four"]}, {}, "unknown"),
        ({"fact": "year", "since": 1990}, {"year": "1990"}, "yes"),
        ({"fact": "year", "since": 1990, "until": 1993}, {"year": "1994"}, "no"),
        ({"fact": "year", "until": 1993}, {"year": "old"}, "unknown"),
        ({"extra": "seal"}, {}, "no"),
    ],
)
def test_one_condition(condition, facts, answer):
    """Yes, no, or nobody knows; an extra nobody said yes to is no; ends of a span of years are
    included.
    """
    found = applies([Condition(**condition)], Known(facts=facts))
    assert found.answer == answer
    assert len(found.because) == 1


def test_one_no_decides_and_unknown_stays_unknown():
    """All must hold: no beats unknown beats yes, and the words name what decided."""
    drive, gas = (
        Condition(fact="drive", one_of=("four",)),
        Condition(fact="fuel", one_of=("petrol",)),
    )
    known = Known(facts={"drive": "rear"}, names={"drive": "Driven wheels", "fuel": "Fuel"})
    assert applies([gas, drive], known) == applies([drive, gas], known)
    assert applies([gas, drive], known).because == ("Driven wheels: rear",)
    assert applies([gas], known).because == ("Fuel: not known yet",)


@pytest.mark.parametrize(
    "data",
    [
        {},
        {"fact": "a", "school": "b", "one_of": ["x"]},
        {"fact": "drive"},
        {"fact": "year", "since": 2000, "until": 1990},
        {"fact": "year", "since": 90},
    ],
)
def test_conditions_that_say_nothing_are_refused(data):
    """No subject, two, no value, a span turned round."""
    with pytest.raises(ValidationError):
        Condition(**data)


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ('fact = "winch"', 'fact = "winches"', "'winches' is no fact"),
        ('one_of = ["up"]', 'one_of = ["over"]', "'over' cannot be: up, down"),
        ('extra = "seal" }', 'extra = "steel" }', "no extra of this sheet"),
        ('pick = "up"', 'pick = "sideways"', "no way of this school"),
        ('at = "bore"', 'at = "boring"', "'boring' is no step here"),
        ('school = "way_out"', 'school = "way_in"', "no school"),
        ('limit = "clearance"\nwhen', 'limit = "clear"\nwhen', "not a limit"),
        ("hours = [0.5, 1]\n", "hours = [2, 1]\n", "lower figure comes first"),
    ],
)
def test_mistakes_in_choices_are_named(old, new, words):
    """A condition on what does not exist, a value it cannot have, a pick that is no way: with line
    and what would be right.
    """
    text = (SMALL + WAYS).replace(old, new, 1)
    with pytest.raises(Refused) as refusal:
        read_sheet(tomllib.loads(text), text)
    assert words in refusal.value.message
    assert refusal.value.message.startswith("line ")


def test_facts_and_ways_select_steps_and_say_why():
    """Unknown leaves a step in, marked; a school nobody chose counts as the pick; what is out says
    why.
    """
    plan = combine_sheets([ways_sheet()])
    found = select(plan)
    assert found.perhaps == {"winch_off": "Winch on the bumper: not known yet"}
    assert found.shown_because["hoist_on"] == "Way out: Up"
    assert {left.step.id: left.because for left in found.left_out} == {
        "stands_high": "Way out: Up",
        "seal_new": "Rear seal: nobody has said yes to it",
    }
    chosen = plan.model_copy(
        update={"ways": {"way_out": "down"}, "facts": {"winch": "no"}, "extras": {"seal": True}}
    )
    assert names(chosen) - {s.id for s in small_sheet().step} == {"stands_high", "seal_new"}


def test_variant_puts_other_figures_in_force():
    """From 1992 on the supplement counts; an unknown year keeps the base; a figure decided by hand
    is never overridden.
    """
    plan = combine_sheets([ways_sheet()])
    figures = {
        year: select(plan.model_copy(update={"facts": {"year": year}}))
        .plan.find_limit("clearance")
        .words()
        for year in ("1991", "1992")
    }
    assert figures == {"1991": "0.030 to 0.070 mm", "1992": "0.040 to 0.080 mm"}
    assert select(plan).plan.find_limit("clearance").hi == "0.070"
    own = plan.model_copy(
        update={
            "facts": {"year": "1995"},
            "limit": tuple(x.model_copy(update={"own": "MK"}) for x in plan.limit),
        }
    )
    assert select(own).plan.find_limit("clearance").hi == "0.070"


def test_a_way_that_cannot_be_gone_says_what_forbids_it():
    """A fact forbids it, or a tool of the shop is missing; with nothing known every way is open."""
    sheet = ways_sheet()
    up, down = sheet.school[0].way
    plan = combine_sheets([sheet])
    assert possible(down, known_of(plan), ()).answer
    front = plan.model_copy(update={"facts": {"engine_position": "front"}})
    assert possible(down, known_of(front), ()).because == ("not for this vehicle, Engine: front",)
    assert possible(up, known_of(front), ("Hoist",)).because == ("not in this shop: hoist",)


def test_two_sheets_share_a_step_and_keep_both_sources():
    """The same id is one step with the reasons of both; figures that differ stand side by side, the
    first in force.
    """
    other = small_sheet(
        SMALL.replace('id = "small"', 'id = "other"')
        .replace('hi = "0.070"', 'hi = "0.075"')
        .replace('source = "book p. 1"', 'source = "sheet 9"')
        .replace('because = "it is live"', 'because = "sparks"')
    )
    plan = combine_sheets([small_sheet(), other])
    assert len(plan.step) == len(small_sheet().step)
    limit = plan.find_limit("clearance")
    assert (limit.hi, [a.source for a in limit.answers], limit.conflict) == (
        "0.070",
        ["book p. 1", "sheet 9"],
        True,
    )
    assert [link.because for link in plan.find_step("head_out").after] == ["it is live"]


def test_sheets_that_contradict_each_other_are_refused_with_the_chain():
    """One sheet wants the head out before the lead, the other after."""
    text = SMALL.replace('id = "small"', 'id = "other"').replace(
        'after = [{ step = "lead", because = "it is live", kind = "safety" }]', ""
    )
    text = text.replace(
        'do = "Take it off."',
        'do = "Take it off."\nafter = [{ step = "head_out", because = "it hides the lead" }]',
    )
    with pytest.raises(Refused) as refusal:
        combine_sheets([small_sheet(), small_sheet(text)])
    assert refusal.value.reason_code == "contradiction"
    assert "it is live" in refusal.value.message
    assert "it hides the lead" in refusal.value.message


def step(name: str, stage: str, after: list[tuple[str, str]]) -> CheckStep:
    """A bare step."""
    links = tuple(After(step=other, because=f"{other} first", kind=kind) for other, kind in after)
    return CheckStep(
        id=name, stage=stage, kind="check", title=name, do=name, after=links, hours=(1, 2)
    )


@st.composite
def plans(draw) -> list[CheckStep]:
    """Steps with reasons that always point to earlier ones of the same or an earlier stage, then
    shuffled.
    """
    count = draw(st.integers(2, 14))
    stages = sorted(
        draw(st.lists(st.sampled_from(list(STAGES)), min_size=count, max_size=count)),
        key=list(STAGES).index,
    )
    made = []
    for k in range(count):
        before = draw(st.lists(st.integers(0, k - 1), max_size=3, unique=True)) if k else []
        made.append(
            step(
                f"s{k}",
                stages[k],
                [(f"s{j}", draw(st.sampled_from(KINDS_OF_REASON))) for j in before],
            )
        )
    return draw(st.permutations(made))


@settings(max_examples=150, deadline=None)
@given(plans())
def test_order_keeps_every_reason_and_stage(steps):
    """Nothing is lost, every reason holds, stages follow each other; and ordering again changes
    nothing.
    """
    found = in_order(steps)
    place = {s.id: k for k, s in enumerate(found)}
    assert sorted(place) == sorted(s.id for s in steps)
    assert all(place[link.step] < place[s.id] for s in found for link in s.after)
    ranks = [list(STAGES).index(s.stage) for s in found]
    assert ranks == sorted(ranks)
    assert in_order(found) == found


@settings(max_examples=100, deadline=None)
@given(plans(), st.data())
def test_an_edit_elsewhere_does_not_move_the_rest(steps, data):
    """A step without reasons, added at the end of its stage, leaves the order of all others as it
    was.
    """
    found = in_order(steps)
    more = in_order((*found, step("new", data.draw(st.sampled_from(list(STAGES))), [])))
    assert [s.id for s in more if s.id != "new"] == [s.id for s in found]


@settings(max_examples=150, deadline=None)
@given(plans(), st.data())
def test_every_reported_circle_is_one(steps, data):
    """Turn a reason round: what is reported is a closed chain of reasons that are really there."""
    linked = [s for s in steps if s.after]
    assert contradiction(steps) is None
    if not linked:
        return
    one = data.draw(st.sampled_from(linked))
    target = one.after[0].step
    turned = [
        s.model_copy(update={"after": (*s.after, After(step=one.id, because="turned"))})
        if s.id == target
        else s
        for s in steps
    ]
    found = contradiction(turned)
    assert found is not None
    after = {s.id: {link.step for link in s.after} for s in turned}
    assert all(b in after[a] for a, b in zip(found.chain, found.chain[1:], strict=False))
    rank = {s.id: list(STAGES).index(s.stage) for s in turned}
    assert found.chain[0] == found.chain[-1] or rank[found.chain[1]] > rank[found.chain[0]]


@settings(max_examples=150, deadline=None)
@given(plans(), st.data())
def test_a_late_step_names_exactly_what_stands_on_the_way(steps, data):
    """Compared with a search written another way: repeat until nothing new waits, for a mendable
    reason, on what is found.
    """
    sheet = Sheet(id="x", title="x", about="x", step=in_order(steps))
    ids = [s.id for s in sheet.step]
    late, done = (
        data.draw(st.sampled_from(ids)),
        set(data.draw(st.lists(st.sampled_from(ids), unique=True))),
    )
    found = late_insertion(sheet, late, done)
    want: set[str] = set()
    while True:
        more = {
            s.id
            for s in sheet.step
            if s.id in done
            and s.id != late
            and s.id not in want
            and any(link.kind in OFF_AGAIN and link.step in want | {late} for link in s.after)
        }
        if not more:
            break
        want |= more
    assert {s.id for s, _ in found.off} == want
    assert found.hours == (2.0 * len(want), 4.0 * len(want))
    order = [ids.index(s.id) for s, _ in found.off]
    assert order == sorted(order, reverse=True)
    assert all(
        s.id in done and any(link.step == late and link.kind not in OFF_AGAIN for link in s.after)
        for s, _ in found.too_late
    )


def test_parts_that_do_not_apply_are_not_needed():
    """A part for a vehicle that this is not goes; one that nobody knows of stays."""
    text = """
[[step]]
id = "belt"
stage = "build_up"
kind = "fit"
title = "Belt"
do = "On."
parts = [
  { name = "belt", count = 1 },
  { name = "belt of the winch", count = 1, when = [{ fact = "winch", one_of = ["yes"] }] },
]
"""
    plan = combine_sheets([ways_sheet(text)])

    def parts(**facts: str) -> list[str]:
        step = select(plan.model_copy(update={"facts": facts})).plan.find_step("belt")
        return [part.name for part in step.parts]

    assert parts(winch="no") == ["belt"]
    assert parts(winch="yes") == ["belt", "belt of the winch"]
    assert parts() == ["belt", "belt of the winch"]
