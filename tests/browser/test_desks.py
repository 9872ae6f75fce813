"""The desks behind the parts, by keyboard where a hand has one free: machine work, money, searches,
questions, the box, the closing card and the pace.
"""

import pytest
from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_bench import engine
from tests.browser.test_parts import build_named


def test_machine_work_is_right_once_it_is_measured(mortal, mk: Bench):
    """Out already in the demo; back and outside, so it goes out again; inside then: free."""
    page, two = mk.page, build_named(mortal, "Two")
    mk.go(f"{mortal.url}/builds/{two}/parts", "parts wanted")
    page.get_by_role("button", name="bell housing face, skim").first.click()
    drawer = page.get_by_role("dialog", name="bell housing face: skim")
    drawer.get_by_role("button", name="It is back").click()
    mk.written("bell housing face: back, not measured yet")
    drawer.locator("input[name=machined]").fill("0.09")
    drawer.get_by_text("E1", exact=False).first.click()
    drawer.get_by_role("button", name="Write it").click()
    expect(drawer.get_by_text("outside", exact=False).first).to_be_visible()
    drawer.get_by_role("button", name="It goes out").click()
    mk.written("bell housing face: at the machine shop")
    drawer.get_by_role("button", name="It is back").click()
    drawer.locator("input[name=machined]").fill("0.01")
    drawer.get_by_text("E1", exact=False).first.click()
    drawer.get_by_role("button", name="Write it").click()
    expect(drawer.get_by_text("back, as ordered")).to_be_visible()


def test_something_goes_out_by_keyboard(demo, mk: Bench):
    """X, tab through the fields, Enter; a size without a range is refused and stays typed."""
    page = mk.page
    mk.go(f"{demo.url}/builds/{build_named(demo, 'Three')}/parts", "wanted")
    mk.key("x")
    dialog = page.get_by_role("dialog", name="To the machine shop")
    typed = {"part": "hub", "to_do": "turn", "size": "80.2 mm", "machinist": "Weir"}
    for name, text in typed.items():
        dialog.locator(f"input[name={name}]").fill(text)
    dialog.get_by_text("nothing of these").click()
    dialog.get_by_role("button", name="Write the order").press("Enter")
    expect(dialog.locator(".problem")).to_contain_text("has no range")
    expect(dialog.locator("input[name=part]")).to_have_value("hub")
    dialog.locator("input[name=size]").fill("80.00 to 80.05 mm")
    dialog.get_by_role("button", name="Write the order").press("Enter")
    mk.written("Weir: hub, turn, back with 80.00 to 80.05 mm")
    expect(page.get_by_role("button", name="hub, turn").first).to_contain_text(
        "to be taken to Weir"
    )


def test_what_is_lost_is_looked_for_and_found(demo, mk: Bench):
    """/ finds where a thing lies; what nobody put by is looked for from there, and ends."""
    page, build = mk.page, engine(demo)
    mk.go(f"{demo.url}/builds/{build}/log", "")
    mk.key("/")
    page.locator("input[name=find]").fill("rubber plug 12")
    page.get_by_role("button", name="Look for it: 20 min, then a new one").click()
    mk.written("looking for rubber plug 12: 20 min, then a new one")
    block = page.get_by_role("region", name="Looked for: rubber plug 12")
    expect(block).to_contain_text("0 of 20 min")
    block.locator("input").first.fill("in the sump, of course")
    page.keyboard.press("Enter")
    mk.written("rubber plug 12 found after 0 min: in the sump, of course")
    mk.key("/")
    page.locator("input[name=find]").fill("rubber")
    expect(
        page.get_by_role("button", name="rubber plug 12 lies in the sump, of course")
    ).to_be_visible()


def test_where_a_thing_lies_is_said_as_it_is_put_there(demo, mk: Bench):
    """N at a bench, two words; the bench of that step says it."""
    page, build = mk.page, build_named(demo, "Three")
    mk.go(f"{demo.url}/builds/{build}", "")
    expect(page.locator(".work, main").first).to_be_visible()
    mk.key("n")
    dialog = page.get_by_role("dialog", name="Add what you know")
    dialog.get_by_role("button", name="Where it lies").click()
    dialog.locator("input[name=add-words]").fill("grease nipple")
    dialog.locator("input[name=add-where]").fill("in the lid of bag 4")
    page.keyboard.press("Enter")
    mk.written("grease nipple lies in the lid of bag 4")
    expect(page.get_by_text("lies in the lid of bag 4").first).to_be_visible()


def test_the_money_of_a_build(demo, mk: Bench):
    """Budget and worst stand together; a way weighed and taken moves what is sure."""
    page, two = mk.page, build_named(demo, "Two")
    mk.go(f"{demo.url}/builds/{two}/parts", "parts wanted")
    mk.key("e")
    mk.shows("at worst")
    expect(page.get_by_text("left of 700.00")).to_be_visible()
    before = api(demo.url, f"/api/builds/{two}/money")["money"]["sure"]
    page.get_by_text("Weigh ways: the work, or a tool").click()
    page.locator("input[name=way]").fill("Press for the bushes")
    page.locator("input[name=wayprice-1]").fill("35,50")
    page.locator("select[name=taken]").select_option(label="send it out")
    page.get_by_role("button", name="Write it").click()
    expect(page.get_by_role("alert")).to_contain_text("say why this way")
    expect(page.locator("input[name=way]")).to_have_value("Press for the bushes")
    page.locator("input[name=because]").fill("nobody here has a press")
    page.get_by_role("button", name="Write it").click()
    mk.written("Press for the bushes: send it out, 35.50")
    after = api(demo.url, f"/api/builds/{two}/money")["money"]["sure"]
    assert after == pytest.approx(before + 35.5)
    page.get_by_text("Weigh a part that may be needed").click()
    for name, text in (("reserve", "thrust washer"), ("reserveprice", "6"), ("wait", "5")):
        page.locator(f"input[name={name}]").fill(text)
    page.get_by_role("button", name="Wait and see").click()
    mk.written("1 × thrust washer: 6.00 now, 2.40 later on average: not bought ahead")
    mk.key("Escape")
    mk.shows("parts wanted")


def test_somebody_is_asked_and_answers(demo, mk: Bench):
    """From a part; the page goes on paper, the answer is filed and settles nothing."""
    page, two = mk.page, build_named(demo, "Two")
    mk.go(f"{demo.url}/builds/{two}/parts", "parts wanted")
    page.get_by_role("button", name="Layshaft bearing, front").first.click()
    page.get_by_role("link", name="Ask somebody").click()
    mk.shows("Ask about: Layshaft bearing, front")
    page.locator("textarea[name=ask]").fill("Is the open cage the right one here?")
    page.get_by_role("button", name="Make the page").click()
    mk.written("asked somebody about Layshaft bearing, front")
    paper = page.get_by_role("link", name="On paper").first.get_attribute("href")
    assert page.request.get(demo.url + str(paper)).body().startswith(b"%PDF")
    page.get_by_role("button", name="An answer came").first.click()
    page.locator("input[name=name]").fill("Tern")
    page.locator("textarea[name=answer]").fill("Yes, with the shield outward.")
    page.get_by_role("button", name="File the answer").click()
    expect(page.get_by_text("Yes, with the shield outward.").first).to_be_visible()


def test_the_box_is_offered_at_the_part(mortal, mk: Bench):
    """Put in by keyboard; taken for the job at the part that needs it, and then compared."""
    page, two = mk.page, build_named(mortal, "Two")
    mk.go(f"{mortal.url}/box", "In the box")
    expect(page.get_by_role("button", name="Front seal")).to_contain_text("drawer 3")
    mk.go(f"{mortal.url}/builds/{two}/parts", "parts wanted")
    page.get_by_role("button", name="front seal").first.click()
    page.get_by_role("button", name="Take 1 for this job").click()
    expect(page.get_by_text("taken for this job: compare it, then it is free")).to_be_visible()
    assert api(mortal.url, "/api/box")["spares"][0]["left"] == 0


def test_the_evening_is_closed(mortal, mk: Bench):
    """A search of this evening is asked once; its answer stands on the pace desk."""
    page, build = mk.page, engine(mortal)
    mk.go(f"{mortal.url}/builds/{build}/log", "")
    mk.key("/")
    page.locator("input[name=find]").fill("split pin")
    page.get_by_role("button", name="Look for it: 20 min, then a new one").click()
    page.get_by_role("region", name="Looked for: split pin").locator("input").first.fill(
        "on the mat"
    )
    page.keyboard.press("Enter")
    mk.written("split pin found after 0 min")
    mk.go(mortal.url, "")
    expect(page.get_by_text("close the evening")).to_be_visible()
    mk.key("x")
    card = page.get_by_role("dialog", name="Close the evening")
    ask = card.locator("form.ask").filter(has_text="looked for split pin")
    ask.locator("select").select_option(index=3)
    ask.locator("input").fill("lay the pins out by size first")
    ask.get_by_role("button", name="Say it next time").click()
    expect(ask).to_contain_text("Next time: lay the pins out by size first")
    card.get_by_role("link", name="Pace and lost time").click()
    mk.shows("finished")
    expect(page.get_by_text("lay the pins out by size first")).to_be_visible()


def test_what_would_win_is_laid_over_the_plan(mortal, mk: Bench):
    """A digit lays it over, Esc takes it away; nothing is written."""
    page = mk.page
    mk.go(f"{mortal.url}/evenings", "done by")
    title = page.locator("h1").inner_text()
    expect(page.locator("button.win").first).to_be_visible()
    head = api(mortal.url, "/api/shop")["builds"][0]["frame"]["head"]
    mk.key("1")
    expect(page.get_by_text("Not so yet: this is how it would lie.")).to_be_visible()
    expect(page.locator("h1")).to_contain_text("done")
    mk.key("Escape")
    expect(page.locator("h1")).to_have_text(title)
    assert api(mortal.url, "/api/shop")["builds"][0]["frame"]["head"] == head
