"""Measuring by families: a bore map typed by keys, a sheet typed in in one pass, a concession, a
tool found in doubt, the tools of the shop.
"""

from playwright.sync_api import expect

from tests.browser.regions import api, limit, new_build, write

DEPTHS = ("top", "mid", "low")


def read(url: str, build: str, step: str, tool: str, figures: dict[str, str]) -> None:
    """Readings past the screen."""
    for reading, typed in figures.items():
        write(
            url,
            build,
            {
                "kind": "reading",
                "step": step,
                "reading": reading,
                "typed": [typed],
                "unit": "mm",
                "instrument": tool,
                "sure": True,
            },
        )


def test_a_bore_map_by_keys(demo, mk):
    """Six figures of cylinder 1 by digits and Enter: each stands on the drawing; taper and
    roundness are judged; an arrow goes back to one.
    """
    build = new_build(demo.url, "Map", "engine-measured")
    for name, hi in (("bore_taper", "0.030"), ("bore_round", "0.030"), ("bore_worn", "0.080")):
        limit(demo.url, build, name, hi=hi)
    limit(demo.url, build, "bore_size", target="84.000")
    mk.go(f"{demo.url}/builds/{build}/steps/bore_maps", "Cylinder 1, top, along")
    for typed in ("84.010", "84.072", "84.006", "84.020", "84.002", "84.004"):
        mk.page.keyboard.type(typed)
        mk.page.keyboard.press("Enter")
        mk.written(f"typed {typed} mm")
    mk.shows("Cylinder 2, top, along")
    spots = mk.page.get_by_role("group", name="Bores mapped")
    expect(spots.get_by_role("button", name="Cylinder 1, top, across: 84.072 mm")).to_be_visible()
    expect(mk.page.get_by_role("region", name="Taper 1")).to_contain_text("0.068 ±")
    expect(mk.page.get_by_text("0.038 over the upper limit.")).to_be_visible()
    mk.page.get_by_text("Working").first.click()
    expect(mk.page.get_by_text("taper: 84.072 − 84.004 = 0.0680 mm")).to_be_visible()
    mk.key("ArrowLeft")
    mk.shows("Cylinder 1, low, across")


def test_accepted_in_writing(demo, mk):
    """One outside: by key 4, with a reason of ten letters at least; it stands at the result, in the
    log, and lapses when it is read again.
    """
    build = new_build(demo.url, "Shells", "engine-measured")
    limit(demo.url, build, "rod_wall", lo="1.485", hi="1.505")
    read(demo.url, build, "rod_shells", "m1", {"s1_upper": "1.470"})
    mk.go(f"{demo.url}/builds/{build}/steps/rod_shells", "Rod 1, lower shell")
    mk.page.get_by_role("button", name="Rod 1, upper 1.470").press("Enter")
    mk.key("a")
    mk.key("4")
    dialog = mk.page.get_by_role("dialog")
    dialog.locator("textarea[name=reason]").fill("thin")
    expect(dialog.get_by_role("button", name="Accepted")).to_be_disabled()
    dialog.locator("textarea[name=reason]").fill(
        "One evening to the lorry park, then it is rebuilt."
    )
    dialog.get_by_role("button", name="Accepted").click()
    mk.written("accepted in writing: Rod shell wall 1.470 mm")
    assert "1.470" in str(api(demo.url, f"/api/builds/{build}/log")["accepted"])
    read(demo.url, build, "rod_shells", "m1", {"s1_upper": "1.469"})
    mk.page.reload()
    expect(mk.page.get_by_text("lapsed: the reading or the limit has changed")).to_be_visible()


def test_a_sheet_typed_in(demo, mk):
    """All eight lash figures with Enter alone; one that is hardly possible is asked, and written on
    the second Enter.
    """
    build = new_build(demo.url, "Lash", "engine-measured")
    mk.go(f"{demo.url}/builds/{build}/steps/lash_found", "Valve 1 inlet")
    mk.key("w")
    region = mk.page.get_by_role("region", name="Type the sheet in")
    expect(region.locator("input[name=in-lash_1_in]")).to_be_focused()
    for typed in ("0.20", "0.30", "0.15", "6 thou", "0.20", "0.25", "0.20"):
        mk.page.keyboard.type(typed)
        mk.page.keyboard.press("Enter")
        mk.written(f"typed {typed}")
    expect(region.locator("input[name=in-lash_4_out]")).to_be_focused()
    mk.page.keyboard.type("2.5")
    mk.page.keyboard.press("Enter")
    expect(region.get_by_role("alert")).to_contain_text("a decimal place")
    mk.page.keyboard.press("Enter")
    mk.written("Valve 4 exhaust: typed 2.5")
    values = [
        r["value_text"] for r in api(demo.url, f"/api/builds/{build}/steps/lash_found")["readings"]
    ]
    assert values == ["0.20", "0.30", "0.15", "0.152", "0.20", "0.25", "0.20", "2.50"]


def test_a_table_read_in(demo, mk):
    """A CSV with a bad line writes nothing and names it; put right, it is written."""
    build = new_build(demo.url, "Table", "engine-measured")
    mk.go(f"{demo.url}/builds/{build}/steps/lash_found", "Valve 1 inlet")
    head = "id,typed,unit,tool\nlash_1_in,0.20,mm,F1\n"
    mk.page.locator("input[name=readings-file]").set_input_files(
        {"name": "r.csv", "mimeType": "text/csv", "buffer": (head + "lash_9,0.2,mm,F1\n").encode()}
    )
    expect(mk.page.get_by_role("alert")).to_contain_text(
        "Nothing was written. line 3: there is no reading 'lash_9'"
    )
    mk.page.locator("input[name=readings-file]").set_input_files(
        {"name": "r.csv", "mimeType": "text/csv", "buffer": head.encode()}
    )
    expect(mk.page.get_by_text("1 readings written.")).to_be_visible()
    mk.shows("Valve 1 exhaust")


def test_a_tool_found_wrong(demo, mk):
    """M3 is off by more than it may be: what it read is in doubt at the bench, until its offset is
    known and it is read again.
    """
    build = next(
        b["id"] for b in api(demo.url, "/api/shop")["builds"] if b["name"].startswith("One")
    )
    mk.go(f"{demo.url}/tools", "measuring tools")
    mk.page.get_by_role("button", name="Check M3").press("Enter")
    dialog = mk.page.get_by_role("dialog")
    dialog.locator("input[name=standard]").fill("gauge block")
    dialog.locator("input[name=nominal]").fill("80")
    dialog.locator("input[name=shows]").fill("80.006 80.007")
    dialog.locator("input[name=shows]").press("Enter")
    expect(dialog.get_by_text("M3 is off by 0.0065 mm, permissible is ±0.0020")).to_be_visible()
    dialog.get_by_role("button", name="Back to the tools").press("Enter")
    expect(mk.page.get_by_text("off by 0.0065 mm: not to be trusted")).to_be_visible()
    results = api(demo.url, f"/api/builds/{build}/steps/bores")["results"]
    assert {r["judgement"]["verdict"] for r in results} == {"too_close"}
    assert "tool in doubt: M3 was off by 0.0065 mm at its check" in {
        r["judgement"]["words"] for r in results
    }
    mk.page.get_by_role("button", name="Check M3").press("Enter")
    dialog.locator("input[name=standard]").fill("gauge block")
    dialog.locator("input[name=nominal]").fill("80")
    dialog.locator("input[name=shows]").fill("80.006 80.007")
    dialog.locator("input[name=shows]").press("Enter")
    dialog.get_by_role("button", name="Take 0.0065 mm off from now on").press("Enter")
    expect(dialog.get_by_text("from now on it is taken off")).to_be_visible()
    tool = next(t for t in api(demo.url, "/api/shop")["tools"] if t["id"] == "m3")
    assert (tool["offset"], tool["good_at"] is not None) == ("0.0065", True)


def test_the_hands_and_what_they_can_decide(demo, mk):
    """Ten readings of one thing by Enter become the tool's repeatability; for a build each figure
    has its best tool.
    """
    mk.go(f"{demo.url}/tools", "measuring tools")
    mk.page.get_by_role("button", name="Hands with M1").press("Enter")
    dialog = mk.page.get_by_role("dialog")
    dialog.locator("input[name=thing]").fill("gauge block 10")
    entry = dialog.locator("input[name=trial]")
    for figure in (
        "10.001",
        "10.003",
        "10.002",
        "10.000",
        "10.002",
        "10.001",
        "10.004",
        "10.002",
        "10.001",
        "10.002",
    ):
        entry.fill(figure)
        entry.press("Enter")
    expect(dialog.get_by_role("img", name="10 readings from 10 to 10.004 mm")).to_be_visible()
    dialog.get_by_role("button", name="That is all ten").press("Enter")
    expect(mk.page.get_by_text("M1: the hands of MK scatter by s = 0.00114 mm.")).to_be_visible()
    mk.page.locator("select[name=decides]").select_option(label="One: engine out, top end")
    expect(mk.page.get_by_role("row", name="Engine oil with filter")).to_contain_text("J1 ±0.076 L")
    expect(mk.page.get_by_role("row", name="Bore taper")).to_contain_text("B1 ±0.01")


def test_the_hand_goes_on_while_the_server_is_gone(demo, mk):
    """Three figures typed into the dark: each is kept for its own reading, none over another; when
    the server is back they are judged.
    """
    build = new_build(demo.url, "Dark", "engine-measured")
    mk.go(f"{demo.url}/builds/{build}/steps/main_strips", "Main 1, widest")
    mk.page.route("**/entries", lambda route: route.abort())
    places = ("Main 1, widest place", "Main 1, narrowest place", "Main 2, widest place")
    for place, typed in zip(places, ("0.041", "0.042", "0.043"), strict=True):
        mk.shows(place)
        mk.page.keyboard.type(typed)
        mk.page.keyboard.press("Enter")
    mk.shows("Main 2, narrowest place")
    mk.written("3 not yet saved, the last: reading 0.043")
    mk.page.unroute("**/entries")
    for k, place in enumerate(places, 1):  # each about its own reading: none waits for another
        line = mk.page.locator(".written li").filter(has_text=f"{place}: typed 0.04{k}")
        expect(line).to_have_count(1)
    readings = api(demo.url, f"/api/builds/{build}/steps/main_strips")["readings"]
    assert [r["value_text"] for r in readings] == ["0.041", "0.042", "0.043", *[""] * 7]
