"""One job from its first step to its first run, in the browser, as a user would."""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api, new_build, write
from tests.support import SMALL

READINGS = {
    "straight edge": "0.04",
    "micrometer": "83.958",
    "bore gauge": "84.006",
    "feeler": "0.35 0.40",
    "ohmmeter": "150",
}
LASH = {"inlet": "0.18 0.22", "exhaust": "0.23 0.27"}


def walk(bench: Bench, url: str, build: str) -> list[str]:
    """Do every step on its own bench to the last one; returns the kinds met."""
    kinds = []
    for _ in range(90):
        frame = api(url, f"/api/builds/{build}")["frame"]
        view = api(url, f"/api/builds/{build}/steps/{frame['current']}")
        kinds.append(view["kind"])
        if bench.page.url.endswith(
            f"/steps/{view['base']['step']}"
        ):  # most steps lead on to the next by themselves
            bench.page.wait_for_timeout(
                620
            )  # a second press sooner would be taken for a double one
        else:
            bench.page.goto(f"{url}/builds/{build}/steps/{view['base']['step']}")
        expect(bench.page.locator(".step.now")).to_contain_text(view["base"]["number"])
        bench.confirm_caution()
        as_found(bench, view)
        STEPS[view["kind"]](bench, url, build, view)
        now = bench.page.locator(".step.now")
        if view["base"]["step"] == frame["steps"][-1]["id"]:
            expect(now).to_contain_text("done")
            return kinds
        expect(now).not_to_contain_text(f"{view['base']['number']} ")
    raise AssertionError("the walk does not end")


def as_found(bench: Bench, view: dict) -> None:
    """What a step asks for first: captures kept, bags emptied, marks compared; each by its own
    button.
    """
    for capture in view["base"]["captures"]:
        bench.keep_as_found(capture["kind"])
    for bag in view["base"]["refit_bags"]:
        bench.press(f"All {bag['left']} out")
        expect(bench.page.get_by_text(f"still in bag {bag['bag']}")).to_have_count(0)
    for capture in view["base"]["compares"]:
        row = bench.page.locator(".mark", has_text=capture["what"])
        row.get_by_role("button", name="In line" if capture["strokes"] else "As found").click()
        expect(row).to_have_count(0) if capture is view["base"]["compares"][-1] else expect(
            row
        ).to_have_class("mark same")


def tick(bench: Bench, url: str, build: str, view: dict) -> None:
    """Check and remove: one press, with the bag where there is one."""
    bench.primary().click()


def inspect(bench: Bench, url: str, build: str, view: dict) -> None:
    """The first face by key, the others from another screen, seen at once."""
    faces = [(p["id"], f["id"]) for p in view["inspection"]["parts"] for f in p["faces"]]
    if faces:
        bench.key("0")
        bench.shows(f"1 of {len(faces)} faces seen")
    for part, face in faces[1:]:
        write(
            url,
            build,
            {
                "kind": "finding",
                "step": view["base"]["step"],
                "part": part,
                "face": face,
                "cleaning": "washed",
            },
        )
    if faces:
        bench.shows(f"{len(faces)} of {len(faces)} faces seen")
    bench.key("PageDown")


def measure(bench: Bench, url: str, build: str, view: dict) -> None:
    """All readings, each digits and Enter; the gauge is set with the micrometer first."""
    for reading in view["readings"]:
        typed = next(
            (lash for valve, lash in LASH.items() if valve in reading["name"].casefold()),
            READINGS[reading["tool_kind"]],
        )
        expect(bench.page.locator("h1")).to_contain_text(reading["name"])
        bench.read(typed)
    bench.primary().click()


def tighten(bench: Bench, url: str, build: str, view: dict) -> None:
    """A wrench that reaches the stage; the first bolt by pedal here, the others from another
    screen, seen at once.
    """
    joint = view["joint"]
    for stage in joint["stages"]:
        bench.shows(f"Bolt 1, stage {stage['number']}")
        if stage["kind"] == "torque":
            bench.press("wrench")
            dialog = bench.page.get_by_role("dialog")
            dialog.locator(f"input[value={'w3' if float(stage['figure']) < 20 else 'w2'}]").check()
            dialog.get_by_role("button", name="Take this one").click()
            expect(dialog).to_be_hidden()
        bench.shows(f"Bolt 1, stage {stage['number']}")
        bench.key("PageDown")
        bench.shows("Bolt 2")
        for bolt in joint["bolts"][1:]:
            write(
                url,
                build,
                {
                    "kind": "fastener",
                    "step": view["base"]["step"],
                    "bolt": bolt["number"],
                    "act": "clicked",
                    "stage": stage["number"],
                },
            )
    bench.shows("final")
    bench.key("PageDown")


def fill(bench: Bench, url: str, build: str, view: dict) -> None:
    """Amount and level."""
    bench.page.locator("input[name=amount]").fill(view["amount"]["target"])
    bench.press("Poured in")
    expect(bench.page.get_by_text(" in, inside")).to_be_visible()
    bench.press(view["level"])
    bench.primary().click()


def run(bench: Bench, url: str, build: str, view: dict) -> None:
    """Isolate, start, enter what is expected, key off."""
    for what in view["isolate"]:
        bench.page.locator(".el-checkbox", has_text=what).click()
    bench.primary().click()
    bench.shows("Attempt")
    bench.page.locator("input[name=oil]").fill("2.5 bar")
    bench.press("Entered")
    bench.written("2.5 bar")
    bench.page.wait_for_timeout(650)
    bench.page.locator("button.stop").click()
    bench.written("passed")
    bench.page.wait_for_timeout(650)
    bench.primary().click()


STEPS = {
    "check": tick,
    "inspect": inspect,
    "remove": tick,
    "measure": measure,
    "tighten": tighten,
    "fill": fill,
    "run": run,
}


WALK = (
    SMALL.replace('safety = "fuel"', 'safety = "fuel"\nsource = "book p. 1"')
    .replace('final = "cinched"\n', "")
    .replace(
        '[[step]]\nid = "fire"',
        '[[step]]\nid = "coil_on"\nstage = "wake"\nkind = "connect"\ntitle = "Coil on"\ndo = "On."'
        '\nblocks = "fire"\ncloses = ["coil"]\n\n[[step]]\nid = "fire"',
    )
    .replace(
        '[[step]]\nid = "bore"',
        '[[step]]\nid = "looked"\nstage = "inspect"\nkind = "inspect"\ntitle = "Head looked at"\n'
        'do = "Clean, under a light."\npart = [{ id = "head", name = "Head", '
        'face = [{ id = "face", name = "Gasket face", on = "bore" }, '
        '{ id = "holes", name = "Holes", on = "thread" }] }]\n\n'
        '[[step]]\nid = "bore"',
    )
)
"""The small job with every figure sourced and every kind of bench."""


def test_from_first_step_to_first_run(demo, mk):
    """Every kind of bench by its own keys, every step, every bolt, the starter and the first fire;
    at the end nothing is left open on the gate.
    """
    sheet = api(demo.url, "/api/sheets", {"text": WALK})["id"]
    build = new_build(demo.url, sheet=sheet)
    kinds = walk(mk, demo.url, build)
    assert set(kinds) == {
        "check",
        "inspect",
        "remove",
        "measure",
        "tighten",
        "fill",
        "run",
    }
    mk.go(f"{demo.url}/builds/{build}/gate", "Nothing left open")
    answers = {r["rung"]: r["answer"] for r in api(demo.url, f"/api/builds/{build}/gate")["rungs"]}
    assert set(answers.values()) == {"nothing left open"}
    expect(mk.page.get_by_text("local codes and licensed practice go first")).to_be_visible()
