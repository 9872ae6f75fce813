"""Every sheet that ships: reasons, windows, hazards and choices resolve, and all of
them combine.
"""

import itertools

import pytest

from hollet.core.book.removals import back_steps
from hollet.core.entries import PlanEdited
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.procedure.plan import select
from hollet.core.procedure.precedence import contradiction, find_cycle
from hollet.core.procedure.schools import agreement_state, possible
from hollet.core.procedure.tracing import downstream
from hollet.library.lore import lore
from hollet.library.shelf import sheet_names, sheet_text
from hollet.services.sheets import parse_sheet
from hollet.store.chain import body_text

SHEETS = {name: parse_sheet(sheet_text(name)) for name in sheet_names()}
OPEN_ENDED = {"down_to_it", "parts_seen"}  # as long as it takes: nobody knows what comes off
HAZARDS = {
    "hoist": "under",
    "coil spring": "line",
    "lifted out": "under",
    "fuel line": "flame",
    "refrigerant": "licensed",
    "raised in": "under",
}


def test_there_are_enough():
    """At least eight of twenty steps or more, nine stages among them."""
    assert sum(len(sheet.step) >= 20 for sheet in SHEETS.values()) >= 8
    assert {step.stage for sheet in SHEETS.values() for step in sheet.step} >= {
        "plan",
        "take_down",
        "inspect",
        "order",
        "prepare",
        "build_up",
        "fit_in",
        "wake",
        "settle",
    }


@pytest.mark.parametrize("name", SHEETS)
def test_reasons_and_windows(name):
    """No circle; every reason says something; each sheet has windows or reasons for access,
    cautions and hours.
    """
    sheet = SHEETS[name]
    assert find_cycle({step.id: [link.step for link in step.after] for step in sheet.step}) is None
    assert contradiction(sheet.step) is None
    links = [link for step in sheet.step for link in step.after]
    assert len(links) >= len(sheet.step) / 3
    assert all(len(link.because) > 7 for link in links)
    assert (
        any(step.last_chance for step in sheet.step)
        or name in ("first-start", "as-it-comes", "rear-leaf-springs")
        or name in ("before-power", "engine-measured", "running-gear-measured")
    )
    assert sum(step.caution is not None for step in sheet.step) >= 1
    assert all(step.hours is not None for step in sheet.step if step.id not in OPEN_ENDED)


@pytest.mark.parametrize("name", SHEETS)
def test_kept_in_a_log_it_is_the_same_again(name):
    """A plan made of it is read back from the line that keeps it, whatever it is made of."""
    made = PlanEdited(what="made", sheet=combine_sheets([SHEETS[name]]))
    assert PlanEdited.model_validate_json(body_text(made)) == made


@pytest.mark.parametrize("name", SHEETS)
def test_what_is_opened_is_closed(name):
    """Every temporary state that a step opens has a step of the sheet that undoes it, under the
    same facts.
    """
    sheet = SHEETS[name]
    closes = {item for step in sheet.step for item in step.closes}
    opened = {item.id for step in sheet.step for item in step.opens}
    alone = {"battery_lead", "fuel_caps"}  # a part job leaves these to the sheet of the first start
    assert opened - closes <= alone


@pytest.mark.parametrize("name", SHEETS)
def test_hazards_have_their_caution(name):
    """Hanging loads, springs, fuel and refrigerant never come without the usual caution."""
    for step in SHEETS[name].step:
        text = f"{step.title} {step.do}".lower()
        for hazard, word in HAZARDS.items():
            if (
                hazard in text
                and step.stage in ("take_down", "fit_in", "build_up")
                and (step.people or hazard in ("fuel line", "refrigerant"))
            ):
                assert step.caution is not None, step.id
                assert word in f"{step.caution.text} {step.caution.confirm}".lower(), step.id


def test_the_same_id_means_the_same_step():
    """Sheets combine by step id, so an id has one kind, stage and title in all of them."""
    seen: dict = {}
    for sheet in SHEETS.values():
        for step in sheet.step:
            assert seen.setdefault(step.id, (step.kind, step.stage, step.title)) == (
                step.kind,
                step.stage,
                step.title,
            ), step.id


@pytest.mark.parametrize(("first", "second"), list(itertools.permutations(SHEETS, 2)))
def test_any_two_combine_without_repeating(first, second):
    """Each pair gives one plan: no step twice, no number twice, no reason broken, joints and limits
    there.
    """
    plan = combine_sheets([SHEETS[first], SHEETS[second]])
    ids, numbers = [step.id for step in plan.step], [step.number for step in plan.step]
    assert len(ids) == len(set(ids)) == len(set(numbers))
    assert set(ids) == {step.id for sheet in (SHEETS[first], SHEETS[second]) for step in sheet.step}
    place = {step: k for k, step in enumerate(ids)}
    for step in plan.step:
        assert all(place[link.step] < place[step.id] for link in step.after if link.step in place)
        assert not isinstance(step, TightenStep) or plan.find_joint(step.joint) is not None
    assert set(select(plan).plan.step) | {left.step for left in select(plan).left_out} >= set(
        plan.step
    ) - {s for s in plan.step if s.parts}


def test_schools_and_agreements_are_usable():
    """Every pick is possible with nothing known; an allowed row agrees and a row that is not listed
    clashes.
    """
    schools = [school for sheet in SHEETS.values() for school in sheet.school]
    assert len(schools) >= 5
    for sheet in SHEETS.values():
        for school in sheet.school:
            way = school.find(school.pick)
            assert way is not None
            assert possible(way, combine_known(sheet), ()).answer
        for agreement in sheet.agreement:
            good = dict(
                zip([part.id for part in agreement.part], agreement.allowed[0], strict=True)
            )
            assert agreement_state(agreement, good).state == "agrees"
            rows = itertools.product(*[part.option for part in agreement.part])
            bad = next(row for row in rows if row not in agreement.allowed)
            assert agreement_state(agreement, dict(zip(good, bad, strict=True))).state == "clash"


def combine_known(sheet):
    """What is known of a vehicle of which nothing is known."""
    from hollet.core.procedure.plan import known_of

    return known_of(combine_sheets([sheet]))


@pytest.mark.parametrize("name", SHEETS)
def test_what_comes_off_goes_back(name):
    """Each removal of a sheet that builds up again has a step that puts it back, and each capture
    is compared at one.
    """
    sheet = SHEETS[name]
    plan = combine_sheets([sheet])
    if not any(step.stage in ("build_up", "fit_in") for step in sheet.step):
        return
    goes_back = {r for step in sheet.step for r in step.refits} | {
        step.id for step in sheet.step if back_steps(plan, step)
    }
    elsewhere = {"race_cut"}  # scrap
    removed = {step.id for step in sheet.step if step.kind == "remove"}
    named = [
        name
        for name in sorted(removed - goes_back - elsewhere)
        if sheet.id
        in ("powertrain-up", "top-end", "gearbox-out", "gearbox-opened", "front-suspension")
    ]
    assert named == []
    compared = {c for step in sheet.step for c in step.compares}
    kept = {c.id for step in sheet.step for c in step.capture if c.kind not in ("photo", "length")}
    assert kept <= compared


def test_a_lifted_load_says_so():
    """Every step that lifts stands under the caution for hanging loads or two people."""
    lifts = [
        step
        for sheet in SHEETS.values()
        for step in sheet.step
        if step.lifts and step.id not in ("lift_points_on", "head_on")
    ]
    assert len(lifts) >= 6
    assert [step.id for step in lifts if step.caution is None] == []


INSPECTIONS = [
    (name, step)
    for name, sheet in SHEETS.items()
    for step in sheet.step
    if step.kind == "inspect" and step.id != "parts_seen"
]
TRACES = [(name, trace) for name, sheet in SHEETS.items() for trace in sheet.trace]


@pytest.mark.parametrize(
    ("name", "step"), INSPECTIONS, ids=[f"{name}-{step.id}" for name, step in INSPECTIONS]
)
def test_an_inspection_brings_its_faces(name, step):
    """Each part has faces whose names fit their cells, and terms that belong to them; like parts
    have places of their own.
    """
    assert step.part
    for part in step.part:
        assert (
            len({face.id for face in part.face})
            == len(part.face)
            == len({face.name for face in part.face})
        )
        assert all(max(len(word) for word in face.name.split()) <= 11 for face in part.face), (
            part.id
        )
        assert all(lore().codes_for(face.on) for face in part.face)
    places = [(part.group, part.position) for part in step.part if part.group]
    assert len(places) == len(set(places))


@pytest.mark.parametrize(("name", "trace"), TRACES, ids=[trace.id for _, trace in TRACES])
def test_a_trace_leads_to_parts_that_are_looked_at(name, trace):
    """Each station is a part that a step looks at; from any of them the order is nearest first and
    names nothing twice; every part that waits for debris can be reached.
    """
    looked_at = [part for s in SHEETS[name].step if s.kind == "inspect" for part in s.part]
    parts = {part.id for part in looked_at}
    assert {station.part for station in trace.station if station.part} <= parts
    reachable: set[str] = set()
    for station in trace.station:
        order = downstream(trace, station.id)
        distances = [item.distance for item in order]
        assert distances == sorted(distances)
        assert len({item.station for item in order}) == len(order)
        assert station.id not in {item.station for item in order}
        reachable |= {item.station for item in order}
    waiting = {part.id for part in looked_at if part.only_traced}
    assert waiting <= {s.part for s in trace.station if s.id in reachable}


def test_a_step_of_two_sheets_asks_for_the_parts_of_both():
    """The clutch seen at the gearbox and at the clutch: one step where the ids meet, with every
    part once.
    """
    plan = combine_sheets([SHEETS["clutch"], SHEETS["powertrain-up"]])
    step = next(s for s in plan.step if s.id == "rear_seal_seen")
    ids = [part.id for part in step.part]
    assert sorted(ids) == sorted(set(ids)) == ["clutch_glance", "rear_seal"]


def test_five_mains_and_four_rods_are_proven():
    """Each main and each rod has a journal, a bore and a clearance of its own."""
    measured = {step.id: step for step in SHEETS["bottom-end"].step}
    for step, count in (("mains_measured", 5), ("rods_measured", 4)):
        assert (len(measured[step].reading), len(measured[step].result)) == (2 * count, count)
        assert all(
            result.minuend.replace("bore", "journal") == result.subtrahend
            for result in measured[step].result
        )
