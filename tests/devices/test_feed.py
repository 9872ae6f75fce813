"""What is heard of instruments: who is there, what may be taken, and all the ways it goes wrong."""

import gzip

import pytest

from hollet.devices.feed import Feed, Spot
from hollet.devices.protocol import Hello, Here, Read, Zeroed, encode
from hollet.devices.standins.gauge import Gauge
from hollet.devices.standins.wrench import Wrench

SPOT = Spot("build", "step", "joint", "w6")
PAIRED = "a token"


class Ears(Feed):
    """A feed in a time of its own, whose traces lie in a list."""

    def __init__(self) -> None:
        self.clock, self.kept = 100.0, []

        def keep(data: bytes) -> str:
            self.kept.append(data)
            return f"{len(self.kept):064x}"

        tools = {"W6": "w6", "D2": "d2"}
        super().__init__(
            lambda: self.clock,
            lambda: f"2026-03-01T08:00:{self.clock:06.3f}Z",
            lambda token: token == PAIRED,
            keep,
            tools.get,
        )

    def says(self, key: str, *lines) -> None:
        """Hand over lines, each of which is to be taken in."""
        for line in lines:
            raw = line if isinstance(line, bytes) else encode(line)
            assert self.heard(key, raw.rstrip(b"\n")) is None

    def hears(self, key: str, standin, ticks: int = 1, seconds: float = 0.02) -> None:
        """Let a stand-in live for a while."""
        for _ in range(ticks):
            self.clock += seconds
            self.says(key, *standin.tick(seconds).splitlines())

    def last(self):
        """What was sent last."""
        return list(self.events().values())[-1]


@pytest.fixture
def ears() -> Ears:
    return Ears()


def gauge(**own) -> Hello:
    return Hello(
        say="hello", hollet=1, id="D2", name="Dial", measures="length", unit="mm",
        lo="-10", hi="10", **own,
    )  # fmt: skip


def read(value: str, unit: str = "mm", **own) -> Read:
    return Read(say="read", value=value, unit=unit, **{"pressed": True, **own})


def test_what_its_button_sends_waits_for_the_tool_that_it_is(ears: Ears):
    key = ears.open(local=True)
    ears.watch("screen", Spot("b", "s", "r", "d2"))
    ears.says(key, gauge(), read("0.041"))
    event = ears.last()
    assert (event.value.value.value, event.value.tool, event.value.trouble) == ("0.041", "d2", "")
    assert event.spots == (Spot("b", "s", "r", "d2"),)
    assert '"value":"0.041"' in event.value.raw
    ears.says(key, read("0.050", pressed=False))
    assert len(ears.events()) == 1


@pytest.mark.parametrize(
    ("before", "sent", "words"),
    [
        ([gauge(zeroes=True)], read("0.04"), "not zeroed"),
        ([gauge()], read("0.0016", "in"), "reads in mm"),
        ([gauge()], read("5", "N·m"), "is no length"),
        ([gauge()], read("5", "parrots"), "is no length"),
        ([gauge()], read("12.5"), "it reads -10 to 10 mm"),
        ([gauge()], read("0.04", stable=False), "not at rest"),
        ([gauge(), Here(say="here", battery=4)], read("0.04"), "battery is empty"),
    ],
)
def test_what_cannot_be_believed_is_held_and_says_why(ears: Ears, before, sent, words):
    key = ears.open(local=True)
    ears.says(key, *before, sent)
    assert words in ears.last().value.trouble
    if words == "not zeroed":
        ears.says(key, Zeroed(say="zeroed"), sent)
        assert ears.last().value.trouble == ""
        ears.says(key, gauge(zeroes=True), sent)  # said again, its hello changes nothing
        assert ears.last().value.trouble == ""
        ears.close(key)
        ears.says(ears.open(local=True), gauge(zeroes=True), sent)
        assert words in ears.last().value.trouble  # plugged in anew, it is not zeroed any more


def test_two_that_say_they_are_the_same_are_both_held(ears: Ears):
    one, two = ears.open(local=True), ears.open(local=True)
    ears.says(one, gauge())
    ears.says(two, gauge(), read("0.04"))
    assert "two devices" in ears.last().value.trouble
    ears.says(one, read("0.05"))
    assert "two devices" in ears.last().value.trouble
    ears.close(one)
    ears.says(two, read("0.06"))
    assert ears.last().value.trouble == ""


def test_a_stranger_of_the_network_is_cut_off(ears: Ears):
    key = ears.open(local=False)
    assert "not paired" in ears.heard(key, encode(gauge()))
    assert "not paired" in ears.heard(key, encode(gauge(token="guessed")))
    assert ears.heard(key, encode(gauge(token=PAIRED))) is None


@pytest.mark.parametrize("first", [b"POST / HTTP/1.1", b"{}", encode(read("1")), b"\x16\x03\x01"])
def test_what_does_not_say_hello_first_is_cut_off(ears: Ears, first):
    """No web page that sends a form to the port passes for an instrument."""
    key = ears.open(local=True)
    assert ears.heard(key, first) == "say hello first"
    assert ears.events() == {}


def test_a_unit_that_does_not_fit_and_too_many_devices_are_cut_off(ears: Ears):
    key = ears.open(local=True)
    assert "parrots is no length" in ears.heard(
        key, encode(gauge().model_copy(update={"unit": "parrots"}))
    )
    for _ in range(64):
        ears.open(local=True)
    assert "too many devices" in ears.heard(key, encode(gauge()))


def test_one_that_says_in_the_middle_that_it_is_another_loses_nothing(ears: Ears):
    key, wrench = ears.open(local=True), Wrench("W6", 3)
    ears.hears(key, wrench)
    wrench.do("pull 50")
    ears.hears(key, wrench, ticks=5)
    ears.says(key, gauge())
    assert "said that it is another in the middle" in ears.last().value.trouble
    assert ears.last().value.device == "W6"


def test_damaged_lines_are_counted_and_not_taken(ears: Ears):
    key = ears.open(local=True)
    standin = Gauge("dial", "D2", 5)
    ears.hears(key, standin)
    standin.do("garbage 30")
    ears.hears(key, standin)
    (line,) = ears.look()
    assert 0 < line.damaged <= 30
    assert "damaged" in line.trouble
    assert ears.events() == {}
    standin.do("garbage 60")
    answers = [ears.heard(key, raw) for raw in standin.tick(0.02).splitlines()]
    assert "too many damaged lines" in answers


def test_many_spots_or_none_are_told(ears: Ears):
    key = ears.open(local=True)
    ears.says(key, gauge(), read("0.04"))
    assert ears.last().spots == ()
    ears.watch("one", Spot("b", "s", "r1", "d2"))
    ears.watch("two", Spot("b", "s", "r2", "d2"))
    ears.says(key, read("0.05"))
    assert len(ears.last().spots) == 2
    ears.watch("two", Spot("b", "s", "r1", "d2"))
    ears.says(key, read("0.06"))
    assert len(ears.last().spots) == 1  # two screens at one spot are one spot
    ears.watch("one", None)
    ears.watch("two", None)
    ears.says(key, read("0.07"))
    assert ears.last().spots == ()


def test_a_pull_comes_with_all_its_samples(ears: Ears):
    key, wrench = ears.open(local=True), Wrench("W6", 3)
    ears.hears(key, wrench)
    wrench.do("turn 90 from 80")
    ears.hears(key, wrench, ticks=120)
    pull = ears.last().value.pull
    assert pull is not None
    assert not pull.lost
    assert len(pull.angle) == len(pull.torque) > 2000
    rows = gzip.decompress(ears.kept[0]).decode().splitlines()
    assert rows[1] == "angle_deg,torque_Nm"
    assert len(rows) == len(pull.torque) + 2
    assert max(pull.torque) == pytest.approx(float(ears.last().value.value.value), abs=0.2)


def test_a_wrench_unplugged_at_any_moment_loses_nothing(ears: Ears):
    """Cut off after each tick of a pull: what came is kept, and cannot be taken for a whole one."""
    for ticks in range(1, 110, 9):
        wrench = Wrench("W6", ticks)
        key = ears.open(local=True)
        ears.hears(key, wrench)
        wrench.do("turn 90 from 80")
        ears.hears(key, wrench, ticks=ticks)
        before = len(ears.events())
        ears.close(key)
        (*_, event) = ears.events().values()
        if len(ears.events()) == before:
            assert ticks > 104  # it had ended by itself
        else:
            assert "cut off in the middle of a pull" in event.value.trouble
            assert event.value.pull.lost


def test_silence_in_the_middle_is_said_after_two_seconds(ears: Ears):
    key, wrench = ears.open(local=True), Wrench("W6", 3)
    ears.hears(key, wrench)
    wrench.do("pull 50")
    ears.hears(key, wrench, ticks=5)
    ears.clock += 1.9
    ears.look()
    assert ears.events() == {}
    ears.clock += 0.2
    ears.look()
    assert "fell silent in the middle of a pull" in ears.last().value.trouble


@pytest.mark.parametrize("which", ["begins", "samples", "last samples"])
def test_a_damaged_line_of_a_pull_is_never_a_whole_pull(ears: Ears, which: str):
    key, wrench = ears.open(local=True), Wrench("W6", 3)
    ears.hears(key, wrench)
    wrench.do("turn 40 from 80")
    lines = [line for _ in range(80) for line in wrench.tick(0.02).splitlines()]
    kind = b'"begins"' if which == "begins" else b'"samples"'
    found = [k for k, line in enumerate(lines) if kind in line]
    at = found[-1] if which == "last samples" else found[0]
    lines[at] = lines[at][:-9]
    ears.says(key, *lines)
    value = ears.last().value
    assert value.pull.lost if value.pull is not None else "did not come" in value.trouble


def test_lost_samples_show(ears: Ears):
    key, wrench = ears.open(local=True), Wrench("W6", 3)
    ears.hears(key, wrench)
    wrench.do("turn 40 from 80")
    ears.hears(key, wrench, ticks=20)
    wrench.tick(0.02)  # spoken, and never heard
    ears.hears(key, wrench, ticks=80)
    assert ears.last().value.pull.lost


def test_what_was_sent_lives_for_ten_minutes(ears: Ears):
    key = ears.open(local=True)
    ears.says(key, gauge(), read("0.04"))
    ears.clock += 599
    assert len(ears.events()) == 1
    ears.clock += 2
    assert ears.events() == {}
