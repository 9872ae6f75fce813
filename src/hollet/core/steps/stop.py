"""When the key has to be turned back: deadlines, what was seen, pressure and heat, silence."""

from collections.abc import Sequence
from itertools import pairwise

from hollet.core.entries import AttemptStarted, Entry, RunSample
from hollet.core.limits import Limit
from hollet.core.quantities.quantity import Measured, decimal_text, round9
from hollet.core.running.watch import STALE_S, Seen, oil_state
from hollet.core.steps.attempt import Deadline

__all__ = ["ASKED_S", "deadlines_of", "is_enough", "oil_of", "short_words", "stop_of"]

ASKED_S = 5.0
"""How long a figure that is too old is asked for before it is a stop."""


def oil_of(sample: RunSample) -> float | None:
    """Oil pressure in kPa as it counts: one that is asked about counts for nothing."""
    return (
        sample.oil.figure("pressure") if sample.oil is not None and sample.asked is None else None
    )


def is_enough(sample: RunSample, wanted_kpa: float | None) -> bool:
    oil = oil_of(sample)
    return (
        wanted_kpa is not None and oil is not None and oil > 0 and round9(oil) >= round9(wanted_kpa)
    )


def deadlines_of(
    start: Entry[AttemptStarted],
    due: float | None,
    showed: float | None,
    pressure: Limit | None,
    samples: Sequence[RunSample],
) -> tuple[Deadline, ...]:
    found = []
    if due is not None:
        asked = f" of {pressure.lo} {pressure.unit}" if pressure and pressure.lo else ""
        met = showed is not None and round9(showed) <= round9(due)
        found.append(
            Deadline(
                at_s=due,
                kind="pressure",
                what=f"oil pressure{asked} or lamp out",
                met=met,
                reason=f"No oil pressure{asked} entered by {decimal_text(due)} s: key off",
            )
        )
        read = [s.t for s in samples if oil_of(s) is not None or s.lamp_out]
        if met and read:
            old = max(max(read), due) + STALE_S
            found.append(
                Deadline(
                    at_s=old + ASKED_S,
                    asked_from=old,
                    kind="reading",
                    what="oil pressure, read again",
                    reason="No reading of the oil pressure for "
                    f"{decimal_text(STALE_S + ASKED_S)} s: key off",
                )
            )
    limit = start.body.limit_s
    found.append(
        Deadline(
            at_s=limit,
            kind="end",
            what="end of the time allowed",
            reason=f"The time allowed, {_clock(limit)}, is over: key off",
        )
    )
    return tuple(sorted(found, key=lambda d: d.at_s))


def _clock(seconds: float) -> str:
    return (
        f"{decimal_text(seconds, 0 if seconds == int(seconds) else 1)} s"
        if seconds < 90
        else f"{decimal_text(seconds / 60, 0 if seconds % 60 == 0 else 1)} min"
    )


SEEN_WORDS = {
    "fire": "Fire: key off, people away, extinguisher at the foot of it",
    "fuel leak": "Fuel leak: key off, no spark, extinguisher at hand",
    "leak": "Leak seen: key off and look",
}


def stop_of(
    samples: list[RunSample],
    deadlines: tuple[Deadline, ...],
    turned: float | None,
    coolant: Limit | None,
    wanted: float | None,
    due: float | None,
    heard: Sequence[tuple[float, str]] = (),
) -> tuple[str | None, float | None]:
    """The first reason to stop among what was entered, and its moment; whole samples are judged,
    and a deadline that passed stays passed.
    """
    hottest = coolant.figure("hi") if coolant else None
    found = list(heard)
    seen = Seen()
    for s in samples:
        seen = seen.with_(
            s.t, s.rpm.figure("speed") if s.rpm is not None else None, oil_of(s), s.lamp_out
        )
        if s.seen is not None:
            found.append((s.t, SEEN_WORDS.get(s.seen, f"{s.seen.capitalize()}: key off and look")))
        hot = s.coolant.figure("temperature") if s.coolant is not None else None
        if (
            coolant is not None
            and hottest is not None
            and hot is not None
            and round9(hot) > round9(hottest)
        ):
            found.append(
                (
                    s.t,
                    f"Coolant {short_words(s.coolant)}, limit {coolant.hi} {coolant.unit}: key off",
                )
            )
        if due is not None and wanted is not None and round9(s.t) >= round9(due):
            state = oil_state(seen, s.t, lambda _: wanted, STALE_S)
            if state == "no_pressure" and seen.oil is not None:
                found.append(
                    (
                        s.t,
                        (
                            f"Oil pressure {decimal_text(seen.oil / 100, 1)} bar, asked "
                            f"{decimal_text(wanted / 100, 1)}: key off"
                        ),
                    )
                )
    until = turned if turned is not None else max((s.t for s in samples), default=0.0)
    # what had to be shown by then is missing at that very second; the time allowed may be used to
    # its end
    found += [
        (d.at_s, d.reason)
        for d in deadlines
        if not d.met
        and (
            round9(d.at_s) < round9(until) or (d.kind != "end" and round9(d.at_s) == round9(until))
        )
    ]
    if turned is not None or samples:
        found += _gaps(samples, due, until)
    if not found:
        return None, None
    at, reason = min(
        found, key=lambda f: f[0]
    )  # what was seen or read comes before what is missing
    return reason, at


def _gaps(samples: Sequence[RunSample], due: float | None, until: float) -> list[tuple[float, str]]:
    """Stretches in which nobody read the oil pressure for too long, once it had to be there."""
    read = sorted(s.t for s in samples if oil_of(s) is not None or s.lamp_out)
    if due is None or not read:
        return []
    most = STALE_S + ASKED_S
    marks = [max(due, read[0]), *(t for t in read if t > due), until]
    return [
        (a + most, f"No reading of the oil pressure for {decimal_text(most)} s: key off")
        for a, b in pairwise(marks)
        if round9(b - a) > most
    ]


def short_words(figure: Measured | None) -> str:
    return "" if figure is None else f"{figure.value} {figure.unit}"
