"""The Shop, a new build, the log, archives, gates and the strip: what is round the bench."""

import shutil
from pathlib import Path

from playwright.sync_api import Route, expect

from hollet.library.shelf import sheet_names, sheet_text
from tests.browser.conftest import Local
from tests.browser.regions import Bench, api, limit, new_build, write
from tests.browser.test_bench import engine
from tests.services.test_faults import doctored
from tests.support import SMALL


def test_first_run_offers_three_acts(empty, page):
    """An empty Shop offers a new build, an archive and the demo; the demo comes at one press."""
    bench = Bench(page).go(empty.url, "No build yet")
    for words in ("New build from a sheet", "Read in an archive", "Look at the demo"):
        expect(page.get_by_role("main").get_by_text(words)).to_be_visible()
    bench.press("Look at the demo")
    bench.in_shop()
    expect(page.get_by_text("One: engine out, top end").first).to_be_visible()


def test_a_broken_log_is_said_in_the_shop_and_on_the_bench(demo_data, tmp_path, page):
    """One bad line takes no page down; the build reads only, and says from which line."""
    shutil.copytree(demo_data, tmp_path / "data")
    bad = "chain != 'shop' AND seq = 30"
    doctored(tmp_path / "data", f"UPDATE entry SET kind = 'banana' WHERE {bad}")
    server = Local(tmp_path / "data")
    try:
        bench = Bench(page).go_shop(server.url)
        told = page.get_by_role("alert").filter(has_text="Broken at line 30 of the log: read only")
        expect(told.first).to_be_visible()
        told.first.get_by_role("link", name="Log").click()
        bench.shows("29 lines")
        expect(
            page.get_by_role("main").get_by_text("Broken at line 30", exact=True)
        ).to_be_visible()
        page.keyboard.press("Escape")
        expect(told.first).to_be_visible()
    finally:
        server.stop()


def test_new_build_from_an_own_sheet(empty, page, tmp_path):
    """A sheet with a mistake is refused with its line; put right it makes a build; initials are
    asked before the first entry.
    """
    bench = Bench(page).go(empty.url + "/new", "New build: choose")
    sheet = tmp_path / "own.toml"
    sheet.write_text(SMALL.replace('kind = "remove"', 'kind = "removes"'), "utf-8")
    page.set_input_files("input[name=sheetfile]", sheet)
    expect(page.get_by_role("alert")).to_contain_text("own.toml was not taken: line ")
    expect(page.get_by_role("alert")).to_contain_text("kind must be one of")
    sheet.write_text(SMALL, "utf-8")
    page.set_input_files("input[name=sheetfile]", sheet)
    expect(page.get_by_text("Small job", exact=True)).to_be_visible()
    page.locator("input[name=name]").fill("My job")
    page.locator("input[name=vehicle]").fill("Three")
    bench.press("Begin this build")
    dialog = page.get_by_role("dialog")
    dialog.locator("input[name=initials]").fill("7")
    dialog.get_by_role("button", name="This is me").click()
    expect(dialog.get_by_role("alert")).to_be_visible()
    dialog.locator("input[name=initials]").fill("tr")
    dialog.get_by_role("button", name="This is me").click()
    bench.shows("12 steps, nothing missing")
    bench.key("Escape")
    bench.shows("Lead off")
    bench.confirm_caution()
    bench.primary().click()
    bench.written("done: Lead off")
    expect(page.locator(".who")).to_have_text("TR")
    assert api(empty.url, "/api/shop")["builds"][0]["frame"]["written"][-1]["who"] == "TR"


def test_check_and_remove_by_keyboard(demo, mk: Bench):
    """Caution, tick, bag and next by keys alone; what the step leaves open is on the plate."""
    build = new_build(demo.url)
    limit(demo.url, build, "lash_exhaust", lo="0.20", hi="0.30")
    for step in ("limits_read", "tools_laid", "battery_off"):
        mk.go(f"{demo.url}/builds/{build}/steps/{step}")
        mk.key(" ")
        mk.written("done")
    expect(mk.page.locator(".plate")).to_contain_text("1")
    mk.go(f"{demo.url}/builds/{build}/steps/fuel_capped", "Fuel line")
    expect(mk.primary()).to_be_disabled()
    box = mk.page.locator("button.confirm")
    box.focus()
    mk.page.keyboard.press("Enter")
    expect(mk.primary()).to_be_enabled()
    mk.key("PageDown")
    mk.shows("Vehicle up, on stands")
    mk.go(f"{demo.url}/builds/{build}/steps/fuel_capped", "Fuel line")
    mk.confirm_caution()
    mk.key(" ")
    mk.written("done: Fuel line")
    for step in ("bay_stripped", "wires_off", "soak_evening", "exhaust_pipe_off"):
        away = {
            "kind": "skipped",
            "step": step,
            "reason": "not on this one",
            "not_applicable": True,
        }
        write(demo.url, build, away)
    mk.go(f"{demo.url}/builds/{build}/steps/inlet_off", "Inlet manifold off")
    mk.confirm_caution()
    mk.key("ArrowDown")
    mk.press("one M6×25 less")
    expect(mk.page.get_by_text("9 pieces")).to_be_visible()
    mk.key(" ")
    mk.shows("Exhaust manifold off")
    mk.go(f"{demo.url}/builds/{build}/steps/inlet_off", "Inlet manifold off")
    expect(mk.page.get_by_text("8 × nut M8 copper, holes all")).to_be_visible()
    expect(mk.page.locator(".bagged")).to_contain_text("1 × M6×25, holes support")


def test_waits_skip_and_open_again(demo, mk: Bench):
    """A step that must wait says for what and why; done out of order, skipped, opened again: each
    with a reason.
    """
    build = new_build(demo.url)
    mk.go(f"{demo.url}/builds/{build}/steps/rocker_on")
    expect(mk.page.get_by_text("it covers bolts 3 and 8")).to_be_visible()
    mk.go(f"{demo.url}/builds/{build}/steps/spark_isolated", "Spark isolated")
    expect(mk.page.get_by_role("button", name="Done out of order")).to_have_count(0)
    mk.press("It has happened already")
    mk.written("happened")
    mk.quiet()
    expect(mk.page.get_by_role("dialog")).to_have_count(0)
    mk.press("Not applicable")
    mk.reason("this one has no coil", "Not applicable")
    mk.go(f"{demo.url}/builds/{build}/steps/spark_isolated", "Spark isolated")
    expect(mk.page.get_by_text("not applicable by MK: this one has no coil")).to_be_visible()


def test_leave_open_and_undone(demo, mk: Bench):
    """One key leaves something open; the ledger shows it; one press undoes it."""
    mk.go(f"{demo.url}/builds/{engine(demo)}", "bolt 6")
    mk.key("o")
    mk.page.locator("input[name=what]").fill("Rag in port 3")
    mk.page.locator("input[name=what]").press("Enter")
    expect(mk.page.locator(".plate b")).to_have_text("32")
    mk.key("l")
    row = mk.page.locator(".ledger li", has_text="Rag in port 3")
    row.get_by_role("button", name="Undone").click()
    expect(mk.page.locator(".ledger li", has_text="Rag in port 3")).to_have_count(0)
    expect(mk.page.locator(".plate b")).to_have_text("31")


def test_log_filter_and_strike(demo, mk: Bench):
    """By day; filtered by step and kind; a line struck stays readable with its reason."""
    build = engine(demo)
    mk.go(f"{demo.url}/builds/{build}/log", "lines, 1 struck")
    expect(mk.page.get_by_text("Whole", exact=True)).to_be_visible()
    filters = mk.page.get_by_role("radiogroup", name="Filter")
    filters.get_by_text("Struck").click()
    expect(mk.page.locator(".day li")).to_have_count(1)
    filters.get_by_text("Bolts").click()
    mk.page.locator("select").select_option(label="6.09 Head bolts")
    expect(mk.page.locator(".day li").first).to_contain_text("bolt 5, stage 2")
    mk.page.locator(".day li").first.get_by_role("button", name="Strike line").click()
    mk.page.get_by_role("dialog").get_by_role("button", name="wrong figure").click()
    expect(mk.page.locator(".day li", has_text="struck, wrong figure")).to_have_count(1)
    mk.shows("2 struck")
    assert api(demo.url, f"/api/builds/{build}/steps/head_bolts_tight")["joint"]["next_bolt"] == 5


def test_archive_out_and_in(demo, empty, mk: Bench, tmp_path: Path):
    """The whole build as one file, read into an empty Hollet, opens where it was; in twice is
    refused.
    """
    mk.go(f"{demo.url}/builds/{engine(demo)}/log", "struck")
    with mk.page.expect_download() as download:
        mk.page.get_by_text("Whole build as one file").click()
    file = tmp_path / "build.zip"
    download.value.save_as(file)
    mk.go(empty.url, "No build yet")
    mk.page.set_input_files("input[type=file]", file)
    mk.shows("bolt 6, stage 2")
    mk.go_shop(empty.url)
    mk.page.set_input_files("input[type=file]", file)
    expect(mk.page.get_by_role("alert")).to_contain_text("is here already")
    bad = tmp_path / "bad.zip"
    bad.write_bytes(b"no zip")
    mk.page.set_input_files("input[type=file]", bad)
    expect(mk.page.get_by_role("alert")).to_contain_text("not a zip")


def test_gates_lead_to_where_it_is_cleared(demo, mk: Bench):
    """By rung in the order to clear; an item leads to the step that clears it; assumed figures are
    marked.
    """
    mk.go(f"{demo.url}/builds/{engine(demo)}/gate", "to clear, the first before power on")
    expect(
        mk.page.get_by_text(
            "Must be open now: Fuel line off and capped, Spark isolated: plug off the coil"
        )
    ).to_be_visible()
    expect(mk.page.get_by_text("Coolant, 6.4 to 7.2 L: assumed")).to_be_visible()
    mk.page.get_by_role("link", name="Battery earth lead off").click()
    mk.shows("Battery earth lead on")


def test_tools_are_set_and_zeroed(demo, mk: Bench):
    """A new tool from a preset, a bad figure at its field, a gauge set with a micrometer."""
    mk.go(demo.url + "/tools", "28 measuring tools")
    mk.press("A new tool")
    dialog = mk.page.get_by_role("dialog")
    dialog.locator("select").first.select_option(label="micrometer 0-25 mm, 0.001")
    dialog.locator("input[name=code]").fill("M9")
    dialog.locator("input[name=mpe]").fill("wide")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("'mpe'")
    dialog.locator("input[name=mpe]").fill("0.003")
    dialog.get_by_role("button", name="Keep it").click()
    mk.shows("29 measuring tools")
    mk.press("M3 zeroed")
    expect(mk.page.get_by_role("status")).to_contain_text("no longer share its zero error")
    mk.press("Set B1")
    dialog.locator("input[name=setting]").fill("84.010 mm")
    dialog.get_by_role("button", name="It is set").click()
    expect(mk.page.get_by_text("M3 at 84.010 mm")).to_be_visible()
    gear = mk.page.locator("input[name=gear-name]")
    mk.page.route("**/api/gear", lambda route: route.fulfill(status=503, body="{}"))
    gear.fill("crank puller")
    mk.press("Write it down")
    expect(mk.page.get_by_role("alert")).to_contain_text("nothing was changed")
    expect(gear).to_have_value("crank puller")  # what was refused stays with the mechanic
    mk.page.unroute("**/api/gear")
    mk.press("Write it down")
    expect(gear).to_have_value("")
    expect(mk.page.get_by_role("status")).to_contain_text("crank puller: owned")


def test_strip_and_lost_address(demo, mk: Bench):
    """A stage opens to its steps; an unknown address and an unknown build say so."""
    mk.go(f"{demo.url}/builds/{engine(demo)}", "bolt 6")
    mk.page.locator(".row.stage", has_text="Take down").click()
    mk.page.locator(".row.step", has_text="2.54").click()
    mk.shows("Pistons and rods out")
    mk.key("Escape")
    mk.shows("bolt 6")
    mk.go(demo.url + "/nowhere/at/all", "nothing at this address")
    mk.page.goto(demo.url + "/builds/none")
    expect(mk.page.get_by_role("alert")).to_contain_text("there is no build")


def test_sheet_that_ships_is_on_offer(empty, page):
    """The shipped sheet stands in the list with what it is for."""
    Bench(page).go(empty.url + "/new", "New build")
    expect(page.get_by_text("71 steps")).to_be_visible()
    expect(page.locator("input[name=sheet]")).to_have_count(len(sheet_names()))
    assert "first start" in sheet_text("top-end")


def test_live_from_another_screen(demo, mk: Bench):
    """What another screen writes is seen here without a reload."""
    build = engine(demo)
    mk.go(f"{demo.url}/builds/{build}", "bolt 6")
    write(demo.url, build, {"kind": "note", "text": "gasket is the old kind"})
    mk.written("gasket is the old kind")


def test_news_while_a_bench_is_on_its_way(demo, mk: Bench):
    """What another screen writes while the first bench loads does not leave this one empty."""
    build = engine(demo)
    held: list[Route] = []
    mk.page.route("**/steps/head_bolts_tight", lambda route: held.append(route), times=1)
    mk.page.goto(f"{demo.url}/builds/{build}")
    expect(mk.page).to_have_url(f"{demo.url}/builds/{build}/steps/head_bolts_tight")
    for _ in range(500):  # the bench is asked for, and on its way
        if held:
            break
        mk.page.wait_for_timeout(20)
    write(demo.url, build, {"kind": "note", "text": "written in between"})
    mk.written("written in between")
    held[0].continue_()
    mk.shows("Bolt 6, stage 2")
