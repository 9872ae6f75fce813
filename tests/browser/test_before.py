"""What was parted, and what was before this build: the register of ties and the last record, by
keyboard.
"""

from playwright.sync_api import expect

from tests.browser.regions import Bench
from tests.browser.test_parts import build_named


def test_a_look_alike_is_told_in_the_register(demo, mk: Bench):
    """From what came off to the register; a line opened by its key, told, and still there after a
    reload.
    """
    page, build = mk.page, build_named(demo, "One: engine")
    mk.go(f"{demo.url}/builds/{build}/off")
    mk.key("v")
    mk.shows("12 ties: 12 off")
    mk.key("ArrowDown")
    page.keyboard.press("ArrowDown")
    line = page.get_by_role("listitem").filter(has_text="Fuel line off and capped parted")
    expect(line.get_by_role("button").first).to_be_focused()
    page.keyboard.press("Enter")
    line.locator("input[name=tie-alike]").fill("the return line")
    line.locator("input[name=tie-alike]").press("Enter")
    mk.written("looks like the return line")
    expect(line.locator("input[name=tie-alike]")).to_be_hidden()
    line.get_by_role("button").first.click()
    line.get_by_role("button", name="Only while it hangs").click()
    mk.written("reached only while its unit hangs")
    expect(line).to_contain_text("Looks like the return line")
    page.reload()
    expect(line).to_contain_text("off, connected at")
    expect(line).to_contain_text("Looks like the return line")


def test_the_next_build_begins_with_the_last(demo, mk: Bench):
    """From the plan desk: what One's other build measured and left, and the way to its record."""
    page, build = mk.page, build_named(demo, "One, clutch")
    mk.go(f"{demo.url}/builds/{build}/plan")
    page.get_by_role("link", name="Last time").click()
    mk.shows("1 build before this on One")
    before = page.get_by_role("region", name="One: engine out, top end")
    row = before.get_by_role("row").filter(has_text="Cylinder 2").filter(has_text="0.067 mm")
    expect(row).to_contain_text("accepted in writing")
    before.get_by_role("link", name="One: engine out, top end").click()
    mk.shows("Not settled")


def test_what_nobody_put_a_name_to_stays_typed(demo, page):
    """A device on which nobody said who is at the bench: asked and closed, the number stays; named,
    it is written, and its unit is known.
    """
    bench = Bench(page)
    bench.go(f"{demo.url}/builds/{build_named(demo, 'One, clutch')}/last", "1 build before this")
    field = page.locator("input[name=stamped]")
    field.fill("HX 4711")
    bench.press("Read off")
    expect(page.get_by_role("dialog")).to_contain_text("Who is at the bench?")
    page.keyboard.press("Escape")
    expect(page.get_by_role("alert")).to_contain_text("Nobody said who is at the bench")
    expect(field).to_have_value("HX 4711")
    bench.press("Read off")
    page.locator("input[name=initials]").fill("TR")
    page.keyboard.press("Enter")
    bench.written("engine HX 4711, as stamped")
    expect(page.locator(".stamped")).to_contain_text("engine HX 4711 (TR")
    expect(field).to_have_value("")
