"""Readings out and in as a table, all or none, and the sheet of paper."""

import csv
import io

import pytest
from pypdf import PdfReader

from hollet.core.errors import NotFound, Refused
from hollet.services.builds import bench, make_build
from hollet.services.demo import Script
from hollet.services.demo_script import DemoClock
from hollet.services.readings import read_readings, readings_csv, sheet_pdf
from hollet.services.tools import edit_tool, presets
from hollet.services.workshop import Workshop

HEAD = "id,typed,unit,tool,state,datum,sure\n"


@pytest.fixture
def shop(tmp_path):
    """A workshop with a feeler, a micrometer, and one build of the engine-measured sheet."""
    workshop = Workshop(tmp_path)
    known = {preset["name"]: preset for preset in presets()}
    for code, name in (("F1", "feeler leaves, 0.05 mm steps"), ("M1", "micrometer 0-25 mm, 0.001")):
        edit_tool(workshop, {**known[name], "id": code.lower(), "code": code}, who="MK", version=0)
    build = make_build(
        workshop,
        sheets=["engine-measured"],
        name="=Odd name, bench",
        vehicle="One",
        about="on the stand",
        who="MK",
    )
    yield workshop, build
    workshop.close()


def values(workshop, build, step):
    """Readings of a step by id."""
    return {r.id: r.value_text for r in bench(workshop, build, step).readings}


def test_out_and_in_again_is_nothing_new(shop):
    """A table written out, read in again, says nothing new; every reading has a row,
    taken or not.
    """
    workshop, build = shop
    read = read_readings(
        workshop,
        build,
        HEAD + "lash_1_in,0.15; 0.20,mm,f1,cold,,\nlash_2_in,6 thou,mm,F1,,,\n",
        who="TR",
    )
    assert (read.written, read.unchanged) == (2, 0)
    assert values(workshop, build, "lash_found") | {
        "lash_1_in": "0.175",
        "lash_2_in": "0.152",
    } == values(workshop, build, "lash_found")
    text = readings_csv(workshop, build)
    rows = list(csv.DictReader(io.StringIO(text)))
    assert len(rows) == 24 + 20 + 10 + 8 + 4 + 6 + 8 + 1 + 1 + 8
    row = next(r for r in rows if r["id"] == "lash_1_in")
    assert (row["typed"], row["tool"], row["state"], row["who"]) == (
        "0.15; 0.20",
        "F1",
        "cold",
        "TR",
    )
    again = read_readings(workshop, build, text, who="TR")
    assert (again.written, again.unchanged) == (0, 2)
    assert len(list(csv.DictReader(io.StringIO(readings_csv(workshop, build, "lash_found"))))) == 8


@pytest.mark.parametrize(
    ("bad", "code", "words"),
    [
        ("nothing,0.2,mm,F1,,,", "bad_file", "line 3: there is no reading 'nothing'"),
        ("lash_2_in,0.2,mm,X9,,,", "bad_file", "line 3: the shop has no tool 'X9'"),
        ("lash_2_in,0.2 kg,mm,F1,,,", "dimension_mismatch", "line 3"),
        ("lash_2_in,2.5,mm,F1,,,", "odd_figure", "write yes under sure"),
        ("lash_2_in,=1+1,mm,F1,,,", "unit_missing", "line 3"),
    ],
)
def test_one_bad_line_writes_none(shop, bad, code, words):
    """The line is named, and what would be right; the good line before it is not written either."""
    workshop, build = shop
    with pytest.raises(Refused) as refusal:
        read_readings(workshop, build, HEAD + "lash_1_in,0.20,mm,F1,,,\n" + bad + "\n", who="TR")
    assert refusal.value.reason_code == code
    assert words in refusal.value.message
    assert values(workshop, build, "lash_found")["lash_1_in"] == ""


def test_sure_takes_an_odd_figure(shop):
    """Asked, not refused: with yes under sure it is written."""
    workshop, build = shop
    assert (
        read_readings(workshop, build, HEAD + "lash_1_in,2.5,mm,F1,,,yes\n", who="TR").written == 1
    )


def test_the_sheet_names_every_reading(shop):
    """Each reading with its state, expected size and tool; the caution and the line on every page;
    no glyph is missing.
    """
    workshop, build = shop
    data = sheet_pdf(workshop, build, ("One: engine", "on the stand"), None, "2026-03-01 08:00 UTC")
    reader = PdfReader(io.BytesIO(data))
    pages = [page.extract_text() for page in reader.pages]
    text = "\n".join(pages)
    for step in ("bore_maps", "main_strips", "lash_found", "deck"):
        for reading in bench(workshop, build, step).readings:
            assert reading.name[:44] in text, reading.name
    assert "lock its head" in text
    for k, page in enumerate(pages, start=1):
        assert f"page {k} of {len(pages)}" in page
        assert "licensed practice go first" in page
    assert "\ufffd" not in text
    assert [round(float(x)) for x in reader.pages[0].mediabox[2:]] == [595, 842]


def test_signs_that_paper_lacks_are_words(shop):
    """Ohm, at most, arrows: each has a word, and every sign left has a glyph in the paper font."""
    from fontTools.ttLib import TTFont

    from hollet.exchange import sheets_pdf
    from hollet.library.shelf import sheet_names, sheet_text

    known = set(TTFont(sheets_pdf.FONTS / "recursive-500.ttf").getBestCmap())
    for name in sheet_names():
        left = {c for c in sheets_pdf.plain(sheet_text(name)) if c not in "\n\r\t"} - {
            chr(c) for c in known
        }
        assert left == set(), name


def test_a_sign_that_no_font_has_is_not_lost_unseen(shop):
    """A name in another script is drawn as question marks, not as nothing."""
    workshop, build = shop
    reader = PdfReader(
        io.BytesIO(sheet_pdf(workshop, build, ("Motor Жук", ""), "lash_found", "now"))
    )
    assert "Motor ???" in reader.pages[0].extract_text()


def test_one_step_only_and_nothing_left(shop):
    """A step by itself; a step that is none; a build that is read through has nothing to print."""
    workshop, build = shop
    one = PdfReader(io.BytesIO(sheet_pdf(workshop, build, ("One", ""), "lash_found", "now")))
    assert "Valve 1 inlet" in one.pages[0].extract_text()
    assert "Cylinder 1" not in one.pages[0].extract_text()
    with pytest.raises(NotFound):
        sheet_pdf(workshop, build, ("One", ""), "nothing", "now")
    script = Script(workshop, DemoClock(workshop.clock()), build, "MK")
    measured = ("main_journals", "bore_maps", "main_strips", "rod_shells", "deck", "rod_sides")
    for step in (*measured, "deck_flat", "crank_runout_m", "lash_shimmed"):
        script.plan("not today", act="retire", step=step)
    rows = "".join(f"lash_{k}_{v},0.20,mm,F1,,,\n" for k in range(1, 5) for v in ("in", "out"))
    read_readings(workshop, build, HEAD + rows, who="TR")
    with pytest.raises(Refused, match="every reading"):
        sheet_pdf(workshop, build, ("One", ""), None, "now")


def test_a_table_does_not_prove_one_moment(shop):
    """Current and drop of two evenings in one table: the hour of both is that of the table, and a
    drop that holds only with its current of the same burst is not judged by it.
    """
    workshop, _ = shop
    by_kind = {preset["kind"]: preset for preset in presets()}
    for code, kind in (("V2", "voltmeter"), ("I1", "ammeter")):
        edit_tool(
            workshop, {**by_kind[kind], "id": code.lower(), "code": code}, who="MK", version=0
        )
    build = make_build(
        workshop, sheets=["before-power"], name="Drop", vehicle="One", about="", who="MK"
    )
    rows = "crank_amps,180,A,I1,cranking,,\ndrop_v,0.09,V,V2,cranking,,\n"
    read_readings(workshop, build, HEAD + rows, who="TR")
    drop = next(r for r in bench(workshop, build, "drop").results if r.id == "drop_r")
    assert drop.judgement.verdict != "inside"
    assert "a table does not say when" in drop.held
