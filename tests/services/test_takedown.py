"""Photos kept, phones paired, vehicles across builds, the order back taken over on disk."""

import io
import zipfile
from datetime import UTC, datetime, timedelta

import pytest
from PIL import Image
from pydantic import ValidationError

from hollet.core.book.order_back import Choices
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.stuck import StuckFacts
from hollet.library.pictures import PICTURES, picture
from hollet.services import builds, devices, photos, recordings, takedown
from hollet.services.archives import export_build, import_build
from hollet.services.builds import make_build
from hollet.services.devices import Pairing
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from hollet.store.database import SCHEMA
from tests.support import Hand


def photo(width: int = 400, height: int = 300, kind: str = "JPEG", **save) -> bytes:
    """A picture as a camera makes one."""
    out = io.BytesIO()
    Image.effect_noise((width, height), 40).convert("RGB").save(out, kind, **save)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "GIF", "BMP"])
def test_photos_are_written_anew(workshop, kind):
    """Every usual kind becomes a JPEG of at most 1600 px, named by the hash of its bytes, on disk
    when it is answered.
    """
    stored = photos.store_photo(workshop, photo(2000, 1000, kind))
    path = photos.photo_path(workshop, stored.photo)
    assert (stored.width, stored.height) == (1600, 800)
    with Image.open(path) as kept:
        assert (kept.format, kept.size) == ("JPEG", (1600, 800))


def test_what_a_camera_adds_is_taken_off(workshop):
    """Place and time are gone, and the picture stands upright."""
    exif = Image.Exif()
    exif[0x0112] = 6  # turned by 90 degrees
    exif[0x9003] = "2026:01:01 10:00:00"
    exif.get_ifd(0x8825)[2] = (51.0, 0.0, 0.0)
    stored = photos.store_photo(workshop, photo(400, 300, exif=exif))
    with Image.open(photos.photo_path(workshop, stored.photo)) as kept:
        assert dict(kept.getexif()) == {}
        assert kept.size == (300, 400)


@pytest.mark.parametrize(
    ("data", "code"),
    [
        (b"", "no_photo"),
        (b"%PDF-1.7 not a photo", "no_photo"),
        (photo()[:200], "no_photo"),
        (b"x" * (photos.MAX_PHOTO + 1), "too_large"),
    ],
    ids=["empty", "pdf", "cut", "large"],
)
def test_no_photo(workshop, data, code):
    """What is no picture, or too large, is refused; nothing is left behind."""
    with pytest.raises(Refused) as refusal:
        photos.store_photo(workshop, data)
    assert refusal.value.reason_code == code
    assert not list(workshop.store.folder.glob("photos/*"))


def test_too_many_pixels(workshop, monkeypatch):
    """A small file that would unpack to a giant picture is refused by its size."""
    monkeypatch.setattr(photos, "MAX_PIXELS", 100_000)
    with pytest.raises(Refused) as refusal:
        photos.store_photo(workshop, photo(400, 300))
    assert "pixels" in refusal.value.message


@pytest.mark.parametrize("name", ["../hollet", "a" * 63, "A" * 64, "0" * 64])
def test_only_photos_by_their_hash(workshop, name):
    """No path, no other file, no photo that is not there."""
    with pytest.raises(NotFound):
        photos.photo_path(workshop, name)


def test_photos_and_pins_survive_export(hand, tmp_path):
    """Out and in again: the same bytes, the same pins; a photo that no line names is refused."""
    stored = photos.store_photo(hand.workshop, photo())
    hand.write(
        "photo",
        **stored.model_dump(),
        what="front cover",
        step="bore",
        pins=[{"n": 1, "x": 0.25, "y": 0.5, "word": "long one"}],
    )
    hand.write(
        "pinned",
        photo=stored.photo,
        pins=[{"n": 1, "x": 0.3, "y": 0.5, "word": "long one"}, {"n": 2, "x": 0.9, "y": 0.1}],
    )
    data = export_build(hand.workshop, hand.build)
    other = Workshop(tmp_path / "other")
    import_build(other, data)
    view = takedown.takedown(other, hand.build).photos[0]
    assert [(p.n, p.x, p.word) for p in view.pins] == [(1, 0.3, "long one"), (2, 0.9, "")]
    assert (
        photos.photo_path(other, stored.photo).read_bytes()
        == photos.photo_path(hand.workshop, stored.photo).read_bytes()
    )
    assert export_build(other, hand.build) == data
    assert all(line.startswith("ok") for line in verify(other))
    other.close()


WEBM = b"\x1a\x45\xdf\xa3" + b"spoken" * 40


@pytest.mark.parametrize(
    ("sort", "store", "entry"),
    [
        (recordings.SOUND, recordings.store_sound, {"kind": "spoken"}),
        (
            recordings.CLIP,
            recordings.store_clip,
            {"kind": "clip", "what": "It knocks", "seconds": 12.0},
        ),
    ],
    ids=("sound", "clip"),
)
def test_a_recording_is_kept_and_goes_with_the_build(hand, tmp_path, sort, store, entry):
    """Kept byte for byte under its hash, out and in with the build, counted in the backup, looked
    at by verify; what is no recording is refused.
    """
    key, media = ("clip", "video") if entry["kind"] == "clip" else ("sound", "audio")
    said = {k: v for k, v in entry.items() if k != "kind"}
    name = getattr(store(hand.workshop, WEBM), key)
    hand.write(entry["kind"], step="bore", **{key: name}, **said)
    with zipfile.ZipFile(hand.workshop.store.backup(tmp_path / "all.zip")) as whole:
        assert any(name in member for member in whole.namelist())
    other = Workshop(tmp_path / "other")
    import_build(other, export_build(hand.workshop, hand.build))
    kept = recordings.path_of(other, sort, name)
    assert kept.read_bytes() == WEBM
    assert sort.media_type(WEBM) == f"{media}/webm"
    assert f"ok: {sort.folder} of {builds.frame(other, hand.build).name}, 1" in verify(other)
    kept.write_bytes(b"other")
    assert any(line.startswith(f"broken: {sort.folder} of") for line in verify(other))
    other.close()
    for data, code in (
        (b"<html>", sort.code),
        (b"", sort.code),
        (WEBM + bytes(sort.most), "too_large"),
    ):
        with pytest.raises(Refused) as refusal:
            store(hand.workshop, data)
        assert refusal.value.reason_code == code
    for wrong in ("../hollet.sqlite", "f" * 64):
        with pytest.raises(NotFound):
            recordings.path_of(hand.workshop, sort, wrong)
    with pytest.raises(NotFound):
        hand.write(entry["kind"], step="bore", **{key: "f" * 64}, **said)


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"seconds": 20.5}, "less than or equal to 20"),
        ({"part": "piston"}, "piston"),
        ({"attempt": "nobody"}, "nobody"),
        ({"at_s": 3.0}, "say of which attempt"),
    ],
)
def test_a_clip_is_of_what_there_is(hand, wrong, said):
    """Twenty seconds at most; no part, no attempt and no second that this build does not have."""
    name = recordings.store_clip(hand.workshop, WEBM).clip
    clip = {"clip": name, "what": "It knocks", "seconds": 12.0, "step": "bore"}
    with pytest.raises((NotFound, Refused, ValidationError)) as refusal:
        hand.write("clip", **clip | wrong)
    assert said in str(refusal.value)
    hand.write("clip", **clip)
    shown = builds.bench(hand.workshop, hand.build, "bore").base.clips
    assert [(c.clip, c.seconds, c.at_s) for c in shown] == [(name, 12.0, None)]
    hand.write("clip", **clip | {"step": "ring"})  # the same once more, at another step
    view = takedown.takedown(hand.workshop, hand.build)
    assert [(c.clip, c.what) for c in view.clips] == [(name, "It knocks")]


def test_verify_looks_at_the_photos(hand):
    """A photo file that is gone or changed is told, and only then."""
    stored = photos.store_photo(hand.workshop, photo())
    hand.write("photo", **stored.model_dump(), what="front cover")
    assert "ok: photos of Job, 1" in verify(hand.workshop)
    photos.photo_path(hand.workshop, stored.photo).write_bytes(b"other")
    assert any(
        line.startswith("broken: photos of Job, 1 of 1 missing or changed")
        for line in verify(hand.workshop)
    )


def test_pins_are_numbered_once(hand):
    """Two pins of one number, or pins on a photo that is not there."""
    stored = photos.store_photo(hand.workshop, photo())
    twins = [{"n": 1, "x": 0, "y": 0}, {"n": 1, "x": 1, "y": 1}]
    with pytest.raises(Refused):
        hand.write("photo", **stored.model_dump(), what="x", pins=twins)
    for entry in (
        {"kind": "pinned", "pins": []},
        {"kind": "photo", "width": 1, "height": 1, "what": "never sent"},
    ):
        with pytest.raises(NotFound):
            hand.write(**entry, photo="0" * 64)


def test_the_drawn_pictures_are_photos(workshop):
    """Each picture of the demo can be kept."""
    assert len({photos.store_photo(workshop, picture(name)).photo for name in PICTURES}) == len(
        PICTURES
    )


PEER = "192.0.2.33"


def test_pairing(workshop):
    """A code pairs one device, once; its token is known till it is revoked; only its hash is
    stored.
    """
    pairing = Pairing(workshop, "192.0.2.7:8765")
    shown = pairing.new_code()
    assert shown.url == f"http://192.0.2.7:8765/pair?code={shown.code}"
    assert shown.qr.startswith("M")
    paired = pairing.pair(shown.code, "phone of MK", "MK", PEER)
    assert devices.known_device(workshop, paired.token).name == "phone of MK"
    assert paired.token not in (workshop.store.folder / "hollet.sqlite").read_bytes().decode(
        "latin-1"
    )
    with pytest.raises(Refused):
        pairing.pair(shown.code, "another", "MK", PEER)
    devices.revoke(workshop, paired.device.id, "MK")
    assert devices.known_device(workshop, paired.token) is None
    assert [(d.name, d.revoked is None) for d in devices.all_devices(workshop)] == [
        ("phone of MK", False)
    ]
    with pytest.raises(NotFound):
        devices.revoke(workshop, "nobody", "MK")


def test_when_a_code_pairs_nobody(workshop):
    """After five wrong tries from an address no code is right from there, and after ten minutes
    nowhere.
    """
    now = datetime(2026, 3, 1, tzinfo=UTC)
    workshop.clock = lambda: now
    pairing = Pairing(workshop, "192.0.2.7:8765")
    code = pairing.new_code().code
    wrong = "000000" if code != "000000" else "111111"
    for _ in range(5):
        with pytest.raises(Refused):
            pairing.pair(wrong, "x", "MK", PEER)
    with pytest.raises(Refused, match="too many wrong codes"):
        pairing.pair(code, "x", "MK", PEER)
    assert pairing.pair(code, "another", "MK", "192.0.2.34").device.name == "another"
    code = pairing.new_code().code
    now += timedelta(minutes=10, seconds=1)
    with pytest.raises(Refused) as refusal:
        pairing.pair(code, "x", "MK", PEER)
    assert refusal.value.reason_code == "bad_code"


def test_a_vehicle_across_its_builds(hand):
    """The newest answer of any of its builds counts; two vehicles in one bay are told."""
    second = make_build(
        hand.workshop, sheets=["small"], name="Other job", vehicle="One", about="too", who="TR"
    )
    stranger = make_build(
        hand.workshop, sheets=["small"], name="Third", vehicle="Three", about="too", who="TR"
    )
    hand.write("vehicle stands", rolls=True, steers=True, bay="bay 1")
    Hand(hand.workshop, second).write("vehicle stands", rolls=False)
    cards = {c.name: c for c in builds.cards(hand.workshop)}
    assert cards["Job"].can == cards["Other job"].can == ("does not roll", "steers")
    Hand(hand.workshop, stranger).write("vehicle stands", bay="Bay 1")
    cards = {c.name: c for c in builds.cards(hand.workshop)}
    assert cards["Third"].clash == "One was said to stand in Bay 1 too"
    assert "Three" in cards["Job"].clash
    assert takedown.support(hand.workshop, hand.build).vehicle.clash == cards["Job"].clash


def test_the_order_back_is_taken_once(hand):
    """The same id twice is one plan edit; the plan can be rebuilt from its log."""
    hand.write("removed", removal="fan", what="Fan")
    entry = hand.workshop.new_id()
    for _ in range(2):
        view = takedown.take_rebuild(hand.workshop, hand.build, Choices(), who="MK", entry_id=entry)
    assert view.taken
    assert [line.title for line in view.lines if line.from_words == "Fan"] == ["Fan: back on"]
    assert all(line.startswith("ok") for line in verify(hand.workshop))


def test_two_devices_at_one_step(hand):
    """The second bag for a step that moved on since that screen looked is refused, with what is
    newer.
    """
    line = [{"count": 6, "size": "M10"}]
    hand.write("bagged", step="head_out", bag=1, lines=line)
    with pytest.raises(Conflict) as late:
        Hand(hand.workshop, hand.build, "TR").write(
            "bagged", seen=1, step="head_out", bag=2, lines=line
        )
    assert late.value.newer


def test_stuck_with_the_age_of_each_try(hand):
    """How long it has soaked is told from the clock."""
    hand.write("tried", step="head_out", part="Bolt 3", rung="soak", time="60 min")
    then = hand.workshop.clock() + timedelta(hours=3)
    hand.workshop.clock = lambda: then
    desk = takedown.stuck(hand.workshop, hand.build, "head_out", "bolt 3", StuckFacts())
    soak = next(r for r in desk.rungs if r.id == "soak")
    assert soak.words.startswith("soaking for 3.0 h")
    with pytest.raises(NotFound):
        takedown.stuck(hand.workshop, hand.build, "nothing", "bolt 3", StuckFacts())


def test_schema_is_the_newest_migration():
    """The constant that spares the start its alembic names the newest migration file."""
    from importlib.resources import files

    versions = sorted(
        f.name[:4]
        for f in files("hollet.store.migrations").joinpath("versions").iterdir()
        if f.name[:1].isdigit()
    )
    assert versions[-1] == SCHEMA
