"""Inspecting by keys: what broke is traced down the oil, faces seen, a part decided; the findings
desk; the sums without a build.
"""

from playwright.sync_api import expect

from tests.browser.regions import api, new_build


def test_debris_traced_by_keys(demo, mk):
    """Press what broke: the parts come in the order of the oil; dents, clean ones, then the part is
    decided and the new one laid beside it.
    """
    build = new_build(demo.url, "Chips", "gearbox-opened")
    mk.go(f"{demo.url}/builds/{build}/steps/debris_traced", "0 of 35 faces seen")
    mk.page.get_by_role("button", name="Layshaft bearing, rear: press if this broke up").press(
        "Enter"
    )
    mk.written("broke up: Layshaft bearing, rear")
    expect(mk.page.locator(".matrix li").nth(0)).to_contain_text("Layshaft bearing, rear")
    expect(mk.page.locator(".matrix li").nth(1)).to_contain_text("Layshaft gears")
    mk.key("2")
    expect(mk.page.get_by_text("round pits with a raised, shiny rim")).to_be_visible()
    mk.page.locator("select[name=cleaning]").select_option("washed")
    mk.page.locator("input[name=cause]").fill("no oil in it")
    mk.key("PageDown")
    mk.written(
        "Layshaft bearing, rear, rollers: Dents, anywhere, several "
        "(washed, perhaps from no oil in it)"
    )
    for face in ("cage", "inner race", "outer race", "seat"):
        mk.key("0")
        mk.written(f"Layshaft bearing, rear, {face}: nothing found")
    region = mk.page.get_by_role("region", name="Layshaft bearing, rear")
    expect(region).to_be_visible()
    mk.key("x")
    mk.key("4")
    expect(region.locator("input[name=reason]")).to_be_focused()
    mk.page.keyboard.type("dents all round")
    mk.page.keyboard.press("Enter")
    mk.written("Layshaft bearing, rear: replace, dents all round (costs 44, if wrong 420)")
    expect(region.get_by_text("Put right")).to_be_visible()
    region.locator("input[name=old]").fill("52 mm")
    region.locator("input[name=new]").fill("2 in")
    region.get_by_role("button", name="It differs").press("Enter")
    mk.written(
        "Layshaft bearing, rear, outside diameter: old 52 mm, new 2 in: differs, 1.2 mm less"
    )
    expect(region.get_by_text("1 of 10 laid side by side")).to_be_visible()
    mk.key("Escape")
    mk.shows("5 of 35 faces seen")
    assert "Layshaft bearing, rear: to be replaced" in str(
        api(demo.url, f"/api/builds/{build}/gate")
    )


def test_the_eye_goes_on_while_the_server_is_gone(demo, mk):
    """Two faces seen and one with a finding into the dark: each is kept for its own face; when the
    server is back they are there.
    """
    build = new_build(demo.url, "Dark", "clutch")
    mk.go(f"{demo.url}/builds/{build}/steps/disc_seen", "0 of 7 faces seen")
    mk.page.route("**/entries", lambda route: route.abort())
    for face in ("flywheel side", "cover side"):
        expect(mk.page.locator(".side .figure")).to_contain_text(f"Clutch disc, {face}")
        mk.key("0")
    expect(mk.page.locator(".side .figure")).to_contain_text("Clutch disc, hub springs")
    mk.written("2 not yet saved")
    mk.page.unroute("**/entries")
    mk.shows("2 of 7 faces seen")
    parts = api(demo.url, f"/api/builds/{build}/steps/disc_seen")["inspection"]["parts"]
    assert [f["state"] for f in parts[0]["faces"]] == ["good", "good", "not_seen", "not_seen"]


def test_a_face_of_ones_own(demo, mk):
    """What no sheet names is added by a key, and keeps the step open until it is seen."""
    build = new_build(demo.url, "Own", "as-it-comes")
    mk.go(f"{demo.url}/builds/{build}/steps/parts_seen", "What came off looked at")
    mk.key("a")
    dialog = mk.page.get_by_role("dialog")
    dialog.locator("input[name=partname]").fill("Fork ball")
    dialog.locator("select[name=safety]").select_option("none")
    dialog.locator("input[name=facename]").fill("top")
    dialog.locator("input[name=facename]").press("Enter")
    mk.shows("0 of 1 faces seen")
    expect(mk.primary()).to_be_disabled()
    mk.key("0")
    mk.shows("1 of 1 faces seen")


def test_the_findings_desk(demo, mk):
    """Of the demo: what was decided and said before, money, causes with their warning, what is
    suspect for its age.
    """
    build = next(
        b["id"] for b in api(demo.url, "/api/shop")["builds"] if b["name"].startswith("Two")
    )
    mk.go(f"{demo.url}/builds/{build}/findings", "70 of 70 faces seen, 1 to decide")
    expect(mk.page.get_by_text("use it again: Drive side is clean as a whistle.")).to_be_visible()
    mk.key("2")
    expect(mk.page.get_by_role("heading", name="Synchro hubs")).to_be_visible()
    expect(mk.page.get_by_text("3 samples prove little.")).to_be_visible()
    mk.key("3")
    expect(mk.page.get_by_text("2 things were changed at once")).to_be_visible()
    mk.page.locator("input[name=evidence-oil]").fill("Vent hose was blocked")
    mk.page.locator("input[name=evidence-oil]").press("Enter")
    expect(mk.page.get_by_text("Vent hose was blocked").first).to_be_visible()
    mk.key("4")
    expect(mk.page.get_by_text("Nothing is suspect for its age")).to_be_visible()
    mk.page.locator("select[name=standing]").select_option("over five years")
    mk.page.get_by_role("dialog").get_by_role("button", name="Take it", exact=True).click()
    expect(mk.page.get_by_text("Shaft seals")).to_be_visible()


def test_a_sum_without_a_build(empty, mk):
    """Found by a word, figures typed as they are written, the answer with its working; a bad figure
    is named at its field.
    """
    mk.go(f"{empty.url}/sums", "In the other unit")
    mk.page.locator("input[name=figure]").fill("62 ft-lb")
    expect(mk.page.locator("dl")).to_contain_text("84.06 N·m")  # 62 × 1.3558179
    mk.page.locator("input[name=figure]").fill("62")
    expect(mk.page.locator(".start .problem")).to_contain_text("unit")
    mk.page.locator("input[name=figure]").blur()
    mk.key("/")
    mk.page.keyboard.type("release")
    mk.page.get_by_role("button", name="Release-bearing gap").press("Enter")
    mk.shows("Release-bearing gap")
    mk.page.locator("input[name=A]").fill("69.42")
    mk.page.locator("input[name=B]").fill("1.9232 in")
    mk.page.locator("input[name=bar_A]").fill("10")
    mk.page.locator("input[name=spacer]").fill("1.6")
    mk.page.keyboard.press("Enter")
    expect(mk.page.locator(".answer dd")).to_have_text("12.1707 mm")  # 59.42 + 1.6 − 48.84928
    mk.page.locator("input[name=B]").fill("49 kg")
    mk.page.keyboard.press("Enter")
    expect(mk.page.get_by_role("alert")).to_contain_text("length")
    expect(mk.page.locator("input[name=B]")).to_have_attribute("aria-invalid", "true")
