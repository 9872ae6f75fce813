"""The laws of a sheet: the examples of the format, every shipped sheet, every pair of them, what
a mechanic's own sheet is told.
"""

import itertools
import re
import tomllib
from pathlib import Path

import pytest

from hollet.core.errors import Refused
from hollet.core.procedure.closings import plan_gaps
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.laws.breach import place_of, worlds
from hollet.core.procedure.laws.check import LAWS, breaches, refuse_unsafe
from hollet.core.procedure.plan import select
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.ties import TIES_OF, guarded, movers, untied_by
from hollet.library.shelf import sheet_names, sheet_text
from hollet.services.sheets import look_at_sheet

FORMAT = (Path(__file__).parents[2] / "docs" / "sheet-format.md").read_text("utf-8")
EXAMPLES = [
    (law, sort, any_vehicle is not None, text)
    for sort, law, any_vehicle, text in re.findall(
        r"^```toml (bad|good) (\w+)( any)?\n(.*?)^```", FORMAT, re.MULTILINE | re.DOTALL
    )
]
SHEETS = {
    name: read_sheet(tomllib.loads(sheet_text(name)), sheet_text(name)) for name in sheet_names()
}
MANY = [
    ("top-end", "engine-measured", "before-power"),
    ("powertrain-up", "clutch", "first-start"),
    ("powertrain-up", "top-end", "engine-measured", "before-power", "first-start"),
    ("gearbox-out", "gearbox-opened", "clutch"),
    ("bottom-end", "powertrain-up", "clutch", "before-power"),
    ("front-suspension", "running-gear-measured", "rear-axle"),
    ("rear-leaf-springs", "rear-axle", "running-gear-measured"),
    ("automatic-traced", "powertrain-up", "first-start"),
    ("powertrain-down", "clutch", "first-start", "before-power"),
]


def example(text: str, any_vehicle: bool = False) -> str:
    """An example of the format as a whole sheet."""
    head = '[sheet]\nid = "x"\ntitle = "X"\nabout = "An example."\n'
    step = (
        '\n[[step]]\nid = "plain"\nstage = "plan"\nkind = "check"\ntitle = "Plain"\ndo = "Look."\n'
    )
    return head + ("any_vehicle = true\n" if any_vehicle else "") + "\n" + text + step


def broken(text: str) -> set[str]:
    """The laws that a sheet breaks."""
    return {b.law for b in breaches(read_sheet(tomllib.loads(text), text), text)}


@pytest.mark.parametrize(
    ("law", "sort", "any_vehicle", "text"), EXAMPLES, ids=[f"{e[0]}-{e[1]}" for e in EXAMPLES]
)
def test_the_examples_of_the_format(law, sort, any_vehicle, text):
    """Each bad example breaks its law, each good one breaks none."""
    found = broken(example(text, any_vehicle))
    assert (law in found) == (sort == "bad"), found
    assert sort == "bad" or found == set()


def words_alone(title: str, do: str, kind: str = "check") -> str:
    """A sheet whose one step says it all in words and nothing in its keys."""
    return example(
        f'[[step]]\nid = "w"\nstage = "take_down"\nkind = "{kind}"\n'
        f'title = "{title}"\ndo = "{do}"\n'
    )


@pytest.mark.parametrize(
    ("title", "do", "kind", "law"),
    [
        ("Engine out", "Up and away.", "remove", "moves"),
        ("Engine and gearbox lowered", "Down with them.", "check", "moves"),
        ("The gearbox drawn back", "Slide it off its dowels.", "remove", "moves"),
        ("Axle out", "Roll it out from below.", "remove", "moves"),
        ("Powertrain, as one up", "Up it goes.", "remove", "moves"),
        ("Engine oil drained", "Half an hour.", "check", "drains"),
        ("Oil and filter out", "Into the tray.", "remove", "drains"),
        ("Drain the block", "At its plug.", "check", "drains"),
        ("Coolant let out", "When cold.", "check", "drains"),
        ("Unit down", "Let it down on the lift table.", "check", "caution"),
        ("Steering wheel off", "Undo the air bag module.", "remove", "caution"),
        ("Compressor aside", "Leave the A/C lines on.", "remove", "caution"),
        ("Compressor aside", "The air conditioner stays filled.", "remove", "caution"),
        ("Sump off", "Crawl under the vehicle and undo it.", "remove", "caution"),
        ("Exhaust off", "Trolley jack under the pipe.", "remove", "caution"),
    ],
)
def test_what_is_said_in_words_alone_is_not_taken(title, do, kind, law):
    """A unit that moves, a fluid that runs, a danger: said by the title or the text, and kept by no
    key. None of it is called *every law is kept*.
    """
    text = words_alone(title, do, kind)
    assert law in broken(text)
    assert look_at_sheet(text).refused


@pytest.mark.parametrize(
    ("title", "do", "kind"),
    [
        ("Engine mounts undone", "Both nuts.", "check"),
        ("Engine number read", "On the block.", "check"),
        ("Oil line off", "A rag under it.", "check"),
        ("Oil pump out", "Two bolts.", "check"),
        ("Fuel gauge out", "From the panel.", "check"),
        ("Gearbox lever off", "One clip.", "check"),
        ("Axle nut slackened", "On its wheels.", "check"),
    ],
)
def test_what_only_sounds_like_it_is_taken(title, do, kind):
    """Parts named after a unit or a fluid move nothing and let nothing out."""
    assert not {"moves", "drains"} & broken(words_alone(title, do, kind))


@pytest.mark.parametrize(
    "figure", ["60 Nm", "45 ft·lb", "3.5 in", "3 thou", "30 psi", "0.5 mm", "4.2 L", "90 deg"]
)
def test_a_figure_in_words_is_one_in_any_unit(figure):
    """In a sheet for any vehicle it is said to be usual, or it stands in the limit book."""
    loose = words_alone("Looked at", f"Go to {figure} there.").replace(
        "[sheet]", "[sheet]\nany_vehicle = true"
    )
    assert "assumed" in broken(loose)
    assert "assumed" not in broken(loose.replace("Go to", "Go to the usual"))


def test_every_law_is_taught():
    """One bad and one good example of each law stand in the format, and its heading says whether it
    is of safety.
    """
    assert {(law, sort) for law, sort, *_ in EXAMPLES} == {
        (law.id, sort) for law in LAWS for sort in ("bad", "good")
    }
    for law in LAWS:
        mark = " (safety)" if law.safety else ""
        assert f"### {law.id}{mark}: {law.name}" in FORMAT


def test_the_short_sheet_keeps_every_law():
    """The sheet written from nothing is taken as it stands."""
    text = re.findall(r"^```toml whole\n(.*?)^```", FORMAT, re.MULTILINE | re.DOTALL)[0]
    assert broken(text) == set()


@pytest.mark.parametrize("name", SHEETS)
def test_a_shipped_sheet_keeps_every_law(name):
    """No breach in any sheet that ships, whatever the vehicle and the ways."""
    assert breaches(SHEETS[name], sheet_text(name)) == ()


@pytest.mark.parametrize("name", SHEETS)
def test_a_shipped_sheet_leaves_nothing_undone(name):
    """The plan desk of a new build has no line of what its plan leaves open, raised or empty."""
    assert plan_gaps(select(combine_sheets([SHEETS[name]])).plan) == ()


def test_an_engine_taken_out_and_left_is_told():
    """On a cradle for ever is right only for one that came in out of its vehicle."""
    sheet = SHEETS["powertrain-up"]
    back = {"mounts_tight", "engine_lowered_in"} | {
        step.id for step in sheet.step if step.stage == "fit_in" and step.carries
    }
    steps = tuple(
        step.model_copy(update={"carries": (), "releases": ()}) if step.id in back else step
        for step in sheet.step
    )
    left = combine_sheets([sheet.model_copy(update={"step": steps})])
    assert "never_lowered" in {gap.kind for gap in plan_gaps(left)}


@pytest.mark.parametrize("names", [*itertools.permutations(SHEETS, 2), *MANY], ids="+".join)
def test_sheets_together_keep_every_law(names):
    """Each pair, either way round, and the usual sets: no breach, nothing told apart that is one
    thing, no step twice.
    """
    plan = combine_sheets([SHEETS[name] for name in names])
    assert breaches(plan) == ()
    assert [words for words in plan.combined if "both are in the plan" in words] == []
    titles = [step.title for step in plan.step if step.stage in ("take_down", "wake")]
    assert len(titles) == len(set(titles))


def ready(sheet, mover, without=None):
    """The sheet in which the unit's last step no longer waits for one step."""
    steps = tuple(
        s.model_copy(update={"after": tuple(a for a in s.after if a.step != without)})
        for s in sheet.step
    )
    return sheet.model_copy(update={"step": steps})


@pytest.mark.parametrize(
    ("name", "mover"),
    [
        ("powertrain-up", "engine_up"),
        ("powertrain-down", "engine_down"),
        ("gearbox-out", "box_out"),
    ],
)
def test_each_tie_left_out_is_named(name, mover):
    """Whichever tie the move no longer waits for: the law names it, as its kind and not as a step's
    number.
    """
    sheet = SHEETS[name]
    step = sheet.find_step(mover)
    assert [m.id for m in movers(sheet) if m.moves == step.moves and m.stage == "take_down"] == [
        mover
    ]
    missed = 0
    for kind in TIES_OF[step.moves]:
        parted = untied_by(sheet, kind)
        if not parted:
            continue
        less = sheet
        for one in parted:
            less = ready(less, mover, one.id)
        if any(one.id in guarded(less, less.find_step(mover)) for one in parted):
            continue
        missed += 1
        assert any(b.law == "ties" for b in breaches(less)), kind
    assert missed >= 9


def test_what_a_mechanic_is_told():
    """A sheet that breaks a law of safety is refused with line and what would be right; one of
    order is taken with its list; one that cannot be read says where.
    """
    unsafe = example(next(e[3] for e in EXAMPLES if e[:2] == ("caution", "bad")))
    look = look_at_sheet(unsafe)
    assert look.refused
    assert look.words == "X: 1 breach, 1 of safety: not taken"
    assert unsafe.splitlines()[look.breaches[0].line - 1].startswith("[[step]]")
    with pytest.raises(Refused) as refusal:
        refuse_unsafe(look.breaches)
    assert (refusal.value.reason_code, refusal.value.field) == ("sheet_unsafe", "step.1.caution")
    assert "Right would be: caution with that danger in its text" in refusal.value.message
    ordered = look_at_sheet(example(next(e[3] for e in EXAMPLES if e[:2] == ("order", "bad"))))
    assert (ordered.refused, [b.law for b in ordered.breaches]) == (False, ["order"])
    refuse_unsafe(ordered.breaches)
    with pytest.raises(Refused, match="line"):
        look_at_sheet(unsafe.replace('kind = "check"', 'kind = "chek"', 1))


def test_never_is_not_a_danger():
    """A clause that forbids a thing does not speak of doing it; its neighbour still may."""
    step = '[[step]]\nid = "a"\nstage = "take_down"\nkind = "check"\ntitle = "A"\ndo = "{}"\n'
    assert broken(example(step.format("Never near a fuel line"))) == set()
    assert broken(example(step.format("Not hot. Then open the fuel line"))) == {"caution"}


def test_worlds_are_all_combinations():
    """Facts, ways and extras, each with all it can be, and years on both sides of their bounds."""
    sheet = SHEETS["powertrain-up"]
    asked = [c for s in sheet.step for c in s.conditions() if c.fact == "drive" or c.school]
    found = list(worlds(sheet, asked))
    assert len(found) == 3 * 2 * 3
    assert len({w.words for w in found}) == len(found)


def test_places_follow_the_reasons():
    """A step that is written early and waits for a later one lies behind it."""
    steps = SHEETS["top-end"].step
    place = place_of(SHEETS["top-end"])
    assert all(place[a.step] < place[s.id] for s in steps for a in s.after if a.step in place)
