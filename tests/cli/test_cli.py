"""The command line: compute with its exit codes, serve's refusals, backup, restore,
verify, demo.
"""

import json
import socket
import sqlite3

import pytest
from typer.testing import CliRunner

from hollet.cli.main import app, data_folder
from hollet.core.catalogue import names

run = CliRunner().invoke


def test_list():
    """All calculations by name."""
    result = run(app, ["compute", "--list"])
    assert result.output.split() == names()


@pytest.mark.parametrize(
    ("name", "given", "code", "reason"),
    [
        ("parse_quantity", '{"text": "3.5 thou"}', 0, None),
        ("parse_quantity", '{"text": "2 pt"}', 2, "unit_ambiguous"),
        ("parse_quantity", "{", 2, "bad_input"),
        ("parse_quantity", "[]", 2, "bad_input"),
        ("nothing", "{}", 2, "not_found"),
        ("decide", "{}", 2, "not_a_finite_number"),
    ],
)
def test_compute(name, given, code, reason):
    """JSON in, JSON out; a refusal is JSON too, with exit code 2."""
    result = run(app, ["compute", name], input=given)
    answer = json.loads(result.output)
    assert result.exit_code == code
    if reason:
        assert (answer["refuse"], answer["reason_code"]) == (True, reason)
        assert answer["message"]
    else:
        assert answer["nominal"]["value"] == 0.0889


@pytest.mark.parametrize(
    ("step", "code", "says"),
    [
        ("", 0, "Pump job: every law is kept"),
        ('do = "Grind the stud off."', 1, "Look: it makes grit, and does not say so"),
        ('do = "Take the petrol pipe off."', 2, "Look: fuel, and no caution says so"),
        ("gate = 3", 2, "this key is not known here: check its spelling"),
        ('do = "x', 2, "not readable as TOML"),
    ],
)
def test_sheet_check(tmp_path, step, code, says):
    """0 where every law is kept, 1 where one is broken, 2 where the sheet would be refused; each
    breach with its line and what would be right.
    """
    file = tmp_path / "pump.toml"
    head = '[sheet]\nid = "pump"\ntitle = "Pump job"\nabout = "A pump."\n'
    body = '\n[[step]]\nid = "look"\nstage = "plan"\nkind = "check"\ntitle = "Look"\n'
    words = step if step.startswith("do") else f'do = "Look at it."\n{step}'
    file.write_text(head + body.replace("plan", "take_down") + words + "\n", "utf-8")
    result = run(app, ["sheet", "check", str(file)])
    assert result.exit_code == code
    assert says in result.output + (result.stderr or "")
    if code == 1:
        assert "line 6, step.1.dusty" in result.output
        assert "Right: dusty = true" in result.output
    assert ("SAFETY" in result.output) == (says.endswith("no caution says so"))


def test_sheet_check_of_no_file(tmp_path):
    """A file that is not there, or is no text: one sentence, and no trace."""
    bad = tmp_path / "bad.toml"
    bad.write_bytes(b"\xff\xfe\x00")
    for file in (tmp_path / "none.toml", bad):
        result = run(app, ["sheet", "check", str(file)])
        assert result.exit_code == 1
        assert "cannot be read" in result.output + (result.stderr or "")


def test_demo_made_once_and_verified(tmp_path):
    """Made once, kept; verify finds it whole; backup and restore go round."""
    data = tmp_path / "demo"
    for _ in range(2):
        assert run(app, ["demo", "--only-make", "--data", str(data)]).exit_code == 0
    assert "ok: log of One: engine out, top end" in run(app, ["verify", "--data", str(data)]).output
    copy = tmp_path / "copy.sqlite"
    assert run(app, ["backup", str(copy), "--data", str(data)]).exit_code == 0
    assert run(app, ["restore", str(copy), "--data", str(data)]).exit_code == 0
    assert run(app, ["restore", str(tmp_path / "none"), "--data", str(data)]).exit_code == 1


def test_verify_fails_on_a_doctored_log(tmp_path):
    """A changed word in the log is found, with exit code 1."""
    data = tmp_path / "demo"
    run(app, ["demo", "--only-make", "--data", str(data)])
    with sqlite3.connect(data / "hollet.sqlite") as connection:
        connection.execute("DROP TRIGGER entry_no_update")
        connection.execute("UPDATE entry SET who='XX' WHERE seq=40")
    result = run(app, ["verify", "--data", str(data)])
    assert result.exit_code == 1
    assert "at line 40" in result.output


def test_busy_port_is_said(tmp_path):
    """A busy port is one sentence with what to do."""
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        for command in (["serve"], ["demo"]):
            result = run(app, [*command, "--port", str(port), "--data", str(tmp_path)])
            assert result.exit_code == 1
            assert f"--port {port + 1}" in result.output


def test_newer_database_is_said(tmp_path):
    """A database of a newer Hollet is refused in a sentence."""
    run(app, ["demo", "--only-make", "--data", str(tmp_path / "d")])
    with sqlite3.connect(tmp_path / "d" / "hollet.sqlite") as connection:
        connection.execute("UPDATE alembic_version SET version_num='9999'")
    result = run(app, ["serve", "--port", "0", "--data", str(tmp_path / "d")])
    assert result.exit_code == 1
    assert "newer Hollet" in result.output


def test_data_folder(monkeypatch, tmp_path):
    """The option, else HOLLET_DATA, else the user's own share folder."""
    monkeypatch.setenv("HOLLET_DATA", str(tmp_path / "env"))
    assert data_folder(tmp_path / "x") == tmp_path / "x"
    assert data_folder(None) == tmp_path / "env"
    monkeypatch.delenv("HOLLET_DATA")
    assert data_folder(None).parts[-3:] == (".local", "share", "hollet")


def test_openapi_is_printed():
    """The schema can be printed without any data."""
    assert json.loads(run(app, ["openapi"]).output)["info"]["title"] == "Hollet"
