"""What is not yet final, in the browser: before a cover, as a list, on the card and typed back."""

import urllib.request

from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_parts import build_named


def test_before_a_cover_it_says_what_is_not_final(demo, mk: Bench):
    """At the rocker shaft the head bolts behind it; one press to the list, one to the bolt."""
    page, build = mk.page, build_named(demo, "One: engine")
    mk.go(f"{demo.url}/builds/{build}/steps/rocker_on")
    behind = page.get_by_role("region", name="Not final behind it")
    expect(behind).to_contain_text("10 not final behind it")
    expect(behind).to_contain_text("Head bolts")
    behind.get_by_role("link", name="All that is not final").click()
    mk.shows("10 bolts are not final, and get closed over next")
    expect(page.get_by_role("region", name="nobody reaches these")).to_contain_text("6.09")
    mk.key(" ")
    mk.shows("You stopped at bolt 6")


def test_every_bolt_final_and_due_again(demo, mk: Bench):
    """By the gates to the list; the last nut, and it says so; the recheck is another list."""
    page, build = mk.page, build_named(demo, "Three")
    mk.go(f"{demo.url}/builds/{build}/gate")
    mk.key("i")
    mk.shows("1 bolt is not final, before the wheels touch the ground")
    mk.key("ArrowRight")
    expect(page.get_by_role("button", name="Wheels down 1")).to_have_attribute(
        "aria-pressed", "true"
    )
    mk.key("ArrowLeft")
    expect(page.get_by_role("region", name="Due again")).to_contain_text("Wheel nuts")
    with urllib.request.urlopen(f"{demo.url}/api/builds/{build}/debts.pdf") as paper:
        assert paper.read(5) == b"%PDF-"


def test_the_ticks_of_a_card_are_typed_back(demo, mk: Bench):
    """Bolt 6 at stage 2; a tick out of the order is not written, and says so."""
    page, build = mk.page, build_named(demo, "One: engine")
    mk.go(f"{demo.url}/builds/{build}/steps/head_bolts_tight")
    page.get_by_role("button", name="Type its ticks back").click()
    ticks = page.locator("input[name=ticks]")
    ticks.fill("12")
    ticks.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("bolts are 1 to 10")
    bench = api(demo.url, f"/api/builds/{build}/steps/head_bolts_tight")
    first = bench["joint"]["ahead"][0]
    ticks.fill(f"{first} 10")
    ticks.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("is not ticked")
    mk.written(f"bolt {first}")
    bench = api(demo.url, f"/api/builds/{build}/steps/head_bolts_tight")
    assert bench["joint"]["bolts"][9]["stage"] <= 1
