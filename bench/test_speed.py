"""Speed: parsing, folding cold and warm, appending to long logs, the state of a build with 5,000
entries.
"""

import json
import random
from pathlib import Path

import pytest
from pydantic import TypeAdapter

from hollet.core.acts.kinds import AnyAct, accept
from hollet.core.book.rebuild import rebuild_view
from hollet.core.catalogue import compute
from hollet.core.entries import BookState, Entry, Note, PlanEdited
from hollet.core.entries.fold import fold
from hollet.core.entries.kinds import KINDS
from hollet.core.instruments import combine, reading_share
from hollet.core.limits import Limit, judge
from hollet.core.procedure.changes import FactChange, apply
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.plan import select
from hollet.core.procedure.sheet import Sheet
from hollet.core.quantities.parse import parse
from hollet.core.scheduling.laying import Job, laid_out
from hollet.core.tightening.trace import climbs, read_climbs
from hollet.library.lore import lore
from hollet.library.shelf import sheet_text
from hollet.screens.plandesk import Gear, plan_view
from hollet.services import builds
from hollet.services.logging import Sent, write_entry
from hollet.services.sheets import parse_sheet
from hollet.services.workshop import Workshop
from tests.services.conftest import stock
from tests.support import Book, small_sheet, tools

NOW = "2026-03-01T09:00:00Z"
EDIT: TypeAdapter = TypeAdapter(AnyAct)
TEXTS = [f"{n / 1000:.3f}{unit}" for n in range(2500) for unit in (" mm", '"', " thou", " Nm")]


def grown(folder: Path, count: int) -> tuple[Workshop, str]:
    """A workshop whose build has `count` entries: readings, clicks and notes, written past the
    checks for speed.
    """
    workshop = Workshop(folder)
    build = stock(workshop)
    tool = workshop.tools()["f1"]
    reading = {
        "step": "ring",
        "reading": "ring",
        "typed": ["0.30"],
        "unit": "mm",
        "values": [{"value": "0.30", "unit": "mm"}],
        "instrument": tool.model_dump(mode="json"),
    }
    bodies = [
        KINDS["reading"].model_validate_json(json.dumps(reading)),
        Note(text="a line", step="bore"),
    ]
    with workshop.store.write() as books:
        place = books.log.head(build)
        for number in range(count):
            draft = workshop.draft(build, bodies[number % 2], "MK")
            row = books.log.append(draft, place)
            place = (row.seq, row.hash)
    workshop.forget(build)
    return workshop, build


def append(workshop: Workshop, build: str) -> None:
    """One note through the service, acknowledged."""
    sent = Sent(id=workshop.new_id(), who="MK", bench_time="2026-03-01T09:00:00Z", seen=0)
    write_entry(workshop, build, sent, EDIT.validate_python({"kind": "note", "text": "x"}))


def test_parse_ten_thousand(benchmark):
    """10,000 different quantities, nothing remembered."""

    def run() -> None:
        parse.cache_clear()
        for text in TEXTS:
            parse(text)

    benchmark.pedantic(run, rounds=5)


@pytest.mark.parametrize("count", [100, 1_000, 10_000, 100_000])
def test_append(benchmark, tmp_path, count):
    """One entry through the service with fsync, behind a log of `count`."""
    workshop, build = grown(tmp_path, count)
    append(workshop, build)
    benchmark.pedantic(append, (workshop, build), rounds=40)
    workshop.close()


def test_fold_cold_hundred_thousand(benchmark, tmp_path):
    """100,000 entries read and folded from nothing."""
    workshop, build = grown(tmp_path, 100_000)

    def run() -> None:
        workshop.forget(build)
        with workshop.held(build) as state:
            assert state.head == 100_001

    benchmark.pedantic(run, rounds=3)
    workshop.close()


def test_state_of_five_thousand(benchmark, tmp_path):
    """Frame and bench of a build with 5,000 entries, warm, right after an append."""
    workshop, build = grown(tmp_path, 5_000)

    def run() -> None:
        builds.frame(workshop, build)
        builds.bench(workshop, build, "bore")

    run()
    benchmark.pedantic(run, setup=lambda: append(workshop, build), rounds=60)
    workshop.close()


def large_sheet(steps: int = 300, reasons: int = 3) -> Sheet:
    """A sheet of `steps` steps with about `reasons` reasons each, a third of them on a fact."""
    stages = ("take_down", "inspect", "prepare", "build_up", "fit_in", "wake")
    made = []
    for k in range(steps):
        after = [
            {"step": f"s{j}", "because": "it covers it", "kind": "access closes"}
            for j in {k - 1, k - 7, k // 2}
            if 0 <= j < k
        ]
        when = [{"fact": "air_conditioning", "one_of": ["yes"]}] if k % 3 == 0 else []
        made.append(
            {
                "id": f"s{k}",
                "stage": stages[k * len(stages) // steps],
                "kind": "check",
                "title": f"Step {k}",
                "do": "Do it.",
                "hours": [0.1, 0.3],
                "after": after[:reasons],
                "when": when,
            }
        )
    return Sheet.model_validate(
        {"id": "large", "title": "Large", "about": "For speed.", "step": made}
    )


def test_plan_of_300_steps(benchmark):
    """300 steps and about 900 reasons combined, put in order and selected anew after a fact
    changed.
    """
    sheet = large_sheet()

    def run() -> None:
        plan = combine_sheets([sheet], {"air_conditioning": "yes"})
        select(plan)
        select(apply(plan, [FactChange(fact="air_conditioning", before="yes", after="no")]))

    benchmark.pedantic(run, rounds=10, warmup_rounds=1)


def test_plan_desk_of_300_steps(benchmark):
    """The whole desk of that plan, as the server answers it."""
    from hollet.core.entries import Entry

    state = BookState(lore())
    body = PlanEdited(what="made", sheet=combine_sheets([large_sheet()]))
    fold(
        state,
        Entry("a", 1, "2026-03-01T08:00:00Z", "2026-03-01T08:00:00Z", "MK", body),
    )
    benchmark.pedantic(lambda: plan_view(state, Gear()), rounds=10, warmup_rounds=1)


def test_order_back_of_300_removals(benchmark):
    """Three hundred things off without a sheet: the order back with its reasons, and the bags."""
    sheet = parse_sheet(sheet_text("as-it-comes"))
    state = fold(
        BookState(lore()),
        Entry(
            "p",
            1,
            NOW,
            NOW,
            "MK",
            PlanEdited(what="made", sheet=combine_sheets([sheet])),
        ),
    )
    for k in range(300):
        edit = {
            "kind": "removed",
            "removal": f"r{k}",
            "what": f"Thing {k}",
            "bag": k + 1,
            "lines": [{"count": 4, "size": "M8", "length": "25"}],
        }
        fold(
            state,
            Entry(
                f"e{k}",
                k + 2,
                NOW,
                NOW,
                "MK",
                accept(state, EDIT.validate_python(edit), {}),
            ),
        )
    view = benchmark.pedantic(lambda: rebuild_view(state), rounds=5)
    assert view.new == 300


WIDE = [f"r{k}" for k in range(60)]


def wide_sheet(names: list[str] = WIDE) -> str:
    """A step with 60 readings, each judged by itself and all by their spread."""
    readings = ", ".join(
        f'{{ id = "{n}", name = "Place {n}", tool = "caliper", nominal = "20 mm", at = ["{n}"] }}'
        for n in names
    )
    results = ", ".join(
        f'{{ id = "{n}_r", name = "Place {n}", limit = "l", reading = "{n}" }}' for n in names
    )
    over = ", ".join(f'"{n}"' for n in names)
    return f"""
[sheet]
id = "wide"
title = "Wide"
about = "For speed."
[[limit]]
id = "l"
name = "L"
dimension = "length"
unit = "mm"
lo = "19.0"
hi = "21.0"
source = "book"
[[limit]]
id = "s"
name = "S"
dimension = "length"
unit = "mm"
hi = "1.0"
source = "book"

[[step]]
id = "m"
stage = "inspect"
kind = "measure"
title = "Sixty"
do = "Read."
draw = "round"
reading = [{readings}]
result = [{results},
  {{ id = "all", name = "Spread", limit = "s", how = "spread", over = [{over}] }}]
"""


def test_judge_five_thousand_readings(benchmark):
    """5,000 readings judged against a limit, each with its own uncertainty, nothing remembered."""
    caliper, limit = (
        tools()["c1"],
        Limit(id="l", name="L", dimension="length", unit="mm", lo="19.0", hi="21.0", source="book"),
    )

    def run() -> int:
        found = 0
        for k in range(5000):
            spread = reading_share(caliper, [19.5 + k / 5000])
            found += judge(spread.value, combine([(1, spread)])[2], limit).verdict == "inside"
        return found

    assert benchmark.pedantic(run, rounds=3) == 5000


def test_bench_of_sixty_readings(benchmark):
    """What a bench with 60 readings costs after each of them: accept, fold, the bench anew."""
    book = Book(small_sheet(wide_sheet()), tools())
    for name in WIDE:
        book.read("m", name, "20.01", tool="c1")
    book.bench("m")

    def run() -> None:
        book.read("m", WIDE[7], "20.02", tool="c1")
        book.bench("m")

    benchmark.pedantic(run, rounds=20, warmup_rounds=1)


def three_hundred(seed: int) -> list[Job]:
    """Three hundred steps of three vehicles over evenings of half a year, some for two people, some
    with a wait behind them; the same for the same seed.
    """
    dice = random.Random(seed)
    days = [k for k in range(220) if k % 7 != 6]
    saturdays = [k for k in days if k % 7 == 5]
    evenings = tuple((k * 1440 + 1140, k * 1440 + 1290) for k in days if k % 7 != 5)
    evenings += tuple((k * 1440 + 540, k * 1440 + 900) for k in saturdays)
    helper = tuple((k * 1440 + 600, k * 1440 + 780) for k in saturdays)
    jobs = []
    for k in range(300):
        before = {dice.randrange(max(0, k - 40), k) for _ in range(2)} if k > 3 else set()
        after = tuple(
            (f"j{p}", 720 if dice.random() < 0.08 else 0) for p in sorted(before) if p % 3 == k % 3
        )
        spans = helper if dice.random() < 0.06 else evenings
        takes = dice.choice([15, 20, 30, 45, 60, 75, 90])
        jobs.append(Job(f"j{k}", takes, spans, 0, after, 0, f"g{k % 3}"))
    return jobs


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_laying_three_hundred_steps(benchmark, seed: int):
    """The gap to an end that nothing can beat is at most five in a hundred of it."""
    found = benchmark.pedantic(laid_out, args=(three_hundred(seed),), rounds=1)
    assert found is not None
    assert found.end - found.at_best <= 0.05 * found.at_best


def test_forty_shims_four_in_a_stack(benchmark):
    """The stack out of forty sizes, two of each: 50 ms are promised."""
    dice = random.Random(1)
    kit = [
        {"thickness": {"value": k / 1000, "unit": "mm"}, "count": 2}
        for k in sorted(dice.sample(range(103, 1900), 40))
    ]
    window = {"min_gap": {"value": 0.6, "unit": "mm"}, "max_gap": {"value": 0.9, "unit": "mm"}}
    given = {"gap": {"value": 4.1, "unit": "mm"}, **window, "kit": kit, "max_stack": 4}
    assert benchmark(compute, "choose_shims", given)["count"]["value"] <= 4


def test_thirty_two_valves_reshuffled(benchmark):
    """Fewest new shims, proven: 100 ms are promised."""
    dice = random.Random(7)
    valves = [
        {
            "lash": {"value": dice.randrange(8, 36) / 100, "unit": "mm"},
            "shim": {"value": dice.randrange(46, 54) * 0.05, "unit": "mm"},
            "lower_limit": {"value": 0.16, "unit": "mm"},
            "upper_limit": {"value": 0.24, "unit": "mm"},
        }
        for _ in range(32)
    ]
    sizes = {"from": {"value": 2, "unit": "mm"}, "to": {"value": 3.2, "unit": "mm"}}
    given = {"valves": valves, "new_sizes": {**sizes, "step": {"value": 0.05, "unit": "mm"}}}
    found = benchmark(compute, "reshuffle_shims", given)
    assert found["out_of_limits_before"]["value"] > 0


def test_a_trace_of_ten_thousand_points(benchmark):
    """A pull of ten seconds at 1 kHz, read from snug to its end."""
    slopes = climbs([20 + 0.01 * k for k in range(10_000)], 0.02)
    assert benchmark(read_climbs, slopes)[0] == "ok"
