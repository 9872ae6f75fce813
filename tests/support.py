"""A small build in memory, a workshop on disk, and the verbs by which tests write to them."""

import tomllib
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from pydantic import TypeAdapter

from hollet.core.acts.hand import Hand as AtBench
from hollet.core.acts.kinds import AnyAct, accept
from hollet.core.book.complete import obstacles
from hollet.core.book.gates import gate_answers
from hollet.core.book.ledger import left_open
from hollet.core.book.open_items import open_items
from hollet.core.book.passing import Obstacle
from hollet.core.entries import Body, BookState, Entry, Line, PlanEdited
from hollet.core.entries.fold import fold
from hollet.core.entries.status import plan_of, statuses
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.drafting import draft
from hollet.core.procedure.planacts import PlanAct
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.sheet import Sheet
from hollet.core.sent import SentValue
from hollet.core.steps.tighten import joint_facts
from hollet.library.lore import lore
from hollet.screens.bench import bench_of
from hollet.screens.frame import book_view
from hollet.screens.plan_questions import Gear
from hollet.services.logging import Sent, write_entry
from hollet.services.workshop import Workshop

EDIT: TypeAdapter[Any] = TypeAdapter(AnyAct)
ACT: TypeAdapter[Any] = TypeAdapter(PlanAct)

SMALL = """
[sheet]
id = "small"
title = "Small job"
about = "A head with six bolts, one bore, one fluid, one start."

[[limit]]
id = "clearance"
name = "Clearance"
dimension = "length"
unit = "mm"
lo = "0.030"
hi = "0.070"
target = "0.045"
source = "book p. 1"

[[limit]]
id = "gap"
name = "Gap"
dimension = "length"
unit = "mm"
hi = "0.50"
safety = "fuel"

[[limit]]
id = "oil"
name = "Oil"
dimension = "volume"
unit = "L"
lo = "4.0"
hi = "4.4"
target = "4.2"
source = "book p. 2"

[[limit]]
id = "burst"
name = "Burst"
dimension = "time"
unit = "s"
hi = "15"
source = "book p. 3"

[[limit]]
id = "total"
name = "In all"
dimension = "time"
unit = "s"
hi = "30"
source = "book p. 3"

[[limit]]
id = "pressure"
name = "Pressure"
dimension = "pressure"
unit = "bar"
lo = "1.0"
source = "book p. 3"

[[limit]]
id = "by"
name = "By"
dimension = "time"
unit = "s"
hi = "5"
source = "book p. 3"

[[limit]]
id = "hot"
name = "Hot"
dimension = "temperature"
unit = "°C"
hi = "95"
source = "book p. 3"

[[joint]]
id = "head"
name = "Head bolts"
layout = { kind = "head", columns = 3 }
pattern = "crosswise"
stage = [{ torque = "25 Nm" }, { torque = "50 Nm" }, { angle = "90 deg" }]
tolerance = "5 %"
source = "book p. 4"
fastener = "6 x M10"

[joint.put_right]
over = "Take it out and begin again with it"

[[joint]]
id = "cover"
name = "Cover bolts"
layout = { kind = "circle", n = 6 }
pattern = "star"
stage = [{ torque = "30 Nm" }]
fastener = "6 x M8"
final = "cinched"

[[step]]
id = "lead"
stage = "take_down"
kind = "check"
title = "Lead off"
do = "Take it off."
opens = [{ id = "lead", what = "Lead off", blocks = "power_on", undo = "put it on" },
  { id = "coil", what = "Coil off", blocks = "fire", undo = "plug it in", open_for = "crank" }]
caution = { text = "Sparks.", why = "Fuel.", confirm = "Extinguisher at hand" }

[[step]]
id = "head_out"
stage = "take_down"
kind = "remove"
title = "Head bolts out"
do = "Out."
bag = [{ count = 6, size = "M10", length = "90" }]
joint = "head"
after = [{ step = "lead", because = "it is live", kind = "safety" }]

[[step]]
id = "bore"
stage = "inspect"
kind = "measure"
title = "Bore"
do = "Measure."
reading = [{ id = "piston", name = "Piston", tool = "micrometer", nominal = "83.96 mm" },
  { id = "cylinder", name = "Cylinder", tool = "bore gauge", nominal = "84 mm" }]
[[step.result]]
id = "c"
name = "Clearance"
limit = "clearance"
minuend = "cylinder"
subtrahend = "piston"

[[step]]
id = "ring"
stage = "inspect"
kind = "measure"
title = "Ring"
do = "Measure."
reading = [{ id = "ring", name = "Ring gap", tool = "feeler", nominal = "0.35 mm" }]
result = [{ id = "g", name = "Gap", limit = "gap", reading = "ring" }]

[[step]]
id = "head_in"
stage = "build_up"
kind = "tighten"
title = "Head bolts"
do = "Tighten."
joint = "head"
after = [{ step = "bore", because = "the head closes it", kind = "access closes" }]

[[step]]
id = "cover_on"
stage = "build_up"
kind = "tighten"
title = "Cover"
do = "Tighten."
joint = "cover"

[[step]]
id = "oil_in"
stage = "wake"
kind = "fill"
title = "Oil"
do = "Fill."
fluid = "Oil"
amount = "oil"
level = "At the mark"
blocks = "crank"

[[step]]
id = "water"
stage = "wake"
kind = "fill"
title = "Coolant"
do = "Fill."
fluid = "Coolant"
amount = "oil"
level = "At the mark"
coolant = true
blocks = "fire"

[[step]]
id = "lead_on"
stage = "wake"
kind = "connect"
title = "Lead on"
do = "On."
blocks = "power_on"
closes = ["lead"]

[[step]]
id = "crank"
stage = "wake"
kind = "run"
title = "Crank"
do = "Crank."
rung = "crank"
caution = { text = "Clear of fan and belts.", why = "It turns." }
isolate = ["Plugs out"]
expect = "Pressure"
time_limit = "burst"
total_limit = "total"
pressure = "pressure"

[[step]]
id = "fire"
stage = "wake"
kind = "run"
title = "Fire"
do = "Fire."
rung = "fire"
caution = { text = "Doors open, clear of fan and belts.", why = "Gas and fan." }
expect = "Runs"
time_limit = "burst"
pressure = "pressure"
pressure_by = "by"
coolant = "hot"

[[step]]
id = "again"
stage = "settle"
kind = "check"
title = "Again"
do = "Look again."
"""


TAKE = """
[sheet]
id = "take"
title = "Take it down"
about = "A cover, a pump and a shaft come off and go back."

[[setting]]
id = "clamp"
what = "the clamp"
holds = "the lever position"
part_at = "the pin"
blocks = "gear"

[[fluid]]
id = "oil"
name = "Oil"
amount = "2 L"
runs_out = "at the tail"

[[fluid]]
id = "cold"
name = "Refrigerant"
runs_out = "nowhere"
stays_closed = true

[[step]]
id = "lead_off"
stage = "take_down"
kind = "check"
title = "Lead off"
do = "Off."
opens = [
  { id = "lead", what = "Lead off", blocks = "power_on", undo = "on", sort = "disconnected" },
]

[[step]]
id = "drained"
stage = "take_down"
kind = "check"
title = "Oil drained"
do = "Drain."
drains = ["oil"]

[[step]]
id = "cover_off"
stage = "take_down"
kind = "remove"
title = "Cover off"
do = "Off."
bag = [{ count = 6, size = "M8", length = "45" },
  { count = 2, size = "M8", length = "60", odd = "special" }]
after = [{ step = "lead_off", because = "it would be live", kind = "safety" },
  { step = "drained", because = "it would run out", kind = "spill" }]
capture = [{ id = "cover_mark", what = "Cover to case", kind = "mark", because = "it fits twice" }]
holds = ["oil", "cold"]
requires = ["lead"]
hidden = ["a fourth nut below"]

[[step]]
id = "shaft_off"
stage = "take_down"
kind = "remove"
title = "Shaft off"
do = "Off."
after = [{ step = "cover_off", because = "the cover is over it", kind = "access closes" },
  { step = "drained", because = "dirt would fall in", kind = "contamination" }]
keeps = ["clamp"]
lifts = true
by_hand = true
people = [{ role = "One", does = "holds" }, { role = "Two", does = "guides" }]
[[step.capture]]
id = "shaft_length"
what = "Shaft, end to end"
kind = "length"
because = "the new one must be as long"
within = "0.5 mm"

[[step]]
id = "ground"
stage = "prepare"
kind = "check"
title = "Case ground"
do = "Grind."
dusty = true

[[step]]
id = "shaft_on"
stage = "fit_in"
kind = "fit"
title = "Shaft on"
do = "On."
refits = ["shaft_off"]

[[step]]
id = "cover_on"
stage = "fit_in"
kind = "fit"
title = "Cover on"
do = "On."
refits = ["cover_off"]
compares = ["cover_mark"]
after = [{ step = "shaft_on", because = "the cover is over it", kind = "access closes" }]

[[step]]
id = "lead_on"
stage = "wake"
kind = "connect"
title = "Lead on"
do = "On."
closes = ["lead"]
blocks = "power_on"
"""


def small_sheet(text: str = SMALL) -> Sheet:
    """The small sheet, read and checked."""
    return read_sheet(tomllib.loads(text), text)


def tool(tool_id: str, kind: str, **own: Any) -> Instrument:
    """A tool of the shop, in mm unless said otherwise."""
    base = {
        "id": tool_id,
        "code": tool_id.upper(),
        "name": kind,
        "kind": kind,
        "dimension": "length",
        "unit": "mm",
        "resolution": "0.001",
    }
    return Instrument.model_validate({**base, **own})


def tools() -> dict[str, Instrument]:
    """Micrometer, a gauge set with it, feeler, jug and wrenches."""
    m1 = tool("m1", "micrometer", lo="75", hi="100", mpe="0.002", s="0.002", zero_error="0.003")
    wrench = {
        "dimension": "torque",
        "unit": "N·m",
        "resolution": "1",
        "mpe_percent": "4",
        "s": "0.5",
        "grip_mm": "420",
    }
    listed = (
        m1,
        tool(
            "b1",
            "bore gauge",
            lo="50",
            hi="150",
            mpe="0.002",
            resolution="0.001",
            s="0.002",
            setting_s="0.001",
            setting="84.000",
            set_with=m1,
        ),
        tool("c1", "caliper", lo="0", hi="150", mpe="0.03", resolution="0.01", s="0.01"),
        tool("f1", "feeler", lo="0.05", hi="1", mpe="0.01", resolution="0.05", s="0.01"),
        tool(
            "j1",
            "jug",
            dimension="volume",
            unit="L",
            lo="0",
            hi="10",
            mpe="0.05",
            resolution="0.05",
            s="0.02",
        ),
        tool("w1", "click wrench", lo="20", hi="100", **wrench),
        tool("w2", "click wrench", lo="5", hi="25", **wrench),
        tool("w3", "click wrench", lo="20", hi="100", **{**wrench, "mpe_percent": "6"}),
        tool("w4", "indicating wrench", lo="20", hi="120", **wrench),
    )
    return {t.id: t for t in listed}


class Book:
    """A build in memory: `do` accepts an edit and folds it; nothing is stored."""

    def __init__(self, plan: Sheet, shop: dict[str, Instrument]) -> None:
        self.shop, self.state, self.seq, self.who = shop, BookState(lore()), 0, "MK"
        self.now = datetime(2026, 3, 1, 8, 0, tzinfo=UTC)
        self.sent: dict[str, SentValue] = {}
        self.live: dict[str, SentValue] = {}
        self.add(PlanEdited(what="made", sheet=combine_sheets([plan])))

    @property
    def time(self) -> str:
        """The moment, as entries carry it."""
        return self.now.isoformat().replace("+00:00", "Z")

    def later(self, hours: float) -> None:
        """Let time go by."""
        self.now += timedelta(hours=hours)

    def add(self, body: Body) -> Line:
        """Fold an entry with this body."""
        self.seq += 1
        self.now += timedelta(seconds=10)
        time = self.time
        entry = Entry(
            id=str(uuid.UUID(int=self.seq)),
            seq=self.seq,
            time=time,
            bench_time=time,
            who=self.who,
            body=body,
        )
        fold(self.state, entry)
        return entry

    def do(self, kind: str, **edit: Any) -> Line:
        """Accept an edit, then fold what it became; refusals pass through.

        Samples and the key off are written at their second, unless it is past.
        """
        run = (
            self.state.live("run", edit.get("attempt", ""))
            if kind in ("samples", "attempt ended")
            else []
        )
        if run:
            at = datetime.fromisoformat(run[0].time) + timedelta(
                seconds=edit["samples"][-1]["t"] if kind == "samples" else edit["after_s"]
            )
            self.now = max(at, self.now) - timedelta(seconds=10)
        return self.add(
            accept(
                self.state,
                EDIT.validate_python({"kind": kind, **edit}),
                AtBench(
                    self.shop,
                    self.time,
                    self.now.date(),
                    who=self.who,
                    sent=self.sent,
                    live=self.live,
                ),
            ),
        )

    def refuse(self, code: str, kind: str, **edit: Any) -> None:
        """An edit is refused with this code and a field, and nothing is folded."""
        head = self.state.head
        with pytest.raises(Refused) as refusal:
            self.do(kind, **edit)
        assert refusal.value.reason_code == code, refusal.value.message
        assert refusal.value.field
        assert self.state.head == head

    def hung(self, step: str, **own: object) -> None:
        """How a unit hangs, said at a step: 142 kg on two steep legs, each part well rated."""
        part = {"name": "sling", "limit": "800 kg", "where": "leg"}
        said = {"what": "unit", "mass": "142 kg", "mass_from": "weighed", "legs": 2}
        legs = {"leg": "600 mm", "apart": "480 mm", "elements": (part,)}
        self.do("lift said", step=step, **(said | legs | own))

    def absent(self, *steps: str) -> None:
        """Each of these is said not to be on this vehicle: nothing waits for it, and no rung asks
        for it.
        """
        for step in steps:
            self.do("not there", step=step, thing=step, looked="looked all round the bay")

    def on_wheels(self) -> None:
        """It is said once what carries the vehicle: its own wheels."""
        self.do(
            "supported",
            support="wheels",
            support_kind="wheels",
            carries="vehicle",
            point="all four wheels",
            ground="hard",
        )

    def plan(self, act: str, reason: str | None = None, **own: Any) -> Line:
        """AnyAct the plan by one act; refusals pass through."""
        whole = self.state.whole
        assert whole is not None
        done = {step for step, status in statuses(self.state).items() if status.status == "done"}
        changes = draft(whole, ACT.validate_python({"act": act, **own}), done, "MK")
        return self.add(PlanEdited(what=act, changes=changes, reason=reason))

    def read(self, step: str, reading: str, *typed: str, tool: str, **more: Any) -> Line:
        """One reading."""
        return self.do(
            "reading",
            step=step,
            reading=reading,
            typed=list(typed),
            unit=self.shop[tool].unit,
            instrument=tool,
            **more,
        )

    def click(self, bolt: int, **more: Any) -> Line:
        """One click on the head."""
        return self.do("fastener", step="head_in", bolt=bolt, act="clicked", **more)

    def wrench(self, wrench: str = "w1", step: str = "head_in", **more: Any) -> Line:
        """Choose a wrench."""
        return self.do("decision", step=step, about="wrench", wrench=wrench, **more)

    def joint(self, name: str = "head") -> Any:
        """Facts of a joint."""
        plan = self.state.plan
        assert plan is not None
        joint = plan.find_joint(name)
        assert joint is not None
        return joint_facts(self.state, joint)

    def bench(self, step: str) -> Any:
        """The bench of a step."""
        plan = self.state.plan
        assert plan is not None
        found = plan.find_step(step)
        assert found is not None
        return bench_of(self.state, found, tuple(self.shop.values()), Gear(), self.time)

    def view(self) -> Any:
        """The frame."""
        return book_view(self.state, self.time)

    def open(self) -> dict[str, str]:
        """Open items with the rung each blocks."""
        return {item.id: item.blocks for item in open_items(self.state, tuple(self.shop.values()))}

    def in_the_way(self, step: str) -> tuple[Obstacle, ...]:
        """Everything in the way of calling a step done."""
        found = plan_of(self.state).find_step(step)
        assert found is not None
        return obstacles(self.state, found, tuple(self.shop.values()), self.time)

    def left(self) -> list[str]:
        """What is left open, in words."""
        return [item.what for item in left_open(self.state)]

    def gate(self, rung: str) -> Any:
        """The answer of one rung."""
        return next(
            a for a in gate_answers(self.state, tuple(self.shop.values())) if a.rung == rung
        )

    def clearance(self) -> Any:
        """The one derived result."""
        return self.bench("bore").results[0]


class Hand:
    """Writes entries to a build of a workshop on disk."""

    def __init__(self, workshop: Workshop, build: str, who: str = "MK") -> None:
        self.workshop, self.build, self.who = workshop, build, who

    def write(self, kind: str, entry_id: str | None = None, seen: int = 10**9, **edit: Any) -> Any:
        """One entry with a fresh id, not late unless said."""
        sent = Sent(
            id=entry_id or self.workshop.new_id(),
            who=self.who,
            bench_time="2026-03-01T09:00:00+01:00",
            seen=seen,
        )
        return write_entry(
            self.workshop, self.build, sent, EDIT.validate_python({"kind": kind, **edit})
        )
