"""Open to the workshop network: paired devices only, own address only, no floods."""

import io

import pytest
from fastapi.testclient import TestClient
from PIL import Image
from starlette.websockets import WebSocketDisconnect

from hollet.services.workshop import Workshop
from hollet.web.access import COOKIE, Bucket
from hollet.web.app import create_app
from tests.services.conftest import stock

ADDRESS = "192.0.2.7:8765"


@pytest.fixture
def app(tmp_path):
    """A Hollet that is open to the workshop network."""
    workshop = Workshop(tmp_path)
    stock(workshop)
    made = create_app(workshop, address=ADDRESS)
    yield made
    workshop.close()


def here(app) -> TestClient:
    """This machine."""
    return TestClient(app, base_url="http://127.0.0.1:8765", client=("127.0.0.1", 50000))


def phone(app, host: str = ADDRESS) -> TestClient:
    """A phone in the workshop's network."""
    return TestClient(app, base_url=f"http://{host}", client=("192.0.2.33", 40000))


def pair(app, name: str = "phone of MK") -> TestClient:
    """A paired phone."""
    code = here(app).post("/api/devices/code").json()["code"]
    made = phone(app)
    answer = made.post("/api/pair", json={"code": code, "name": name, "who": "MK"})
    assert answer.status_code == 200
    assert "httponly" in answer.headers["set-cookie"].lower()
    assert "samesite=strict" in answer.headers["set-cookie"].lower()
    return made


def jpeg(size: int = 50) -> bytes:
    """A small photo."""
    out = io.BytesIO()
    Image.new("RGB", (size, size), "grey").save(out, "JPEG")
    return out.getvalue()


def test_a_phone_is_let_in_by_its_code_and_out_by_revoking(app):
    """Nothing before, all after, nothing again."""
    assert phone(app).get("/api/shop").status_code == 401
    paired = pair(app)
    assert paired.get("/api/shop").status_code == 200
    device = here(app).get("/api/devices").json()["devices"][0]
    here(app).post(f"/api/devices/{device['id']}/revoke", json={"who": "MK"})
    answer = paired.get("/api/shop")
    assert (answer.status_code, answer.json()["reason_code"]) == (401, "not_paired")


def test_a_phone_writes_and_sends_photos(app):
    """A paired phone logs a removal with its photo, and another device sees it."""
    paired = pair(app)
    build = paired.get("/api/shop").json()["builds"][0]["id"]
    stored = paired.post("/api/photos", files={"file": ("p.jpg", jpeg(), "image/jpeg")}).json()
    new_id = app.state.workshop.new_id
    for entry in (
        {"kind": "removed", "removal": "fan", "what": "Fan"},
        {"kind": "photo", **stored, "what": "Fan", "removal": "fan"},
    ):
        body = {
            "id": new_id(),
            "who": "MK",
            "bench_time": "2026-03-01T09:00:00Z",
            "seen": 0,
            "entry": entry,
        }
        assert paired.post(f"/api/builds/{build}/entries", json=body).status_code == 200
    view = here(app).get(f"/api/builds/{build}/takedown").json()
    assert [r["what"] for r in view["removals"]] == ["Fan"]
    picture = here(app).get(f"/api/photos/{view['photos'][0]['photo']}.jpg")
    assert picture.headers["content-type"] == "image/jpeg"
    assert phone(app).get(f"/api/photos/{stored['photo']}.jpg").status_code == 401


@pytest.mark.parametrize("host", ["evil.example", "192.0.2.8:8765", "127.0.0.1:8765", "localhost"])
def test_a_forged_host(app, host):
    """A host that is not Hollet's own, or this machine's own name from elsewhere, is refused even
    with a token.
    """
    paired = pair(app)
    answer = phone(app, host).get(
        "/api/shop", headers={"cookie": f"{COOKIE}={paired.cookies[COOKIE]}"}
    )
    assert (answer.status_code, answer.json()["reason_code"]) == (403, "foreign_host")


def test_a_foreign_page(app):
    """A page from elsewhere may not act through a paired phone."""
    for origin in ("http://evil.example", "http://192.0.2.7:9999", "null"):
        assert pair(app).get("/api/shop", headers={"origin": origin}).status_code == 403
    assert pair(app).get("/api/shop", headers={"origin": f"http://{ADDRESS}"}).status_code == 200


@pytest.mark.parametrize(
    "cookie", ["", "x", f"{COOKIE}=", f"{COOKIE}=guess", "a=b; c", f"{COOKIE}=\x7f"]
)
def test_forged_tokens(app, cookie):
    """No token, an empty one, a guess, a broken cookie."""
    assert phone(app).get("/api/shop", headers={"cookie": cookie}).status_code == 401


def test_devices_are_this_machines_business(app):
    """A phone, paired or not, neither sees devices nor makes codes."""
    for client in (phone(app), pair(app)):
        assert client.get("/api/devices").json()["reason_code"] == "this_machine_only"
        assert client.post("/api/devices/code").status_code == 403


def test_guessing_codes_is_slow(app):
    """Ten tries, then the door stays shut for a while."""
    guesser = phone(app)
    answers = [
        guesser.post("/api/pair", json={"code": "123456", "name": "x", "who": "MK"}).status_code
        for _ in range(14)
    ]
    assert set(answers[:10]) == {422}
    assert answers[-1] == 429


def test_the_live_channel_needs_a_token(app):
    """An unpaired phone hears nothing."""
    with (
        pytest.raises(WebSocketDisconnect),
        phone(app).websocket_connect(f"ws://{ADDRESS}/ws/live"),
    ):
        pass
    with pair(app).websocket_connect(f"ws://{ADDRESS}/ws/live") as socket:
        here(app).post(
            "/api/gear", json={"who": "MK", "name": "puller", "state": "owned", "version": 0}
        )
        assert socket.receive_json()["build"] == ""


def test_open_on_this_machine_only(tmp_path):
    """Without the option there is no code, and no other address."""
    workshop = Workshop(tmp_path)
    made = create_app(workshop)
    answer = here(made).post("/api/devices/code")
    assert (answer.status_code, answer.json()["reason_code"]) == (409, "this_machine_only")
    assert here(made).get("/api/devices").json() == {"address": None, "devices": []}
    assert phone(made).get("/api/shop").status_code == 403
    workshop.close()


def test_large_photos_are_stopped_at_the_door(app):
    """40 MB are refused by their announced length, in one sentence."""
    answer = here(app).post("/api/photos", content=b"", headers={"content-length": "40000000"})
    assert (answer.status_code, answer.json()["reason_code"]) == (413, "too_large")


def test_no_photo_is_a_refusal(app):
    """A text sent as a photo is a 422 with the field."""
    answer = here(app).post("/api/photos", files={"file": ("p.jpg", b"hello", "image/jpeg")})
    assert (answer.status_code, answer.json()["field"]) == (422, "file")


def test_bucket():
    """Three at once, then one a second; addresses apart."""
    now = [0.0]
    bucket = Bucket(1, 3, lambda: now[0])
    assert [bucket.take("a") for _ in range(4)] == [True, True, True, False]
    assert bucket.take("b")
    now[0] = 1.0
    assert [bucket.take("a"), bucket.take("a")] == [True, False]


def test_typed_fasteners(app):
    """The field is told what it means, or why not."""
    client = here(app)
    assert (
        client.post("/api/fasteners", json={"text": "1 m8x60 p8"}).json()["words"]
        == "1 × M8×60 at 8"
    )
    assert client.post("/api/fasteners", json={"text": "8"}).json()["ok"] is False


def test_security_headers_on_every_answer(app):
    """Pages, answers and refusals: self only, in no frame, as declared, and no referrer."""
    for answer in (
        here(app).get("/api/shop"),
        here(app).get("/"),
        here(app).get("/api/nothing"),
        phone(app).get("/api/shop"),
    ):
        assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
        assert "script-src 'self';" in answer.headers["content-security-policy"]
        assert answer.headers["x-content-type-options"] == "nosniff"
        assert answer.headers["referrer-policy"] == "no-referrer"


def test_bytes_are_counted_as_they_come(app):
    """A pairing takes 1 kB, whatever the caller says of the length of its body."""
    sent = 0

    def body():
        nonlocal sent
        for _ in range(10_000):
            sent += 1000
            yield b"x" * 1000

    answer = phone(app).post("/api/pair", content=body())
    assert answer.status_code == 413
    assert answer.json()["message"] == "what was sent is larger than 1 kB"


def test_a_revoked_device_hears_nothing_more(app):
    """Its open channel is closed as soon as it is revoked."""
    paired = pair(app)
    with paired.websocket_connect(f"ws://{ADDRESS}/ws/live") as socket:
        device = here(app).get("/api/devices").json()["devices"][0]
        here(app).post(f"/api/devices/{device['id']}/revoke", json={"who": "MK"})
        with pytest.raises(WebSocketDisconnect):
            socket.receive_json()


def test_a_stranger_cannot_kill_the_code(app):
    """Five wrong codes shut out the address that sent them; the owner's phone still pairs."""
    code = here(app).post("/api/devices/code").json()["code"]
    stranger = TestClient(app, base_url=f"http://{ADDRESS}", client=("192.0.2.66", 40000))
    wrong = "000000" if code != "000000" else "111111"
    for _ in range(6):
        stranger.post("/api/pair", json={"code": wrong, "name": "x", "who": "MK"})
    answer = stranger.post("/api/pair", json={"code": code, "name": "x", "who": "MK"})
    assert "too many wrong codes" in answer.json()["message"]
    mine = phone(app).post("/api/pair", json={"code": code, "name": "mine", "who": "MK"})
    assert mine.status_code == 200


def test_the_schema_is_not_for_strangers(app):
    """An unpaired device does not read what doors there are."""
    assert phone(app).get("/openapi.json").status_code == 401
    assert here(app).get("/openapi.json").status_code == 200


@pytest.mark.parametrize(
    "host", ["testserver", "127.0.0.1:8843@evil", "127.0.0.1:9999", "localhost.evil.example", ""]
)
def test_this_machine_by_its_exact_name(app, host):
    """Host and port as they are, nothing that merely begins like them."""
    assert here(app).get("/api/shop", headers={"host": host}).status_code == 403


@pytest.mark.parametrize("origin", ["https://127.0.0.1:8765", "http://evil//127.0.0.1:8765"])
def test_origin_is_compared_whole(app, origin):
    """Scheme, host and port, not what stands behind the last slashes."""
    assert here(app).get("/api/shop", headers={"origin": origin}).status_code == 403
