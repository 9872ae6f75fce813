"""Sheets combined: what lies where, and what is said about it."""

import itertools
import tomllib

import pytest

from hollet.core.procedure.closings import closers_of
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.facts import Condition
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.plan import select
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.sheet import blocks_of
from hollet.core.procedure.words import RUNGS, STAGE_RANK
from hollet.library.shelf import sheet_names, sheet_text

SHEETS = {
    name: read_sheet(tomllib.loads(sheet_text(name)), sheet_text(name)) for name in sheet_names()
}
ORDER = [*RUNGS, "nothing"]
MANY = [
    ("top-end", "engine-measured", "before-power"),
    ("powertrain-up", "first-start", "before-power"),
    ("front-suspension", "running-gear-measured"),
    ("gearbox-out", "clutch"),
]


def combined(*names):
    """The plan of some shipped sheets, and where each step lies."""
    plan = combine_sheets([SHEETS[name] for name in names])
    return plan, {step.id: k for k, step in enumerate(plan.step)}


@pytest.mark.parametrize("names", [*itertools.combinations(SHEETS, 2), *MANY], ids="+".join)
def test_before_the_rung_it_blocks(names):
    """Whatever shuts a rung can be done before it: it lies earlier, or in a stage that comes after
    the whole run.
    """
    plan, place = combined(*names)
    for run in (s for s in plan.step if isinstance(s, RunStep)):
        for step in plan.step:
            if (
                step.blocks
                and not isinstance(step, RunStep)
                and ORDER.index(run.rung) >= ORDER.index(step.blocks)
                and STAGE_RANK[step.stage] <= STAGE_RANK[run.stage]
            ):
                assert place[step.id] < place[run.id], (step.title, run.title)
        for item in (item for step in plan.step for item in step.opens):
            for closer in closers_of(plan, item.id):
                if run.rung == item.open_for and closer.stage == run.stage:
                    assert place[closer.id] > place[run.id], (closer.title, run.title)


def test_shorts_before_the_battery():
    """Nothing joins the battery before the shorts and the earths are measured; with a reason, so
    that no press passes it.
    """
    plan, place = combined("top-end", "engine-measured", "before-power")
    assert place["shorts"] < place["earths"] < place["battery_on"] < place["power_on"]
    assert {link.step: link.kind for link in plan.find_step("battery_on").after}[
        "shorts"
    ] == "safety"
    assert place["crank_oil"] < place["drop"] < place["fuel_line_on"]


def test_warm_only_after_it_ran():
    """Compression is read cold before the first fire and warm only after it ran; leak-down with
    the warm one.
    """
    plan, place = combined("top-end", "engine-measured", "before-power")
    assert place["first_run"] < place["compression_warm"] < place["leakdown"]
    assert place["crank_oil"] < place["drop"] < place["compression_cold"] < place["first_fire"]
    assert {plan.find_step(step).stage for step in ("compression_warm", "leakdown")} == {"settle"}
    alone, _ = combined("before-power")
    assert alone.find_step("compression_cold").blocks == "fire"
    assert alone.combined == ()


def test_warm_figures_are_moved_behind_the_run():
    """A sheet that reads warm figures before the engine ran: they lie after it, block what comes
    then, and it is told.
    """
    sheet = SHEETS["before-power"]
    steps = tuple(
        s.model_copy(update={"stage": "wake", "blocks": "fire", "after": ()})
        if s.id == "compression_warm"
        else s
        for s in sheet.step
        if s.id != "leakdown"
    )
    early = sheet.model_copy(update={"step": steps})
    plan = combine_sheets([SHEETS["top-end"], early])
    place = {step.id: k for k, step in enumerate(plan.step)}
    assert place["first_run"] < place["compression_warm"]
    assert plan.find_step("compression_warm").blocks == "gear"
    assert any("lies after First run and blocks Gear" in words for words in plan.combined)


def test_as_found_before_it_is_taken_apart():
    """Angles at ride height before the vehicle is up, play of the joints before a wheel is off, toe
    when it is down again.
    """
    plan, place = combined("front-suspension", "running-gear-measured")
    assert place["heights_found"] < place["vehicle_raised"]
    assert place["shaft_angles_found"] < place["vehicle_raised"]
    assert place["vehicle_raised"] < place["joint_plays"] < place["wheels_off"]
    assert place["vehicle_lowered"] < place["heights"] < place["toe"]
    assert plan.combined == ()


def test_read_as_found_is_moved_before_the_work():
    """Angles that a sheet would read when the arms are off: they lie before the vehicle is up, and
    it is told.
    """
    sheet = SHEETS["running-gear-measured"]
    late = sheet.model_copy(
        update={
            "step": tuple(
                s.model_copy(update={"stage": "inspect"}) if s.id == "shaft_angles_found" else s
                for s in sheet.step
            )
        }
    )
    plan = combine_sheets([SHEETS["front-suspension"], late])
    place = {step.id: k for k, step in enumerate(plan.step)}
    assert place["shaft_angles_found"] < place["vehicle_raised"]
    assert sum("moved from Inspect" in words for words in plan.combined) == 1


def test_reached_while_it_is_off():
    """The clutch is tried once more before the gearbox goes on, and the box waits for it."""
    plan, place = combined("gearbox-out", "clutch")
    assert place["cover_tight"] < place["centre_again"] < place["box_in"]
    assert "centre_again" in {link.step for link in plan.find_step("box_in").after}


@pytest.mark.parametrize(
    "names",
    [
        ("front-suspension", "running-gear-measured"),
        ("front-suspension", "bottom-end"),
        ("clutch", "front-suspension"),
        ("rear-axle", "engine-measured"),
    ],
)
def test_each_sheet_shuts_its_own_rung(names):
    """Springs beside main bearings: dampers stop the drive and main caps the crank, whichever sheet
    comes first; a step of both shuts the earlier.
    """
    for order in (names, names[::-1]):
        plan, _ = combined(*order)
        for step in plan.step:
            said = [
                blocks_of(SHEETS[name], own)
                for name in names
                if (own := SHEETS[name].find_step(step.id)) is not None
            ]
            if step.as_run() is None and step.vehicle is None:
                assert blocks_of(plan, step) == min(said, key=ORDER.index), step.id


def test_one_id_for_two_things():
    """Two sheets that mean different things by one id: both stay, the second under its own id
    wherever its sheet names it, and it is told.
    """
    other = SHEETS["clutch"].model_dump()
    for step in other["step"]:
        if step["id"] in ("cover_off", "fly_runout") or step["stage"] == "inspect":
            step["stage"] = "prepare"
    other["step"] = [s for s in other["step"] if s["id"] != "flywheel_off"]
    other["extra"] = []
    mine = type(SHEETS["clutch"]).model_validate(
        {**other, "id": "mine", "title": "Mine: another clutch"}
    )
    plan = combine_sheets([SHEETS["clutch"], mine])
    assert plan.find_step("cover_off").stage == "take_down"
    assert plan.find_step("cover_off_2").stage == "prepare"
    assert any(
        "Clutch cover off is one thing in" in words and "both are in the plan" in words
        for words in plan.combined
    )
    again = {
        step.id: step.stage
        for step in plan.step
        if any(link.step == "cover_off_2" for link in step.after)
    }
    assert again.keys() == {
        "disc_seen_2",
        "fly_seen_2",
        "disc_thick_2",
        "fly_runout_2",
        "rear_seal_seen_2",
    }
    assert set(again.values()) == {"prepare"}


def test_extra_brings_what_it_needs():
    """A rear seal behind the flywheel brings the flywheel off and on again, though nobody wanted it
    ground.
    """
    plan, _ = combined("powertrain-up", "clutch")
    assert {"flywheel_off", "flywheel_on"} & {s.id for s in select(plan).plan.step} == set()
    wanted = select(plan.model_copy(update={"extras": {"rear_seal_while_out": True}}))
    assert {"flywheel_off", "flywheel_on", "rear_seal_new"} <= {s.id for s in wanted.plan.step}
    assert wanted.shown_because["flywheel_off"] == "Rear main seal: wanted"
    for names in (("powertrain-up", "clutch"), ("clutch", "powertrain-up")):
        _, place = combined(*names)
        assert place["rear_seal_new"] < place["flywheel_on"]


def test_extra_brings_nothing_that_this_vehicle_has_not():
    """What a wanted extra needs is pulled past another extra, never past a fact of the vehicle."""
    plan, _ = combined("powertrain-up", "clutch")
    only = Condition(fact="drive", one_of=("four",))
    steps = tuple(
        s.model_copy(update={"when": (*s.when, only)}) if s.id == "flywheel_off" else s
        for s in plan.step
    )
    wanted = plan.model_copy(
        update={"step": steps, "extras": {"rear_seal_while_out": True}, "facts": {"drive": "rear"}}
    )
    assert "flywheel_off" not in {s.id for s in select(wanted).plan.step}
    assert "flywheel_off" in {
        s.id for s in select(wanted.model_copy(update={"facts": {"drive": "four"}})).plan.step
    }


def test_a_step_of_two_sheets_loses_no_care():
    """What the second sheet knows of load, lift, caution, rung and figures stays when both bring
    one step, in either order.
    """
    sheet = SHEETS["powertrain-up"]
    bare = {
        "carries": (),
        "releases": (),
        "caution": None,
        "blocks": None,
        "lifts": False,
        "people": (),
    }
    poor = sheet.model_copy(
        update={
            "id": "poor",
            "step": tuple(
                s.model_copy(update=bare | ({"asks": ()} if s.kind == "check" else {}))
                for s in sheet.step
            ),
        }
    )
    for pair in ((poor, sheet), (sheet, poor)):
        both = {s.id: s for s in combine_sheets(pair).step}
        for s in sheet.step:
            assert (
                both[s.id].carries,
                both[s.id].releases,
                both[s.id].caution,
                both[s.id].blocks,
                both[s.id].lifts,
            ) == (s.carries, s.releases, s.caution, s.blocks, s.lifts), s.id
        assert [a.id for a in both["weight_known"].asks] == [
            a.id for a in sheet.find_step("weight_known").asks
        ]
