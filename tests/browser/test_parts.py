"""Parts, parcels, tonight and the evenings, in a real browser."""

from playwright.sync_api import expect

from tests.browser.regions import Bench, api
from tests.browser.test_bench import engine

TONIGHT = {"kind": "tonight", "start": "00:01", "end": "23:59"}


def build_named(server, name: str) -> str:
    return next(
        b["id"] for b in api(server.url, "/api/shop")["builds"] if b["name"].startswith(name)
    )


def say(server, entry: dict) -> None:
    """One line of the shop's log, as another screen sends it."""
    number = api(server.url, "/api/shop")["now"].replace("-", "").replace(":", "")[:15]
    stem = f"{abs(hash((str(entry), number))) % 16**12:012x}"
    body = {"who": "MK", "id": f"0192b0c0-0000-7000-8000-{stem}", "entry": entry}
    api(server.url, "/api/shop/entries", body)


def test_a_parcel_is_compared_and_refused(mortal, mk: Bench):
    """The pipe came 14 mm short: arrived is not free, and what is refused waits again and goes
    back.
    """
    page = mk.page
    mk.go(f"{mortal.url}/builds/{engine(mortal)}/parts", "parts wanted")
    expect(page.get_by_text("silent for 6 days").first).to_be_visible()
    mk.key("a")
    page.get_by_role("button", name="All of it is in it").click()
    mk.written("parcel from Corrow Radiators: 1 × oil cooler pipe, not compared yet")
    expect(page.get_by_role("button", name="oil cooler pipe").first).to_contain_text(
        "here, not compared"
    )
    mk.key(" ")
    mk.shows("oil cooler pipe: 0 of 6 compared")
    page.locator("input[name=old]").fill("412")
    page.locator("input[name=new]").fill("398")
    page.locator("input[name=within]").fill("4")
    page.locator("input[name=source]").fill("the hose gives")
    page.keyboard.press("Enter")
    mk.shows("oil cooler pipe: length over all differs")
    expect(page.get_by_role("img", name="old 412 mm, new 398 mm")).to_be_visible()
    page.get_by_role("button", name="Take it T").click()
    expect(page.locator(".problem")).to_contain_text("length over all differs")
    page.get_by_role("button", name="Refuse it R").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.locator("textarea")).to_have_value(
        "length over all: differs, 14 mm less, more than 4"
    )
    dialog.locator("input[name=until]").fill("in 14 days")
    dialog.get_by_role("button", name="Refuse it").click()
    mk.written("1 × oil cooler pipe from Corrow Radiators refused")
    expect(page.get_by_text("in 14 days").first).to_be_visible()
    need = api(mortal.url, f"/api/builds/{engine(mortal)}/parts")
    rows = [row for group in need["groups"] for row in group["rows"]]
    pipe = next(row for row in rows if row["need"]["id"] == "oil_cooler_pipe")
    assert (pipe["need"]["free"], pipe["need"]["left"]) == (0, 1)


def test_a_want_in_one_line_asks_whether_lives_hang_on_it(demo, mk: Bench):
    """Typed once, asked once; it stands under the step that needs it."""
    page = mk.page
    mk.go(f"{demo.url}/builds/{build_named(demo, 'Three')}/parts", "wanted")
    page.locator("input[name=wanted]").fill("2 x bump stop, 11.50, tomorrow")
    page.keyboard.press("Enter")
    expect(page.get_by_text("2 × bump stop")).to_be_visible()
    page.get_by_role("button", name="suspension or a spring").click()
    mk.written("wanted: 2 × bump stop, 11.50 each")
    expect(page.get_by_role("button", name="2 × bump stop")).to_be_visible()
    page.locator("input[name=wanted]").fill("2 x lamp, whenever")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="neither a price nor a day")).to_be_visible()


def test_tonight_with_a_helper_gone(mortal, mk: Bench):
    """With him a step for two is possible; he drops out, and it says what it waits for."""
    say(mortal, {**TONIGHT, "people": ["RT", "JB"]})
    with_two = api(mortal.url, "/api/tonight")
    mk.go(mortal.url, "Tonight, until 23:59")
    expect(mk.page.get_by_role("button", name="with RT and JB")).to_be_visible()
    mk.key("c")
    dialog = mk.page.get_by_role("dialog")
    dialog.get_by_role("button", name="alone").click()
    dialog.get_by_role("button", name="So it is tonight").click()
    expect(mk.page.get_by_role("button", name="alone").first).to_be_visible()
    alone = api(mortal.url, "/api/tonight")
    people = [r["what"]["because"] for r in alone["cannot"] if "people" in r["what"]["because"]]
    steps = lambda view: {r["what"]["step"] for r in view["cannot"]}  # noqa: E731
    assert steps(with_two) <= steps(alone) or alone["cannot_more"]
    assert all("RT" in words or "nobody" in words for words in people)
    first = mk.page.locator(".go .big").inner_text()
    mk.key(" ")
    mk.shows("parts wanted" if "proof" in first else first)


def test_a_slip_is_laid_anew(mortal, mk: Bench):
    """The shaft slips: the block of evenings is laid again, and its chance of the end moves."""
    two = build_named(mortal, "Two")
    page = mk.page
    mk.go(f"{mortal.url}/evenings", "done by")
    expect(page.get_by_text("What would win")).to_be_visible()
    expect(page.get_by_text("layshaft, ", exact=False).first).to_be_visible()
    before = page.locator("h1").inner_text()
    mk.go(f"{mortal.url}/builds/{two}/parts", "parts wanted")
    page.get_by_role("button", name="Marl Gear Works").first.click()
    page.locator("input[name=promised]").last.fill("in 60 days")
    page.locator("input[name=because]").fill("the furnace is down")
    page.get_by_role("button", name="being made").click()
    mk.written("Marl Gear Works: being made, now promised for")
    expect(page.get_by_text("slipped 2 times, by ").first).to_be_visible()
    mk.go(f"{mortal.url}/evenings", "done by")
    expect(page.locator("h1")).not_to_have_text(before)


def test_a_slug_opens_why_it_lies_there(demo, mk: Bench):
    """Reasons, range and what is to spare; Esc goes back to tonight."""
    mk.go(f"{demo.url}/evenings", "done by")
    mk.page.get_by_role("group", name="The evenings").get_by_role("button").first.press("Enter")
    expect(mk.page.get_by_label("This work")).to_contain_text("To spare:")
    mk.key("Escape")
    mk.key("Escape")
    expect(mk.page.get_by_text("Comes due")).to_be_visible()
