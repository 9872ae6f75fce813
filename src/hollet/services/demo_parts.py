"""Parts of the demo: what One has and waits for, a shaft made for Two, the shop's evenings."""

from datetime import datetime, timedelta
from typing import Any

from pydantic import TypeAdapter

from hollet.core.acts.calendar import AnyShopAct
from hollet.core.entries import GearEdited
from hollet.services.calendar import write_shop
from hollet.services.demo_script import Script
from hollet.services.gear import edit_gear
from hollet.services.workshop import Workshop

__all__ = [
    "gasket_set_came",
    "gasket_set_ordered",
    "money_of_two",
    "pipe_and_switch",
    "shaft_ordered",
    "shop_calendar",
]

SHOP_ACT: TypeAdapter[Any] = TypeAdapter(AnyShopAct)
SET = (
    ("head_gasket", 1, 24.5),
    ("head_bolt_m11x115", 8, 3.2),
    ("head_bolt_m11x130", 2, 3.6),
    ("rod_nut_m9", 8, 1.9),
    ("rocker_cover_gasket", 1, 9.8),
    ("manifold_gasket_set", 1, 14.0),
)
BOLTS = {
    "head_bolt_m11x115": ("M11x1.5", "115", "hex flange, 10.9", "8"),
    "head_bolt_m11x130": ("M11x1.5", "130", "hex flange, 10.9", "2"),
}
NUT = (("thread and pitch", "M9x1.0"), ("grade and locking", "10, oval"), ("seat", "flat"))


def gasket_set_ordered(script: Script) -> None:
    """What the top end needs, ordered in one go."""
    script.write(
        4,
        kind="ordered",
        order="set",
        supplier="Rook Motor Parts",
        state="shipped",
        promised="in 6 days",
        lines=[{"need": need, "count": count, "price": price} for need, count, price in SET],
    )


def gasket_set_came(script: Script) -> None:
    """The parcel, compared part by part; and what One still waits for."""
    script.write(5, kind="parcel came", order="set", lines=[])
    for need, feature in BOLTS.items():
        names = ("thread and pitch", "length", "head and grade", "count in the bag")
        for name, figure in zip(names, feature, strict=True):
            _same(script, need, name, figure)
    for name, figure in (*NUT, ("count in the bag", "8")):
        _same(script, "rod_nut_m9", name, figure)
    for need, count, _ in SET:
        how = "compared" if need in (*BOLTS, "rod_nut_m9") else "counted"
        script.write(1, kind="part taken", need=need, order="set", count=count, how=how)


def _same(script: Script, need: str, feature: str, figure: str) -> None:
    script.write(
        0.5,
        kind="feature compared",
        need=need,
        order="set",
        feature=feature,
        old=figure,
        new=figure,
    )


def pipe_and_switch(script: Script) -> None:
    """A cooler pipe that is promised, a key switch of which nobody hears."""
    script.write(
        2, kind="part wanted", typed="1 x oil cooler pipe, 27.00", step="hoses_on", safety="none"
    )
    script.write(
        1, kind="part wanted", typed="1 x key switch KS-7", step="battery_on", safety="none"
    )
    script.write(
        2,
        kind="ordered",
        order="pipe",
        supplier="Corrow Radiators",
        state="shipped",
        promised="in 7 days",
        lines=[{"need": "oil_cooler_pipe", "count": 1, "price": 27.0}],
    )
    script.write(
        2,
        kind="ordered",
        order="switch",
        supplier="Wend Auto Electric",
        lines=[{"need": "key_switch", "count": 1}],
    )


def shaft_ordered(script: Script) -> None:
    """The layshaft of Two is made: its promise slipped once, and its drawing waits for a word."""
    script.write(
        6, kind="part wanted", typed="1 x layshaft, 185.00", step="shafts_in", safety="none"
    )
    script.write(
        3,
        kind="ordered",
        order="shaft",
        supplier="Marl Gear Works",
        state="in design",
        promised="in 9 days",
        lines=[{"need": "layshaft", "count": 1, "price": 185.0}],
    )
    script.write(
        4,
        kind="ordered",
        order="bearings",
        supplier="Tern Bearings",
        state="shipped",
        promised="in 3 days",
        lines=[
            {"need": "layshaft_bearing_front", "count": 1, "price": 18.4},
            {"need": "layshaft_bearing_rear", "count": 1, "price": 18.4},
            {"need": "main_shaft_bearing_front", "count": 1, "price": 31.0},
        ],
    )
    script.write(
        95,
        kind="order moved",
        order="shaft",
        state="proof to approve",
        promised="in 13 days",
        because="the steel comes a week late",
    )


def money_of_two(script: Script) -> None:
    """Whose gearbox it is, what it may cost, a face that is skimmed, shims bought ahead."""
    script.write(
        2,
        kind="owner said",
        word="standard",
        sort="standard",
        what="quiet in every gear, no oil on the floor",
        name="HB",
        how="at the bench",
    )
    script.write(1, kind="budget set", money=700.0, name="HB")
    script.write(
        3,
        kind="way weighed",
        way="bearings",
        what="Layshaft bearings on",
        options=[
            {"how": "do it", "price": 0.0, "days": 1, "because": "waits for the puller"},
            {"how": "send it out", "price": 60.0, "days": 8, "because": "they have the press"},
        ],
        chosen=0,
        because="the puller is asked back for Friday",
    )
    script.write(
        2,
        kind="reserve weighed",
        name="end float shim 0.10",
        count=2,
        price=4.2,
        wait_days=6,
        a_day=5.0,
        chance="perhaps",
        buy=True,
    )
    script.write(
        4,
        kind="machine ordered",
        work="face",
        part="bell housing face",
        to_do="skim",
        size="at most 0.05 mm",
        size_of="flatness",
        source="agreed with the shop",
        with_on=["the engine plate"],
        supplier="Weir Machine Works",
        price=45.0,
        safety="none",
    )
    script.write(1, kind="machine moved", work="face", now="out", promised="in 5 days")
    script.write(1, kind="put by", what="selector detent ball", where="in the blue tin by the vice")


def shop_calendar(workshop: Workshop, now: datetime) -> None:
    """Evenings of the week, who helps and when, tools that go back."""

    def say(**act: Any) -> None:
        write_shop(workshop, SHOP_ACT.validate_python(act), who="MK", entry_id=workshop.new_id())

    week = [{"day": day, "start": "19:00", "end": "21:30"} for day in (0, 1, 2, 3, 4)]
    say(kind="evenings set", hours=[*week, {"day": 5, "start": "09:00", "end": "15:00"}])
    say(
        kind="helper kept", helper="rt", name="RT", can=["second hand at a lift", "guides", "reads"]
    )
    say(kind="helper kept", helper="jb", name="JB", can=["welding"])
    saturday = now + timedelta(days=(5 - now.weekday() - 1) % 7 + 1)
    visit = {"kind": "visit", "helper": "rt", "start": "10:00", "end": "13:00"}
    say(**visit, visit="first", day=saturday.date().isoformat(), answer="yes")
    for weeks in range(2, 12):
        later = (saturday + timedelta(weeks=weeks)).date().isoformat()
        say(**visit, visit=f"rt{weeks}", day=later)
        say(**{**visit, "helper": "jb"}, visit=f"jb{weeks}", day=later, answer="asked")
    say(
        kind="spare kept",
        spare="seal",
        name="Front seal",
        condition="new, in its bag",
        fits="the gearbox of Two",
        where="drawer 3",
    )
    say(
        kind="next time noted",
        note="shackle",
        step="u_bolts_off",
        title="U-bolts off, one side",
        text="soak the nuts the evening before: one sheared, and the evening was gone",
        minutes=40,
        build_name="Three: rear leaf springs",
    )
    puller, hoist = now - timedelta(days=2), now + timedelta(days=8)
    for name, whose, back, known in (
        ("bearing puller", "JB", puller, 1),
        ("engine hoist", "Brackwater garage", hoist, 1),
    ):
        said = GearEdited(name=name, state="borrowed", whose=whose, back_by=back.date().isoformat())
        edit_gear(workshop, said, version=known, who="MK")
