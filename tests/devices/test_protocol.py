"""The line protocol: what is a line, what is damaged; nothing is taken from the damaged."""

import json
import random
from pathlib import Path

import jsonschema
import pytest

from hollet.core.errors import Refused
from hollet.devices.protocol import LONGEST, encode, line_schema, read_line
from hollet.devices.standins.gauge import GAUGES, Gauge
from hollet.devices.standins.wrench import Wrench

HELLO = b'{"say":"hello","hollet":1,"id":"M1-7","name":"M","measures":"length","unit":"mm"}'
READ = b'{"say":"read","value":"71.984","unit":"mm","pressed":true}'


@pytest.mark.parametrize("line", [HELLO, READ, b'{"say":"here","battery":71}', b'{"say":"bye"}'])
def test_a_line_is_read(line):
    said = read_line(line)
    assert json.loads(encode(said))["say"] == json.loads(line)["say"]


@pytest.mark.parametrize(
    "line",
    [
        b"",
        b"{",
        b"\xff\xfe",
        b"[]",
        b"null",
        b'{"say":"fire"}',
        b'{"say":"read","value":71.984,"unit":"mm"}',
        b'{"say":"read","value":"71,984","unit":"mm"}',
        b'{"say":"read","value":"1e3","unit":"mm"}',
        b'{"say":"read","value":"NaN","unit":"mm"}',
        b'{"say":"read","value":"1","unit":""}',
        b'{"say":"read","value":"1"}',
        b'{"say":"read","value":"1","unit":"mm","value":"2"}',
        b'{"say":"read","value":"1","unit":"mm","more":1}',
        b'{"say":"here","battery":101}',
        b'{"say":"samples","n":0,"torque":[1.0,2.0],"angle":[1.0]}',
        b'{"say":"samples","n":0,"torque":[NaN],"angle":[1.0]}',
        b'{"say":"samples","n":0,"torque":[1e9],"angle":[1.0]}',
        b'{"say":"hello","hollet":2,"id":"x","name":"M","measures":"length","unit":"mm"}',
        b'{"say":"trouble","words":"' + b"x" * LONGEST + b'"}',
        b"[" * 9000,
    ],
)
def test_what_is_damaged_is_refused(line):
    with pytest.raises(Refused) as refusal:
        read_line(line)
    assert refusal.value.reason_code == "damaged_line"


def test_ten_thousand_damaged_lines_give_nothing():
    """A bit flipped, a byte lost or one too many: either refused, or the very same words as whole
    ones would be; never a crash, and never another figure taken for the one that was sent.
    """
    noise, taken = random.Random(7), 0
    for _ in range(10_000):
        line = bytearray(noise.choice([HELLO, READ]))
        at = noise.randrange(len(line))
        match noise.randrange(3):
            case 0:
                line[at] ^= 0x80
            case 1:
                del line[at:]
            case _:
                line[at:at] = bytes([noise.choice(b'"{}\\\x00\xff')])
        try:
            said = read_line(bytes(line))
        except Refused:
            continue
        taken += 1
        assert said.say in ("hello", "read")
        assert getattr(said, "value", "71.984") == "71.984"
    assert taken < 200


def test_every_line_of_every_stand_in_fits_the_schema():
    """Checked by another reader than ours."""
    schema = line_schema()
    wrench = Wrench("W", 3)
    wrench.do("turn 30 from 80")
    spoken = [wrench.tick(0.02) for _ in range(80)]
    for kind in GAUGES:
        gauge = Gauge(kind, f"{kind}-1", 3)
        for command in ("zero", "set 1", "press", "battery 40", "off"):
            gauge.do(command)
        spoken.append(gauge.tick(0.5))
    lines = b"".join(spoken).splitlines()
    assert len(lines) > 90
    for line in lines:
        jsonschema.validate(json.loads(line), schema)
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate({"say": "read", "value": 1, "unit": "mm"}, schema)


def test_the_schema_in_the_documentation_is_this_one():
    written = json.loads(Path("docs/instrument-line.schema.json").read_text("utf-8"))
    assert written == json.loads(json.dumps(line_schema()))
