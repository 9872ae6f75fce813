"""What faults do: a second Hollet, bad backups, lines that cannot be read, a full disk."""

import os
import shutil
import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

import pytest

from hollet.core.errors import Refused, Unavailable
from hollet.library.pictures import picture
from hollet.services import builds
from hollet.services.logging import log_of
from hollet.services.photos import store_photo
from hollet.services.restoring import restore_backup
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from hollet.store import chain
from hollet.store.backups import write_backup
from hollet.store.database import FILE
from hollet.store.records import Line
from tests.services.harm import doctored

NOW = datetime(2026, 3, 20, 12, 0, tzinfo=UTC)
PHOTO = picture("front_cover")


@pytest.fixture
def stopped(hand):
    """The folder of a Hollet with a few lines, stopped."""
    for number in range(3):
        hand.write("note", text=f"line {number}")
    folder = hand.workshop.store.folder
    hand.workshop.close()
    yield folder
    hand.workshop = Workshop(folder)


def test_one_hollet_a_folder(hand, tmp_path):
    """A second one, and a restore under a running one, are refused with who holds the folder."""
    folder = hand.workshop.store.folder
    file = write_backup(folder, tmp_path / "copy")
    for use in (lambda: Workshop(folder), lambda: restore_backup(file, folder, NOW)):
        with pytest.raises(Unavailable, match=f"process {os.getpid()} since") as refusal:
            use()
        assert refusal.value.reason_code == "folder_in_use"
    hand.write("note", text="still written")


def test_looking_makes_nothing(tmp_path):
    """A mistyped folder is said, and no database is made there."""
    with pytest.raises(Unavailable, match="no Hollet database"):
        Workshop(tmp_path / "mistyped", look=True)
    assert not (tmp_path / "mistyped").exists()


def test_looking_beside_a_running_one(hand, tmp_path):
    """Verify and backup go on while Hollet runs."""
    beside = Workshop(hand.workshop.store.folder, look=True)
    assert all(line.startswith("ok") for line in verify(beside))
    assert beside.store.backup(tmp_path / "copy").is_file()
    beside.close()


def flipped(file: Path) -> None:
    """Damage the last two hundred bytes of the pages in the middle: there the rows lie."""
    data = bytearray(file.read_bytes())
    page = 4096
    for end in range(len(data) // 2 // page * page, len(data) // 4 * 3, page):
        for k in range(end - 200, end):
            data[k] ^= 0xFF
    file.write_bytes(data)


def foreign(file: Path) -> None:
    """Another program's database."""
    file.unlink()
    with closing(sqlite3.connect(file)) as connection, connection:
        connection.execute("CREATE TABLE song (id)")


@pytest.mark.parametrize(
    "harm",
    [
        lambda folder: (folder / FILE).write_bytes(b""),
        lambda folder: foreign(folder / FILE),
        lambda folder: flipped(folder / FILE),
        lambda folder: doctored(folder, "UPDATE entry SET who='XX' WHERE seq=2"),
        lambda folder: doctored(folder, "DELETE FROM entry WHERE seq=1 AND chain!='shop'"),
        lambda folder: doctored(folder, "UPDATE build SET plan='x'"),
        lambda folder: doctored(folder, "DELETE FROM build"),
        lambda folder: doctored(folder, "ALTER TABLE vehicle DROP COLUMN about"),
    ],
    ids=["empty", "foreign", "flipped", "changed", "first gone", "plan", "build gone", "column"],
)
def test_only_a_whole_backup_is_restored(stopped, tmp_path, harm):
    """Each of these is refused in a sentence, and what is there stays byte for byte."""
    copy = tmp_path / "copy"
    copy.mkdir()
    shutil.copy(stopped / FILE, copy / FILE)
    harm(copy)
    before = (stopped / FILE).read_bytes()
    with pytest.raises((Refused, Unavailable)) as refusal:
        restore_backup(copy / FILE, stopped, NOW)
    assert refusal.value.reason_code in ("damaged", "no_database")
    assert (stopped / FILE).read_bytes() == before
    assert not (stopped / "restore-trial").exists()


def test_a_backup_holds_the_photos(hand, tmp_path):
    """Backed up to one file and restored into an empty folder, everything is whole."""
    stored = store_photo(hand.workshop, PHOTO)
    hand.write("photo", photo=stored.photo, width=stored.width, height=stored.height, what="bay")
    file = hand.workshop.store.backup(tmp_path / "copy.zip")
    assert restore_backup(file, tmp_path / "new", NOW) is None
    again = Workshop(tmp_path / "new")
    assert log_of(again, hand.build).total == 2
    assert all(line.startswith("ok") for line in verify(again))
    again.close()


def test_a_day_of_backups_is_a_folder_with_photos(hand, tmp_path):
    """The daily copy is restored like any other."""
    stored = store_photo(hand.workshop, PHOTO)
    hand.write("photo", photo=stored.photo, width=stored.width, height=stored.height, what="bay")
    day = hand.workshop.store.daily_backup(NOW)
    assert day is not None
    restore_backup(day, tmp_path / "new", NOW)
    assert len(list((tmp_path / "new" / "photos").glob("*.jpg"))) == 1


@pytest.mark.parametrize(
    ("statement", "line"),
    [
        ("UPDATE entry SET kind='banana' WHERE seq=3 AND chain!='shop'", 3),
        ("UPDATE entry SET body='x' WHERE seq=3 AND chain!='shop'", 3),
        ("DELETE FROM entry WHERE seq=1 AND chain!='shop'", 1),
    ],
)
def test_one_bad_line_takes_no_page_down(stopped, hand, statement, line):
    """The build opens read only and says at which line it is broken; so does verify."""
    doctored(stopped, statement)
    hand.workshop = Workshop(stopped)
    try:
        (card,) = builds.cards(hand.workshop)
        assert card.broken == line
        assert builds.frame(hand.workshop, hand.build).frame.steps
        assert builds.gate(hand.workshop, hand.build).rungs
        assert not log_of(hand.workshop, hand.build).whole
        with pytest.raises(Unavailable, match=f"line {line}") as refusal:
            hand.write("note", text="more")
        assert refusal.value.reason_code == "broken_log"
        assert f"broken: log of Job at line {line}" in verify(hand.workshop)
    finally:
        hand.workshop.close()


def test_neither_log_nor_plan(stopped, hand):
    """A build that cannot be shown at all is named in the Shop, and the others are there."""
    doctored(
        stopped, "DELETE FROM entry WHERE seq=1 AND chain!='shop'", "UPDATE build SET plan='x'"
    )
    hand.workshop = Workshop(stopped)
    try:
        assert builds.cards(hand.workshop) == ()
        assert builds.unreadable(hand.workshop)[0].startswith("Job cannot be read")
    finally:
        hand.workshop.close()


def test_dropped_triggers_are_seen(stopped, hand):
    """What keeps the log from being rewritten was taken out: verify says so."""
    with closing(sqlite3.connect(stopped / FILE)) as connection, connection:
        connection.execute("DROP TRIGGER entry_no_delete")
    beside = Workshop(stopped, look=True)
    assert any("rewritten was taken out" in line for line in verify(beside))
    beside.close()


def test_a_full_disk_is_said(hand):
    """One sentence and what to do; nothing is half-written, and it works again after."""
    with hand.workshop.store.write() as books:
        pages = books.session.connection().exec_driver_sql("PRAGMA page_count").scalar()
        books.session.connection().exec_driver_sql(f"PRAGMA max_page_count={pages}")

    def many() -> None:
        for _ in range(200):
            hand.write("note", text="x" * 4000)

    with pytest.raises(Unavailable, match="disk is full") as refusal:
        many()
    assert refusal.value.reason_code == "disk_full"
    with hand.workshop.store.write() as books:
        books.session.connection().exec_driver_sql("PRAGMA max_page_count=1000000")
    hand.write("note", text="written again")
    assert all(line.startswith("ok") for line in verify(hand.workshop))


def test_a_photo_on_a_full_disk(hand, monkeypatch):
    """No half photo is left behind."""

    def full(_descriptor: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("hollet.store.files.os.fsync", full)
    with pytest.raises(Unavailable, match="disk is full"):
        store_photo(hand.workshop, PHOTO)
    assert list((hand.workshop.store.folder / "photos").glob("*")) == []


def test_a_folder_that_cannot_be_made(tmp_path):
    """A file where the folder should be: one sentence with what to do."""
    (tmp_path / "file").write_text("x")
    with pytest.raises(Unavailable, match="cannot be written to") as refusal:
        Workshop(tmp_path / "file" / "data")
    assert refusal.value.reason_code == "folder_unusable"


def test_one_id_in_two_builds(hand):
    """An id that another build has used is said to be so."""
    entry_id = hand.workshop.new_id()
    hand.write("note", entry_id, text="x")
    other = builds.make_build(
        hand.workshop, sheets=["small"], name="Other", vehicle="Van", about="a van", who="MK"
    )
    hand.build, first = other, hand.build
    with pytest.raises(Exception, match="another build"):
        hand.write("note", entry_id, text="x")
    hand.build = first


def test_the_shop_folds_no_build_twice(hand, monkeypatch):
    """More builds than are held folded: looked at again, the Shop folds none of them; one that was
    written to is told anew.
    """
    for number in range(22):
        builds.make_build(
            hand.workshop,
            sheets=["small"],
            name=f"Build {number}",
            vehicle=f"Van {number}",
            about="a van",
            who="MK",
        )
    first = builds.cards(hand.workshop)
    folded: list[str] = []
    fold = Workshop._state
    monkeypatch.setattr(Workshop, "_state", lambda w, build: folded.append(build) or fold(w, build))
    assert [c.id for c in builds.cards(hand.workshop)] == [c.id for c in first]
    assert folded == []
    hand.write("left open", step="bore", item="i", what="rag")
    folded.clear()
    card = next(c for c in builds.cards(hand.workshop) if c.id == hand.build)
    assert [item.what for item in card.frame.left_open][-1] == "rag"
    assert set(folded) == {hand.build}


def test_the_log_page_looks_at_what_is_new(hand, monkeypatch):
    """Found whole once, only new lines are read again; a line changed meanwhile at the mark it
    stood on is still seen.
    """
    hand.write("note", text="one")
    assert log_of(hand.workshop, hand.build).whole
    read: list[int] = []
    chain_hash = chain.chain_hash

    def counted(previous: str, row: Line) -> str:
        read.append(row.seq)
        return chain_hash(previous, row)

    monkeypatch.setattr(chain, "chain_hash", counted)
    hand.write("note", text="two")
    read.clear()
    assert log_of(hand.workshop, hand.build).whole
    assert read == [3]
    doctored(hand.workshop.store.folder, "UPDATE entry SET hash='0' WHERE seq=3")
    assert not log_of(hand.workshop, hand.build).whole
