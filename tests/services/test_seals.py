"""What was done to the data past Hollet shows: in verify, on the log page, in the Shop."""

import json
import os
import shutil
import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

import pytest

from hollet.core.entries import GearEdited
from hollet.core.errors import Refused, Unavailable
from hollet.services import front
from hollet.services.archives import import_build
from hollet.services.gear import edit_gear
from hollet.services.logging import log_of
from hollet.services.restoring import restore_backup
from hollet.services.tools import edit_tool
from hollet.services.upkeep import copied_today
from hollet.services.verifying import accept_as_it_is, verify
from hollet.services.workshop import SHOP, Workshop
from hollet.store.database import FILE
from hollet.store.seals import HEADS
from tests.services.harm import doctored

NOW = datetime(2026, 3, 20, 12, 0, tzinfo=UTC)
ARCHIVE = Path(__file__).parent.parent / "exchange" / "formats" / "format-3.zip"


@pytest.fixture
def folder(hand):
    """The folder of a Hollet with thirty-odd lines and a lent hoist, running."""
    for number in range(32):
        hand.write("note", text=f"line {number}")
    edit_gear(hand.workshop, GearEdited(name="Hoist", state="lent"), version=0, who="MK")
    return hand.workshop.store.folder


def broken(workshop: Workshop) -> list[str]:
    """What verify finds broken."""
    return [line.removeprefix("broken: ") for line in verify(workshop) if line.startswith("broken")]


@pytest.mark.parametrize(
    ("harm", "words"),
    [
        ("DELETE FROM entry WHERE chain=:b AND seq=33", "sealed at line 33 and ends at line 32"),
        ("DELETE FROM entry WHERE chain=:b AND seq>3", "sealed at line 33 and ends at line 3"),
        ("DELETE FROM entry WHERE chain='shop' AND seq=3", "log of shop at line 3"),
        ("UPDATE entry SET sent='x' WHERE chain=:b AND seq=9", "log of Job at line 9"),
        ("UPDATE entry SET strikes='x' WHERE chain=:b AND seq=9", "log of Job at line 9"),
        ("UPDATE entry SET rule=1 WHERE chain=:b AND seq=9", "log of Job at line 9"),
        (
            """UPDATE instrument SET tool=replace(tool, '"mpe":"0.002"', '"mpe":"0.02"')
            WHERE id='m1'""",
            "the tool M1, micrometer was changed past Hollet",
        ),
        ("DELETE FROM instrument WHERE id='m1'", "the tool m1 was taken out past Hollet"),
        ('UPDATE vehicle SET facts=\'{"turbo":"yes"}\'', "the vehicle One was changed"),
        ("UPDATE build SET name='Other'", "the name of the build Other was changed"),
        ("UPDATE build SET plan=replace(plan,'Small','Big')", "the plan of the build Job was"),
        ("UPDATE gear SET state='owned'", "the tool hoist was changed past Hollet"),
        ("DELETE FROM gear", "the tool hoist was taken out past Hollet"),
        ("UPDATE shop SET currency='XXX'", "what the shop is called was changed past Hollet"),
        ("UPDATE sheet SET text='x'", "the sheet small was changed past Hollet"),
        (
            "INSERT INTO gear VALUES ('jack','jack','owned',NULL,NULL,1)",
            "the tool jack was put in past Hollet",
        ),
        ("DELETE FROM seal WHERE id='gear:hoist'", "the tool hoist was put in past Hollet"),
        ("DELETE FROM seal", "the tool hoist was put in past Hollet"),
        ("DELETE FROM build", "the build of 33 lines is gone"),
    ],
)
def test_what_verify_sees(hand, folder, harm, words):
    """Each change past Hollet is named; before it, everything was whole."""
    assert broken(hand.workshop) == []
    doctored(folder, harm.replace(":b", f"'{hand.build}'"))
    found = broken(hand.workshop)
    assert any(words in line for line in found), found


def test_a_record_and_its_seal_taken_out_together(hand, folder):
    """The number of seals is sealed too."""
    doctored(folder, "DELETE FROM gear", "DELETE FROM seal WHERE id='gear:hoist'")
    assert broken(hand.workshop) == ["the list of seals was changed past Hollet"]


def test_a_log_cut_short_is_read_only(hand, folder):
    """Opened again, the build says from which line lines are gone, and takes nothing more."""
    hand.workshop.close()
    doctored(folder, f"DELETE FROM entry WHERE chain='{hand.build}' AND seq>30")
    hand.workshop = Workshop(folder)
    view = log_of(hand.workshop, hand.build)
    assert (view.whole, view.broken_at) == (False, 31)
    with pytest.raises(Unavailable, match="line 31 of this build's log is gone"):
        hand.write("note", text="behind what is gone")


def test_a_log_cut_short_while_it_runs(hand, folder):
    """The log page sees it at once."""
    assert log_of(hand.workshop, hand.build).whole
    doctored(folder, f"DELETE FROM entry WHERE chain='{hand.build}' AND seq=33")
    assert log_of(hand.workshop, hand.build).broken_at == 33


def test_the_log_page_and_the_shop_name_a_changed_tool(hand, folder):
    """A tool whose error was changed past Hollet is named where its verdicts are read; edited
    through Hollet, it is Hollet's again.
    """
    change = """UPDATE instrument SET tool=replace(tool, '"mpe":"0.002"', '"mpe":"0.02"')"""
    doctored(folder, f"{change} WHERE id='m1'")
    words = "the tool M1, micrometer was changed past Hollet"
    assert log_of(hand.workshop, hand.build).changed == (words,)
    assert front.shop_view(hand.workshop).changed == [words]
    tool = hand.workshop.tools()["m1"]
    edit_tool(hand.workshop, tool.model_dump(), who="MK", version=tool.version)
    assert front.shop_view(hand.workshop).changed == []


def test_an_older_copy_put_in_its_place(hand, folder, tmp_path):
    """The database of yesterday under the seals of today: lines are gone, and that is said."""
    copy = tmp_path / "yesterday"
    with closing(sqlite3.connect(folder / FILE)) as a, closing(sqlite3.connect(copy)) as b:
        a.backup(b)
    hand.write("note", text="today")
    hand.workshop.close()
    shutil.copy(copy, folder / FILE)
    for leftover in ("-wal", "-shm"):
        (folder / f"{FILE}{leftover}").unlink(missing_ok=True)
    hand.workshop = Workshop(folder)
    assert any("sealed at line 34 and ends at line 33" in line for line in broken(hand.workshop))


@pytest.mark.parametrize(
    ("harm", "words"),
    [
        (lambda file: file.unlink(), "its seal is gone"),
        (lambda file: file.write_text(""), "its seal was changed"),
        (
            lambda file: file.write_text(file.read_text().replace('"seq": 3', '"seq": 2')),
            "its seal was changed",
        ),
    ],
    ids=["gone", "torn", "other line"],
)
def test_the_seal_itself(hand, folder, harm, words):
    """A seal that was taken, torn or written by another hand is no seal."""
    harm(folder / HEADS / hand.build)
    assert broken(hand.workshop) == [f"log of Job, {words}"]


def test_a_seal_behind_its_chain_is_no_harm(hand, folder):
    """As a power cut between the line and its seal would leave it."""
    before = (folder / HEADS / hand.build).read_text()
    hand.write("note", text="acknowledged")
    (folder / HEADS / hand.build).write_text(before)
    assert broken(hand.workshop) == []


def test_a_seal_cut_short_is_no_harm(hand, folder):
    """A power cut in the middle of the newest seal leaves the one before it."""
    file = folder / HEADS / hand.build
    written = bytearray(file.read_bytes())
    at = bytes(written).index(b'"seq": 33')
    written[at : at + 60] = b"\0" * 60
    file.write_bytes(written)
    assert broken(hand.workshop) == []
    hand.write("note", text="goes on")
    assert broken(hand.workshop) == []


def test_all_seals_of_the_logs_gone(hand, folder):
    """Taken out together, they are made anew, and the shop's log says so; the first time that
    anything is sealed, nothing is said.
    """

    def said() -> list[str]:
        with hand.workshop.store.read() as books:
            notes = [line.body for line in books.log.read(SHOP) if line.kind == "note"]
        return [body for body in notes if "seals of the logs" in body]

    assert said() == []
    hand.workshop.close()
    shutil.rmtree(folder / HEADS)
    hand.workshop = Workshop(folder)
    assert len(said()) == 1
    assert broken(hand.workshop) == []


def test_taken_as_it_is(hand, folder):
    """What was changed on purpose is sealed anew, and the shop's log says who took what."""
    doctored(folder, "UPDATE gear SET state='owned'")
    assert accept_as_it_is(hand.workshop, "MK") == ["the tool hoist was changed past Hollet"]
    assert broken(hand.workshop) == []
    with hand.workshop.store.read() as books:
        last = list(books.log.read(SHOP))[-1]
    assert (last.who, json.loads(last.body)["text"]) == (
        "MK",
        "taken as it is: the tool hoist was changed past Hollet",
    )
    assert accept_as_it_is(hand.workshop, "MK") == []


def test_on_another_machine(hand, folder, tmp_path, monkeypatch):
    """Moved to a machine with another key, everything is whole; a change is still seen, and what is
    written there is sealed with that machine's key.
    """
    hand.workshop.close()
    monkeypatch.setenv("HOLLET_KEY", str(tmp_path / "other" / "seal.key"))
    hand.workshop = Workshop(folder)
    assert broken(hand.workshop) == []
    hand.write("note", text="written there")
    assert broken(hand.workshop) == []
    doctored(folder, "UPDATE gear SET state='owned'")
    assert broken(hand.workshop) == ["the tool hoist was changed past Hollet"]
    assert (tmp_path / "other" / "seal.key").stat().st_mode & 0o077 == 0


def test_a_key_that_is_none(tmp_path, monkeypatch):
    """An empty key file is said, not used."""
    file = tmp_path / "seal.key"
    file.write_text("")
    monkeypatch.setenv("HOLLET_KEY", str(file))
    with pytest.raises(Unavailable, match="HOLLET_KEY") as refusal:
        Workshop(tmp_path / "data")
    assert refusal.value.reason_code == "no_seal_key"


def test_seals_go_with_a_backup(hand, folder, tmp_path):
    """Restored, an older state is whole: its own seals came with it; a backup with a log cut short
    is refused.
    """
    file = hand.workshop.store.backup(tmp_path / "copy.zip")
    day = hand.workshop.store.daily_backup(NOW)
    assert day is not None
    hand.write("note", text="later")
    hand.workshop.close()
    doctored(day, f"DELETE FROM entry WHERE chain='{hand.build}' AND seq=33")
    with pytest.raises(Refused, match="sealed at line 33"):
        restore_backup(day, folder, NOW)
    restore_backup(file, folder, NOW)
    hand.workshop = Workshop(folder)
    assert broken(hand.workshop) == []
    assert log_of(hand.workshop, hand.build).total == 33


def test_an_archive_of_before_is_read(workshop):
    """Format 3, whose lines were hashed by the first rule: read in whole, and written on."""
    build = import_build(workshop, ARCHIVE.read_bytes())
    assert broken(workshop) == []
    view = log_of(workshop, build)
    assert (view.total, view.struck) == (4, 1)
    with workshop.store.read() as books:
        assert {line.rule for line in books.log.read(build)} == {1}


def test_today_has_its_copy(hand, monkeypatch):
    """Made once; where it cannot be made, that is said and Hollet runs on."""
    assert copied_today(hand.workshop) == ""
    assert len(os.listdir(hand.workshop.store.folder / "backups")) == 1

    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("hollet.store.database.daily", full)
    assert "today's copy could not be made" in copied_today(hand.workshop)
