"""Log lines in words: what a person did, as the log and the band Written show it."""

from collections.abc import Callable
from typing import Any

from pydantic import BaseModel, ConfigDict

from hollet.core.book.beside import laid_words
from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.book.status import plan_of
from hollet.core.book.supports import KIND_WORDS
from hollet.core.book.tighten import act_verdict
from hollet.core.findings import DISPOSITIONS
from hollet.core.procedure.fasteners import fastener_words
from hollet.core.quantities.quantity import decimal_text, exact
from hollet.core.words import counted

__all__ = ["LogLine", "line_of"]


class LogLine(BaseModel):
    """One line of the log for the eye."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    seq: int
    time: str
    bench_time: str
    who: str
    kind: str
    step: str | None
    step_number: str
    text: str
    verdict: str = ""
    side: str | None = None
    verdict_words: str = ""
    assumed: bool = False
    struck_by: str | None = None
    struck_reason: str | None = None
    struck_time: str | None = None
    photo: str | None = None
    sound: str | None = None
    hash: str = ""
    strikable: bool = True


def line_of(state: BookState, entry: Entry) -> LogLine:
    """The line of one entry, struck or not."""
    plan = plan_of(state)
    step_id = getattr(entry.body, "step", None)
    step = plan.find_step(step_id) if step_id else None
    strike = state.struck.get(entry.id)
    verdict, side, words, assumed = "", None, "", False
    joint = plan.find_joint(getattr(entry.body, "joint", None))
    if entry.kind == "fastener" and joint is not None:
        judged = act_verdict(joint, entry)
        if judged is not None:
            verdict, side, words, assumed = (
                judged.verdict,
                judged.side,
                judged.words.split(",")[0],
                judged.assumed,
            )
    number = step.number if step else ("no longer in the plan" if step_id else "")
    return LogLine(
        id=entry.id,
        seq=entry.seq,
        time=entry.time,
        bench_time=entry.bench_time,
        who=entry.who,
        kind=entry.kind,
        step=step_id,
        step_number=number,
        text=_text(state, entry),
        verdict=verdict,
        side=side,
        verdict_words=words,
        assumed=assumed,
        struck_by=strike.who if strike else None,
        struck_reason=strike.body.reason if strike else None,
        struck_time=strike.time if strike else None,
        strikable=entry.kind not in ("strike", "plan edited") and strike is None,
        sound=entry.body.sound if entry.kind == "spoken" else None,
        photo=getattr(entry.body, "photo", None)
        if entry.kind in ("photo", "captured", "finding")
        else None,
    )


def _text(state: BookState, entry: Entry) -> str:
    body, kind = entry.body, entry.kind
    plan = plan_of(state)
    step = plan.find_step(getattr(body, "step", None) or "")
    title = step.title if step else getattr(body, "step", "") or ""
    if kind == "plan edited":
        if body.sheet is not None:
            return f"plan made from: {body.sheet.title}, {counted(len(body.sheet.step), 'step')}"
        turned = (
            f". Turned: {'; '.join(f'{t.name} {t.was} became {t.now}' for t in body.turned)}"
            if body.turned
            else ""
        )
        return body.what + (f": {body.reason}" if body.reason else "") + turned  # type: ignore[no-any-return]
    if kind == "reading":
        spec = next(
            (r.name for s in plan.step for r in getattr(s, "reading", ()) if r.id == body.reading),
            title,
        )
        values = ", ".join(_shown(q.value, q.unit, body.instrument) for q in body.values)
        typed = ", ".join(body.typed)
        plus = f" from {body.deviation_from.value}" if body.deviation_from else ""
        tool = body.instrument.code if body.instrument else "no tool"
        if all(_plain(text, str(q.value)) for text, q in zip(body.typed, body.values, strict=True)):
            return f"{spec}: typed {typed} {body.values[0].unit}{plus}, {tool}"
        return f"{spec}: typed {typed}, {values}{plus}, {tool}"
    if kind == "fastener":
        return _fastener(body)
    if kind == "undone":
        return (
            f"undone: {_item_words(state, body.item)}"
            + (f", {body.note}" if body.note else "")
            + (f", now on {KIND_WORDS[body.carries[0].by]}" if body.carries else "")
        )
    if kind == "strike":
        target = state.entries.get(body.entry)
        return f"line {target.seq if target else '?'} struck: {body.reason}"
    return TEXTS[kind](body, title)


def _item_words(state: BookState, item: str) -> str:
    """What was left open, in its own words."""
    for entry in reversed(state.opened.get(item, [])):
        if entry.kind == "left open":
            return str(entry.body.what)
        known = next((o.what for o in getattr(entry.body, "opens", ()) if o.id == item), None)
        if known:
            return str(known)
    return item


def _plain(typed: str, value: str) -> bool:
    """Whether a bare figure was typed in the canonical unit, so that repeating it says nothing."""
    return typed.strip().rstrip("0") == value.rstrip("0") or typed.strip() == value


def _shown(value: str | float | None, unit: str, tool: Any) -> str:
    places = len(str(getattr(tool, "resolution", "")).partition(".")[2])
    text = str(value)
    return (
        f"{text} {unit}"
        if len(text.partition(".")[2]) <= 5
        else f"{decimal_text(float(text), max(places, 4))} {unit}"
    )


def _fastener(body: Any) -> str:
    bolt = f"bolt {body.bolt}"
    act, note = body.act, body.note
    tail = f", {note}" if note else ""
    if act in ("marked", "locked"):
        return f"{bolt} {act}{tail}"
    if act == "fresh":
        return f"{bolt}: a fresh one in its place{tail}"
    if act == "state":
        return f"{bolt} {body.tightness}{tail}"
    gets = body.gets
    angle = gets.unit == "deg"
    figure = decimal_text(
        float(exact(gets, "angle" if angle else "torque", "gets")), 0 if angle else 1
    )
    unit = "°" if angle else " N·m"
    if act == "read":
        return f"{bolt}, stage {body.stage}: read {body.typed}{tail}"
    if body.added is not None:
        return (
            f"{bolt}, stage {body.stage}: turned "
            f"{decimal_text(float(exact(body.added, 'angle', 'added')))}° more, {figure}{unit} "
            f"in all{tail}"
        )
    if body.set_to is None:
        return f"{bolt}, stage {body.stage}: turned {figure}{unit}{tail}"
    return f"{bolt}, stage {body.stage}: wrench {body.set_to.value}, bolt {figure}{tail}"


def _bag(body: Any) -> str:
    return f"bag {body.bag}: {_lines(body.lines)}" + (
        f"; part lies {body.place}" if body.place else ""
    )


def _lines(lines: Any) -> str:
    return ", ".join(fastener_words(line) for line in lines)


def _removed(body: Any) -> str:
    into = f", bag {body.bag}: {_lines(body.lines)}" if body.bag else ""
    lies = f", lies {body.place}" if body.place else ""
    return f"off: {body.what}{into}{lies}" + (
        f". Off first because {body.because}" if body.because else ""
    )


def _captured(body: Any) -> str:
    wires = "; ".join(f"{w.terminal}: {w.colour}" for w in body.wires)
    strokes = f"{body.strokes} strokes" if body.strokes else "factory mark" if body.factory else ""
    facts = ", ".join(text for text in (strokes, body.place, body.typed, wires, body.words) if text)
    return f"kept as found: {body.what}" + (f", {facts}" if facts else "")


def _compared(body: Any) -> str:
    seen = ", ".join(
        str(text)
        for text in (
            f"{body.strokes} strokes in line" if body.strokes is not None else None,
            body.typed,
            body.words,
        )
        if text
    )
    return ("as found" if body.same else "not as found") + (f": {seen}" if seen else "")


def _supported(body: Any) -> str:
    what = f"{body.support_kind} under the {body.carries}, {body.point}"
    if body.gone:
        return f"away: {what}"
    more = [
        body.padding,
        f"{body.ground} ground" if body.ground != "unknown" else None,
        (
            f"{body.rated.typed or body.rated.value} {'' if body.rated.typed else body.rated.unit} "
            "rated"
        ).replace("  ", " ")
        if body.rated
        else None,
    ]
    return ", ".join(["in: " + what, *(text for text in more if text)])


def _vehicle(body: Any) -> str:
    said = [
        word if value else f"not {word}"
        for word, value in (
            ("rolls", body.rolls),
            ("steers", body.steers),
            ("brakes", body.brakes),
            ("starts", body.starts),
        )
        if value is not None
    ]
    return "vehicle: " + (
        ", ".join(said + ([f"in {body.bay}"] if body.bay else [])) or "nothing said"
    )


def _stopped(body: Any) -> str:
    more = [
        f"load was going {body.going}" if body.going else None,
        f"hurt: {body.hurt}" if body.hurt else None,
        f"near miss: {body.near_miss}" if body.near_miss else None,
    ]
    return ", ".join([f"stopped: {body.why}", *(text for text in more if text)])


def _decision(body: Any) -> str:
    about = body.about
    reason = f": {body.reason}" if body.reason else ""
    if about == "wrench":
        adapter = body.adapter
        with_it = (
            (
                f" with an adapter of {adapter.length.value} {adapter.length.unit} at "
                f"{adapter.angle.value}°"
            )
            if adapter is not None
            else ""
        )
        return f"wrench {body.wrench.code}{with_it}{reason}"
    if about == "last_chance":
        return (
            f"seen before it closes: {body.thing}"
            if body.done_here
            else f"last chance let go, {body.thing}{reason}"
        )
    if about == "capture":
        return f"gone on without keeping it as found{reason}"
    if about == "dry_run":
        return f"one run of {body.seconds:g} s without coolant decided{reason}"
    if about == "empty":
        return f"left empty, {body.thing}{reason}"
    return f"bolt {body.bolt} passed over at stage {body.stage}{reason}"


def _moment(sample: Any) -> str:
    """What one moment says, each figure with its unit."""
    figures = (sample.rpm, sample.oil, sample.coolant, sample.timing)
    said = (
        [f"{f.value} {f.unit}" for f in figures if f is not None]
        + ([sample.seen] if sample.seen else [])
        + (["lamp out"] if sample.lamp_out else [])
    )
    return ", ".join(said) + (f" (asked: {sample.asked})" if sample.asked else "")


def _finding(body: Any) -> str:
    found = f"{body.code_name}, {body.grade_word}" if body.code else "nothing found"
    perhaps = f"perhaps from {body.cause}" if body.cause else None
    more = ", ".join(
        text
        for text in (
            body.cleaning,
            body.confidence if body.confidence != "sure" else None,
            body.words,
            perhaps,
        )
        if text
    )
    return f"{body.part_name}, {body.face_name}: {found} ({more})"


def _part_decided(body: Any) -> str:
    seen = (
        "" if body.seen >= body.faces else f", provisional: {body.seen} of {body.faces} faces seen"
    )
    money = ", ".join(
        f"{words} {figure:g}"
        for words, figure in (("costs", body.price), ("if wrong", body.wrong))
        if figure is not None
    )
    return (
        f"{body.part_name}: {DISPOSITIONS[body.choice]}, {body.reason}"
        + (f" ({money})" if money else "")
        + seen
    )


OUT = {"fitted": "out of", "new": "new ones instead of", "lost": "lost from"}
TEXTS: dict[str, Callable[[Any, str], str]] = {
    "started": lambda b, t: f"began: {t}",
    "done": lambda b, t: f"done: {t}" + (f" (out of order: {b.reason})" if b.reason else ""),
    "happened": lambda b, t: f"has happened: {t}, without: {'; '.join(b.without)}",
    "said": lambda b, t: f"{b.name}: {b.value.value} {b.value.unit}",
    "not there": lambda b, t: f"not there: {b.thing}; {b.looked}",
    "reopened": lambda b, t: f"reopened: {t}, {b.reason}",
    "skipped": lambda b, t: (
        f"{'not applicable' if b.not_applicable else 'skipped'}: {t}, {b.reason}"
    ),
    "confirmed": lambda b, t: f"seen: {b.what}",
    "concession": lambda b, t: (
        f"accepted in writing: {b.limit.name} {b.value} {b.limit.unit}, limit {b.limit.words()}. "
        f"“{b.reason}” {b.name}"
        + (f", for {b.use}" if b.use else "")
        + (f", looked at again {b.recheck}" if b.recheck else "")
        + (f", licensed inspection {b.licensed}" if b.licensed else "")
    ),
    "disposition": lambda b, t: (
        f"{t}, {b.result}: {b.choice.replace('_', ' ')}" + (f", {b.note}" if b.note else "")
    ),
    "left open": lambda b, t: f"left open: {b.what}" + (f", {b.where}" if b.where else ""),
    "bagged": lambda b, t: _bag(b),
    "note": lambda b, t: b.text,
    "spoken": lambda b, t: "a spoken note",
    "worded": lambda b, t: f"the spoken note says: {b.text}",
    "decision": lambda b, t: _decision(b),
    "attempt started": lambda b, t: (
        f"attempt {b.number}, {t}" + (f", gate shut: {b.reason}" if b.gate == "shut" else "")
    ),
    "samples": lambda b, t: "; ".join(f"{s.t:.0f} s " + _moment(s) for s in b.samples[:4]),
    "attempt ended": lambda b, t: (
        f"key off after {b.after_s:.1f} s, {b.reason}"
        + (", passed" if b.passed else "")
        + (f". Cause: {b.cause}; changed: {b.change}" if b.cause else "")
    ),
    "removed": lambda b, t: _removed(b),
    "unbagged": lambda b, t: f"{OUT[b.how]} bag {b.bag}: {_lines(b.lines)}",
    "replaced": lambda b, t: f"{b.count} lost from bag {b.bag} replaced: {b.by}",
    "captured": lambda b, t: _captured(b),
    "compared": lambda b, t: _compared(b),
    "guarded": lambda b, t: (
        f"not to be loosened: {b.what}, it holds {b.holds}; part it at {b.part_at}"
    ),
    "disturbed": lambda b, t: f"loosened all the same: {b.what}, {b.holds} is lost. {b.reason}",
    "set anew": lambda b, t: f"set anew: {b.how}",
    "tried": lambda b, t: (
        (
            f"{b.part}: {b.rung.replace('_', ' ')}, {b.time.value} {b.time.unit}, "
            f"{'came' if b.came else 'did not come'}"
        )
        + (f", harmed: {b.harmed}" if b.harmed else "")
    ),
    "photo": lambda b, t: f"photo: {b.what}" + (f", {len(b.pins)} pins" if b.pins else ""),
    "pinned": lambda b, t: (
        f"pins on the photo: {', '.join(f'{p.n} {p.word}'.strip() for p in b.pins) or 'none'}"
    ),
    "supported": lambda b, t: _supported(b),
    "vehicle stands": lambda b, t: _vehicle(b),
    "stopped": lambda b, t: _stopped(b),
    "secured": lambda b, t: f"made safe: {b.what}",
    "gone on": lambda b, t: "gone on" + (f": {b.note}" if b.note else ""),
    "surroundings": lambda b, t: f"around the bench: {', '.join(b.around) or 'nothing special'}",
    "finding": lambda b, t: _finding(b),
    "face added": lambda b, t: f"to be looked at as well: {b.part_name}, {b.face_name}",
    "traced": lambda b, t: (
        f"broke up: {b.station_name}; everything downstream is looked at"
        if b.station
        else "trace taken back"
    ),
    "part decided": lambda b, t: _part_decided(b),
    "part put right": lambda b, t: f"{b.part_name} put right: {b.how}",
    "laid beside": lambda b, t: (
        f"{b.part_name}, {b.feature}: {laid_words(b.old, b.new, b.same, b.why)}"
    ),
    "cause": lambda b, t: f"it may have been: {b.what}",
    "evidence": lambda b, t: f"{b.sort}: {b.text}",
    "device edited": lambda b, t: f"{b.name}: {b.state}",
    "gear edited": lambda b, t: (
        f"{b.name}: {b.state}"
        + (f", {b.whose}" if b.whose else "")
        + (f", back by {b.back_by}" if b.back_by else "")
    ),
    "tool checked": lambda b, t: (
        (
            f"{b.code} on {b.standard} {b.nominal}: off by {b.off} {b.unit}, "
            f"{'permissible' if b.good else 'not permissible'}"
        )
        + (", kept as its known offset" if b.kept_offset else "")
    ),
    "tool tried": lambda b, t: (
        f"{b.code} on {b.thing}, {len(b.typed)} readings: s = {b.s} {b.unit}"
    ),
    "tool edited": lambda b, t: f"tool {b.tool.code}: {b.tool.name}",
}
