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
    """Do every step up to the first run on its own bench; returns the kinds met before it."""
    kinds = []
    for _ in range(90):
        frame = api(url, f"/api/builds/{build}")["frame"]
        view = api(url, f"/api/builds/{build}/steps/{frame['current']}")
        if view["kind"] == "run":
            return kinds
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
        expect(bench.page.locator(".step.now")).not_to_contain_text(f"{view['base']['number']} ")
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
    bench.primary().click()


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


STEPS = {
    "check": tick,
    "inspect": inspect,
    "remove": tick,
    "measure": measure,
    "tighten": tighten,
    "fill": fill,
}


def test_from_first_step_to_first_run(demo, mk):
    """Every bench before an engine turns, each by its own keys; then the crank step is next."""
    sheet = api(demo.url, "/api/sheets", {"text": SMALL})["id"]
    build = new_build(demo.url, sheet=sheet)
    away = {"reason": "no cover on this one", "not_applicable": True}
    write(demo.url, build, {"kind": "skipped", "step": "cover_on", **away})
    kinds = walk(mk, demo.url, build)
    assert set(kinds) == {"check", "remove", "measure", "tighten", "fill"}
    assert api(demo.url, f"/api/builds/{build}")["frame"]["current"] == "crank"
