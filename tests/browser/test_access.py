"""Every view, light and dark, at two sizes: nothing found by axe, no layout shift, nothing wider
than the screen.
"""

from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.regions import api, new_build, write
from tests.browser.test_bench import engine

AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"
VIEWS = [
    "/",
    "/new",
    "/tools",
    "/nowhere",
    "gate",
    "log",
    "limits",
    "limits?figure=rocker_bolts",
    "plan",
    "hunt",
    "off",
    "bags",
    "back",
    "load",
    "/phones",
    "/pair",
    "steps/starter_on",
    "steps/ready_to_lift",
    "steps/limits_read",
    "steps/sump_off",
    "steps/head_bolts_out",
    "steps/bores",
    "steps/valve_lash",
    "steps/head_bolts_tight",
    "steps/rocker_on",
    "steps/engine_oil_in",
    "steps/crank_oil",
    "steps/first_fire",
]
INSPECT = [
    "findings",
    "two:findings",
    "two:steps/debris_traced",
    "two:steps/gears_seen",
    "two:steps/box_outside_seen",
    "steps/bore_maps",
    "steps/main_strips",
    "steps/faces_seen",
    "/sums",
    "/sums?sum=backlash_shim_move",
]
DARK = {
    "/",
    "limits",
    "plan",
    "steps/head_bolts_tight",
    "steps/first_fire",
    "load",
    "two:steps/debris_traced",
    "steps/bore_maps",
    "/tools",
}
"""Together they show every colour of the tokens on every ground that it stands on."""
SHIFT = """() => new Promise((resolve) => {
  let sum = 0
  new PerformanceObserver((list) => {
    for (const e of list.getEntries()) if (!e.hadRecentInput) sum += e.value
  })
    .observe({ type: 'layout-shift', buffered: true })
  setTimeout(() => resolve(sum), 250)
})"""


def settled(page: Page, url: str) -> None:
    """Open and wait until the view stands."""
    page.goto(url)
    expect(page.locator("h1")).to_be_visible()
    page.evaluate("document.fonts.ready.then(() => true)")


@pytest.mark.parametrize("size", [(1280, 800), (820, 1180)], ids=["1280", "820"])
@pytest.mark.parametrize(
    "views", [VIEWS[:14], VIEWS[14:], INSPECT], ids=["first", "rest", "inspect"]
)
def test_views(demo, browser, size, views):
    """axe finds nothing at the wide size; nothing scrolls sideways; loading moves nothing; touch
    targets are 44 px or more.
    """
    build = engine(demo)
    two = next(b["id"] for b in api(demo.url, "/api/shop")["builds"] if b["name"].startswith("Two"))
    context = browser.new_context(
        viewport={"width": size[0], "height": size[1]}, reduced_motion="reduce"
    )
    context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    page = context.new_page()
    faults: list[str] = []
    axe = AXE.read_text("utf-8")
    for view in views:
        settled(
            page,
            demo.url
            + (
                view
                if view.startswith("/")
                else f"/builds/{two}/{view[4:]}"
                if view.startswith("two:")
                else f"/builds/{build}/{view}"
            ),
        )
        shift = page.evaluate(SHIFT)
        faults += [f"{view}: layout shift {shift:.3f}"] if shift >= 0.02 else []
        if size[0] == 1280:  # a smaller screen moves the same parts about, in the same colours
            page.evaluate(axe)
            for theme in ("light", "dark")[: 2 if view in DARK else 1]:
                page.evaluate(f"document.documentElement.dataset.theme = '{theme}'")
                only = (
                    ", runOnly: ['color-contrast']" if theme == "dark" else ""
                )  # dark swaps colours and nothing else
                found = page.evaluate(
                    f"axe.run(document, {{ resultTypes: ['violations'], preload: false{only} }})"
                )["violations"]
                faults += [
                    f"{view}, {theme}: {v['id']} {[n['html'][:110] for n in v['nodes'][:2]]}"
                    for v in found
                ]
        wide = page.evaluate(
            "document.documentElement.scrollWidth - document.documentElement.clientWidth"
        )
        faults += [f"{view}: {wide} px wider than the screen"] if wide > 0 else []
        small = page.evaluate(
            "[...document.querySelectorAll('button.btn, .plate, .other, .item')].filter((b) => "
            "b.offsetParent && b.getBoundingClientRect().height < 43.5)"
            ".map((b) => b.outerHTML.slice(0, 80))"
        )
        faults += [f"{view}: small target {button}" for button in small]
    context.close()
    assert faults == []


@pytest.mark.parametrize("width", [1280, 820, 390])
def test_load_line_is_never_cropped(demo, browser, width: int):
    """What carries what stands whole in the header, at every width."""
    context = browser.new_context(
        viewport={"width": width, "height": 1000}, reduced_motion="reduce"
    )
    page = context.new_page()
    settled(page, f"{demo.url}/builds/{engine(demo)}")
    line = page.locator(".carried")
    expect(line).to_contain_text("gearbox on a stand and timber")
    expect(line).to_be_visible()
    inside = (
        "(e) => { const r = e.getBoundingClientRect(), w = "
        "e.closest('.written').getBoundingClientRect(); return [w.top <= r.top, r.bottom <= "
        "w.bottom, r.right <= w.right, e.scrollHeight <= e.clientHeight] }"
    )
    assert line.evaluate(inside) == [True] * 4
    context.close()


def test_dialogs_and_ledger(demo, browser):
    """axe finds nothing in the ledger and in the dialogs."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    context.add_init_script("localStorage.setItem('hollet.who', 'MK')")
    page = context.new_page()
    settled(page, f"{demo.url}/builds/{engine(demo)}/steps/head_bolts_tight")
    page.evaluate(AXE.read_text("utf-8"))
    for key, name in (
        ("l", "left open"),
        ("e", "where did the wrench stand"),
        ("w", "Which wrench"),
        ("o", "Leave something open"),
        ("Backspace", "Strike line"),
    ):
        page.keyboard.press(key)
        dialog = page.get_by_role("dialog").filter(has_text=name)
        expect(dialog).to_be_visible()
        page.wait_for_timeout(350)
        found = page.evaluate("axe.run(document, { resultTypes: ['violations'] })")["violations"]
        assert [(v["id"], [n["html"][:120] for n in v["nodes"][:3]]) for v in found] == [], name
        page.keyboard.press("Escape")
        expect(dialog).to_be_hidden()
        page.evaluate("document.activeElement.blur()")
    context.close()


def test_writing_moves_nothing(demo, mk):
    """One click on a bolt: less than 0.02 of layout shift."""
    settled(mk.page, f"{demo.url}/builds/{engine(demo)}/steps/head_bolts_tight")
    before = mk.page.evaluate(SHIFT)
    mk.key("PageDown")
    mk.shows("Bolt 7")
    assert mk.page.evaluate(SHIFT) - before < 0.02


def test_figures_for_the_hand_are_large(demo, mk):
    """What the hand needs next is 24 px or more; nothing is under 16 px."""
    settled(mk.page, f"{demo.url}/builds/{engine(demo)}/steps/head_bolts_tight")
    sizes = mk.page.evaluate(
        "[...document.querySelectorAll('body *')].filter((e) => e.offsetParent && "
        "[...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()))"
        ".map((e) => parseFloat(getComputedStyle(e).fontSize))"
    )
    assert min(sizes) >= 16
    assert max(sizes) >= 132
    assert (
        float(
            mk.page.locator("button.primary").evaluate(
                "(e) => parseFloat(getComputedStyle(e).fontSize)"
            )
        )
        >= 24
    )


def test_a_longer_log_is_whole(demo, mk):
    """Sixty more lines: all listed, none lost."""
    build = new_build(demo.url)
    for number in range(60):
        write(demo.url, build, {"kind": "note", "step": "limits_read", "text": f"line {number}"})
    settled(mk.page, f"{demo.url}/builds/{build}/log")
    expect(mk.page.locator(".day li")).to_have_count(61)
    assert api(demo.url, f"/api/builds/{build}")["frame"]["head"] == 61
