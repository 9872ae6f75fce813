"""The rehearsal by its address: dealt, played, judged; nothing is written anywhere."""

import pytest

from hollet.services.workshop import Workshop
from hollet.web.app import create_app
from tests.services.conftest import stock
from tests.web.support import from_here


@pytest.fixture
def client(tmp_path):
    workshop = Workshop(tmp_path)
    build = stock(workshop)
    with from_here(create_app(workshop)) as made:
        made.build = build
        yield made
    workshop.close()


def test_a_start_is_dealt_and_judged_and_no_log_grows(client):
    head = client.get(f"/api/builds/{client.build}").json()["frame"]["head"]
    dealt = client.post("/api/rehearsal/deal", json={"fault": "no_pressure"}).json()
    assert "fault" not in dealt
    acts = [{"at_s": 3.0, "what": "oil"}, {"at_s": 8.1, "what": "key"}]
    edit = {"seed": dealt["seed"], "fault": "no_pressure", "acts": acts}
    played = client.post("/api/rehearsal/played", json=edit).json()
    assert (played["fault"], played["late_s"]) == ("no_pressure", 3.1)
    assert client.get(f"/api/builds/{client.build}").json()["frame"]["head"] == head


def test_a_seed_is_played_again(client):
    first = client.post("/api/rehearsal/deal", json={}).json()
    again = client.post("/api/rehearsal/deal", json={"seed": first["seed"]}).json()
    assert first == again


def test_the_starts_by_name(client):
    names = client.get("/api/rehearsal/faults").json()
    assert sum(name["fault"] for name in names) == 7


@pytest.mark.parametrize(
    ("path", "edit", "status"),
    [
        ("deal", {"fault": "gremlins"}, 404),
        ("played", {"seed": 1, "fault": "gremlins", "acts": []}, 404),
        ("deal", {"seed": -1}, 422),
        ("played", {"seed": 1, "acts": [{"at_s": 1, "what": "prayed"}]}, 422),
        ("played", {"seed": 1, "acts": [{"at_s": -1, "what": "oil"}]}, 422),
    ],
)
def test_what_cannot_be_played_is_said(client, path: str, edit: dict, status: int):
    got = client.post(f"/api/rehearsal/{path}", json=edit)
    assert got.status_code == status
    assert got.json()["message"]
