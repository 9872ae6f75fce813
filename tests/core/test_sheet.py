"""Sheets: what is refused, with its line and field; numbers; references; circles."""

import itertools
import tomllib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.errors import Refused
from hollet.core.procedure.mistakes import line_of
from hollet.core.procedure.precedence import find_cycle
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.sheet import blocks_of
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.library.shelf import sheet_text
from tests.support import SMALL, small_sheet

MISTAKES = [
    ('id = "bore"\nstage = "inspect"', 'id = "bore"\nstage = "look"', "step.3.stage", "must be"),
    (
        'kind = "check"\ntitle = "Lead off"',
        'kind = "chek"\ntitle = "Lead off"',
        "step.1",
        "kind must be one of",
    ),
    ('title = "Bore"\n', "", "step.3.title", "must be given"),
    ('title = "Bore"\n', 'titel = "Bore"\n', "step.3", "must be given"),
    (
        'do = "Measure."\nreading = [{ id = "piston"',
        'do = "Measure."\ncolour = 3\nreading = [{ id = "piston"',
        "step.3.colour",
        "not known",
    ),
    ('after = [{ step = "lead",', 'after = [{ step = "leed",', "step.2.after", "no step here"),
    ('closes = ["lead"]', 'closes = ["lid"]', "step.9.closes", "never opened"),
    ('joint = "cover"', 'joint = "cove"', "step.6.joint", "not a joint"),
    ('limit = "clearance"', 'limit = "clarance"', "step.3.limit", "not a limit"),
    (
        'amount = "oil"\nlevel = "At the mark"\nblocks',
        'amount = "ol"\nlevel = "At the mark"\nblocks',
        "step.7.amount",
        "not a limit",
    ),
    ('subtrahend = "piston"', 'subtrahend = "pistn"', "step.3.result", "must name one reading"),
    ('id = "ring"\nstage', 'id = "bore"\nstage', "step.4.id", "used twice"),
    ('lo = "0.030"', 'lo = "0.090"', "limit.1.lo", "above the upper"),
    ('lo = "0.030"', 'lo = "0.030 bar"', "limit.1.lo", "takes a length"),
    ('{ torque = "25 Nm" }', '{ torque = "25 mm" }', "joint.1.stage", "takes a torque"),
    (
        '{ torque = "25 Nm" }',
        '{ torque = "25 Nm", angle = "90 deg" }',
        "joint.1.stage",
        "must have one of",
    ),
    ('{ torque = "25 Nm" }', '{ torque = "0 Nm" }', "joint.1.stage", "above zero"),
    ('tolerance = "5 %"', 'tolerance = "5 mm"', "joint.1.tolerance", "takes a percent"),
    (
        'pattern = "star"',
        'pattern = "order"\norder = ["1", "2", "3", "4", "5"]',
        "joint.2.order",
        "bolt 6 is missing",
    ),
    ('[[limit]]\nid = "clearance"', '[[limits]]\nid = "clearance"', "limits", "does not belong"),
]


@pytest.mark.parametrize(
    ("old", "new", "field", "words"), MISTAKES, ids=[f"{m[2]}-{k}" for k, m in enumerate(MISTAKES)]
)
def test_mistake_is_named_with_line_and_field(old, new, field, words):
    """One changed place: the refusal names the field and says what would be right."""
    text = SMALL.replace(old, new, 1)
    assert text != SMALL
    with pytest.raises(Refused) as refusal:
        read_sheet(tomllib.loads(text), text)
    assert refusal.value.reason_code == "sheet_mistake"
    assert refusal.value.field.startswith(field.rsplit(".", 1)[0])
    assert words in refusal.value.message
    assert refusal.value.message.startswith("line ")


def test_line_points_at_the_key():
    """The line named is the line on which the key stands."""
    line = line_of(SMALL, ("step", 2, "title"))
    assert line is not None
    assert SMALL.splitlines()[line - 1] == 'title = "Bore"'
    assert (
        SMALL.splitlines()[(line_of(SMALL, ("joint", 0, "tolerance")) or 0) - 1]
        == 'tolerance = "5 %"'
    )


def test_circle_is_named():
    """A circle in the reasons is named with its chain."""
    text = SMALL.replace(
        'opens = [{ id = "lead"',
        'after = [{ step = "head_out", because = "x" }]\nopens = [{ id = "lead"',
    )
    with pytest.raises(Refused) as refusal:
        read_sheet(tomllib.loads(text), text)
    assert (
        "lead waits for head_out (x); head_out waits for lead (it is live)" in refusal.value.message
    )


@given(st.dictionaries(st.integers(0, 12), st.lists(st.integers(0, 12), max_size=4), max_size=13))
def test_every_reported_cycle_is_a_cycle(links):
    """What is found closes and follows links; what is not found has a topological order."""
    before = {str(k): [str(v) for v in values] for k, values in links.items()}
    cycle = find_cycle(before)
    if cycle is not None:
        assert cycle[0] == cycle[-1]
        assert all(b in before[a] for a, b in itertools.pairwise(cycle))
        return
    done: set[str] = set()
    while len(done) < len(before):
        free = [
            k
            for k in before
            if k not in done and all(v in done or v not in before for v in before[k])
        ]
        assert free, "no cycle was reported and yet nothing can be done first"
        done.update(free)


def test_top_end_sheet():
    """The sheet of a whole job spans all stages, gives a reason with each link, and warns where it
    must.
    """
    text = sheet_text("top-end")
    sheet = read_sheet(tomllib.loads(text), text)
    assert len(sheet.step) >= 35
    assert {step.stage for step in sheet.step} == set(STAGES)
    assert all(len(link.because) > 8 for step in sheet.step for link in step.after)
    assert {step.kind for step in sheet.step} >= {
        "check",
        "remove",
        "measure",
        "tighten",
        "fill",
        "run",
    }
    runs = {step.rung: step for step in sheet.step if step.kind == "run"}
    assert runs["crank"].caution.confirm
    assert runs["fire"].caution.confirm
    opened = {item.id for step in sheet.step for item in step.opens}
    assert opened == {item for step in sheet.step for item in step.closes}


def test_numbers_count_within_the_stage():
    """6.02 is the second step of Build up."""
    sheet = small_sheet()
    assert [step.number for step in sheet.step][:6] == [
        "2.01",
        "2.02",
        "3.01",
        "3.02",
        "6.01",
        "6.02",
    ]


def test_blocks_by_stage():
    """Said by the sheet, else: up to Fit in crank, a rung the one after it, Settle nothing."""
    sheet = small_sheet()
    blocks = {step.id: blocks_of(sheet, step) for step in sheet.step}
    assert blocks["bore"] == "crank"
    assert blocks["crank"] == "fuel_on"
    assert blocks["fire"] == "run_on"
    assert blocks["again"] == "nothing"
    assert blocks["lead_on"] == "power_on"
    assert set(blocks.values()) <= {*RUNGS, "nothing"}


@pytest.mark.parametrize(
    ("name", "rung"),
    [
        ("front-suspension", "drive"),
        ("rear-axle", "gear"),
        ("top-end", "crank"),
        ("bottom-end", "crank"),
        ("as-it-comes", "crank"),
    ],
)
def test_blocks_nothing_that_the_plan_is_not_about(name, rung):
    """Arms and springs shut no cranking; an engine does, also one of which the sheet
    says nothing.
    """
    sheet = small_sheet(sheet_text(name))
    assert {
        blocks_of(sheet, step)
        for step in sheet.step
        if step.blocks is None
        and step.stage in ("take_down", "inspect", "prepare", "build_up", "fit_in")
    } == {rung}


def test_layouts_and_patterns():
    """Each layout names its places, each pattern orders all of them."""
    sheet = small_sheet()
    assert sheet.find_joint("head").sequence() == ["A2", "B2", "A1", "B3", "A3", "B1"]
    assert sheet.find_joint("cover").sequence() == ["1", "4", "2", "5", "3", "6"]
