"""Shims, pistons, valves: each choice held against every other one by a second program."""

import itertools
import random
import re

import pytest
from ortools.sat.python import cp_model

from hollet.core.catalogue import compute
from hollet.core.errors import Refused
from hollet.core.fitting.assigning import assigned


def mm(value: float) -> dict:
    return {"value": value, "unit": "mm"}


def kit_of(rng: random.Random, sizes: int) -> list[dict]:
    """Shims in steps of 0.05 or measured to a micrometre."""
    step = rng.choice((0.05, 0.001))
    picked = rng.sample(range(1, 40), sizes)
    return [
        {"thickness": mm(round(k * 0.05 + step * rng.randrange(3), 3)), "count": rng.randint(0, 3)}
        for k in picked
    ]


def pieces(kit: list[dict]) -> list[int]:
    """Each piece of a kit by itself, in micrometres."""
    return [round(s["thickness"]["value"] * 1000) for s in kit for _ in range(s["count"])]


def shims(gap: float, low: float, high: float, kit: list[dict], **more: object) -> dict:
    window = {"min_gap": mm(low), "max_gap": mm(high)}
    return compute("choose_shims", {"gap": mm(gap), **window, "kit": kit, **more})


@pytest.mark.parametrize("seed", range(40))
@pytest.mark.parametrize("aim", ["mid", "min", "max", "fewest"])
def test_no_stack_is_better(seed, aim):
    """Every stack of the kit is tried: none inside is nearer to the aim, or as near with fewer."""
    rng = random.Random(seed)
    kit, most = kit_of(rng, 6), rng.randint(0, 4)
    gap, low, high = round(rng.uniform(1, 6), 2), 0.5, round(rng.uniform(0.6, 2.5), 2)
    stacks = {
        tuple(sorted(s)) for n in range(most + 1) for s in itertools.combinations(pieces(kit), n)
    }
    left = {s: round(gap * 1000) - sum(s) for s in stacks}
    inside = [s for s in stacks if 500 <= left[s] <= round(high * 1000)]
    middle = (500 + round(high * 1000)) / 2
    target = {"mid": middle, "min": 500, "max": round(high * 1000), "fewest": middle}[aim]
    order = (
        (lambda s: (len(s), abs(left[s] - target)))
        if aim == "fewest"
        else (lambda s: (abs(left[s] - target), len(s), -left[s]))
    )
    if round(gap * 1000) < 500 or not inside:
        with pytest.raises(Refused) as refusal:
            shims(gap, low, high, kit, max_stack=most, aim=aim)
        assert refusal.value.reason_code in ("no_combination", "gap_too_small")
        return
    found = shims(gap, low, high, kit, max_stack=most, aim=aim)
    took = tuple(round(t * 1000) for t in found["shims"]["value"])
    assert took in stacks, "it takes no more pieces than lie in the drawer"
    assert order(took) == order(min(inside, key=order))
    assert found["final_gap"]["value"] == pytest.approx(left[took] / 1000, abs=1e-9)


@pytest.mark.parametrize("seed", range(6))
def test_a_large_kit_is_as_exact(seed):
    """Forty sizes, four in a stack: the solver of another house finds nothing nearer."""
    rng = random.Random(seed)
    kit = [
        {"thickness": mm(k / 1000), "count": rng.randint(1, 2)}
        for k in sorted(rng.sample(range(103, 1900), 40))
    ]
    given = (round(rng.uniform(3, 5), 3), 0.6, 0.9, kit)
    found = shims(*given, max_stack=4)
    off = abs(round(found["final_gap"]["value"] * 1000) * 2 - 1500)
    model = cp_model.CpModel()
    take = [model.new_int_var(0, s["count"], "") for s in kit]
    model.add(sum(take) <= 4)
    left = round(given[0] * 1000) - sum(
        t * round(s["thickness"]["value"] * 1000) for t, s in zip(take, kit, strict=True)
    )
    model.add(left >= 600)
    model.add(left <= 900)
    far = model.new_int_var(0, 10_000, "")
    model.add_abs_equality(far, 2 * left - 1500)
    model.minimize(far)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    assert solver.solve(model) == cp_model.OPTIMAL
    assert off == round(solver.objective_value)


def test_more_in_the_drawer_is_never_worse():
    """Another shim in the kit never moves the gap away from the aim."""
    rng = random.Random(3)
    for _ in range(30):
        kit = [{"thickness": mm(0.8), "count": 2}, *kit_of(rng, 4)]
        more = [*kit, {"thickness": mm(rng.choice((0.35, 0.5, 1.1))), "count": 1}]
        offs = []
        for drawer in (kit, more):
            try:
                found = shims(3.1, 0.5, 2.0, drawer, max_stack=3)["final_gap"]["value"]
            except Refused:
                offs.append(99.0)
                continue
            offs.append(abs(found - 1.25))
        assert offs[1] <= offs[0] + 1e-9


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"kit": []}, "bad_kit"),
        ({"kit": [{"thickness": mm(0), "count": 1}]}, "bad_kit"),
        ({"kit": [{"thickness": mm(1), "count": -1}]}, "bad_kit"),
        ({"min_gap": mm(6)}, "limits_reversed"),
        ({"U": mm(2)}, "window_empty"),
        ({"max_stack": -1}, "bad_kit"),
        ({"gap": mm(0.4)}, "gap_too_small"),
    ],
)
def test_bad_kits_and_windows(change, code):
    kit = [{"thickness": mm(0.8), "count": 2}]
    given = {"gap": mm(4), "min_gap": mm(2.5), "max_gap": mm(5), "kit": kit}
    with pytest.raises(Refused) as refusal:
        compute("choose_shims", {**given, **change})
    assert refusal.value.reason_code == code
    assert refusal.value.field


def test_what_would_have_to_be_bought_is_said():
    """A gap of 14 for a window of 2.5 to 5: shims of 9 to 11.5 together."""
    with pytest.raises(Refused, match=r"together 9\.000 to 11\.500 mm would"):
        shims(14, 2.5, 5, [{"thickness": mm(0.8), "count": 2}])


def test_one_shim_too_many_is_named():
    kit = [{"thickness": mm(0.5), "count": 3}, {"thickness": mm(1.2), "count": 1}]
    found = shims(3.0, 1.0, 1.6, kit, max_stack=3)
    assert found["one_more"]["value"].startswith("one more of 0.5 mm leaves")


@pytest.mark.parametrize("seed", range(25))
def test_no_other_pairing_is_better(seed):
    """All orders of six pistons: none has a smaller worst deviation, none a smaller sum."""
    rng = random.Random(seed)
    bores = [round(84 + rng.randrange(30) / 1000, 3) for _ in range(6)]
    pistons = [round(83.95 + rng.randrange(30) / 1000, 3) for _ in range(6)]
    given = {"bores": {"value": bores, "unit": "mm"}, "pistons": {"value": pistons, "unit": "mm"}}
    found = compute("pair_pistons", {**given, "target_clearance": mm(0.045)})
    micrometres = [
        [round(1000 * b) - round(1000 * p) - 45 for b, p in zip(bores, order, strict=True)]
        for order in itertools.permutations(pistons)
    ]
    worst = min(max(map(abs, off)) for off in micrometres)
    least = min(sum(d * d for d in off) for off in micrometres)
    assert found["worst_deviation"]["value"] == pytest.approx(worst / 1000, abs=1e-9)
    assert found["sum_of_squares"]["value"] == pytest.approx(least / 1e6, abs=1e-12)
    assert sorted(found["assignment"]["value"]) == [1, 2, 3, 4, 5, 6]


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"lower_limit": mm(0.044)}, "limits_not_reachable"),
        ({"upper_limit": mm(0.03)}, "limits_not_reachable"),
        ({"pistons": {"value": [84.1, 84.2], "unit": "mm"}}, "clearance_not_positive"),
        ({"bores": {"value": [], "unit": "mm"}}, "count_mismatch"),
    ],
)
def test_pairings_that_do_not_exist(change, code):
    given = {
        "bores": {"value": [84.012, 84.025], "unit": "mm"},
        "pistons": {"value": [83.97, 83.982], "unit": "mm"},
        "target_clearance": mm(0.045),
    }
    with pytest.raises(Refused) as refusal:
        compute("pair_pistons", {**given, **change})
    assert refusal.value.reason_code == code


def valves_of(rng: random.Random, count: int) -> list[dict]:
    limits = {"lower_limit": mm(0.16), "upper_limit": mm(0.24)}
    return [
        {
            "lash": mm(rng.randrange(8, 36) / 100),
            "shim": mm(rng.randrange(46, 54) * 0.05),
            **limits,
        }
        for _ in range(count)
    ]


def reshuffled(valves: list[dict], spares: tuple[float, ...] = (), top: float = 3.2) -> dict:
    given = {
        "valves": valves,
        "spare_shims": {"value": list(spares), "unit": "mm"},
        "new_sizes": {"from": mm(2), "to": mm(top), "step": mm(0.05)},
    }
    return compute("reshuffle_shims", given)


def best_by_hand(valves: list[dict], spares: tuple[float, ...]) -> tuple[int, int]:
    """Every way to give each valve one shim in hand or a new one: fewest new ones, then the least
    sum of squares (in 1e-4 mm²), by trying them all.
    """
    hand = [round(v["shim"]["value"] * 100) for v in valves] + [round(100 * s) for s in spares]
    whole = [round(100 * (v["lash"]["value"] + v["shim"]["value"])) for v in valves]
    grid = range(200, 321, 5)

    def tried(k: int, used: frozenset[int]) -> tuple[int, int]:
        if k == len(valves):
            return 0, 0
        best = (99, 0)
        for j, size in enumerate(hand):
            if j not in used and 16 <= whole[k] - size <= 24:
                new, off = tried(k + 1, used | {j})
                best = min(best, (new, off + (whole[k] - size - 20) ** 2))
        sizes = [s for s in grid if 16 <= whole[k] - s <= 24]
        if sizes:
            new, off = tried(k + 1, used)
            best = min(best, (new + 1, off + min((whole[k] - s - 20) ** 2 for s in sizes)))
        return best

    return tried(0, frozenset())


@pytest.mark.parametrize("seed", range(30))
def test_no_other_way_needs_fewer_new_shims(seed):
    """Five valves with a spare: all ways are tried by a second program."""
    rng = random.Random(seed)
    valves, spares = valves_of(rng, 5), (round(rng.randrange(46, 54) * 0.05, 2),)
    found = reshuffled(valves, spares)
    new, squares = best_by_hand(valves, spares)
    assert found["new_shims"]["value"] == new
    assert found["sum_sq"]["value"] == pytest.approx(squares / 1e4, abs=1e-9)


@pytest.mark.parametrize("seed", range(12))
def test_the_moves_can_be_done_by_one_hand(seed):
    """Followed one by one with a mat: no shim goes where one still sits, and each valve ends with
    the shim that the plan gives it.
    """
    rng = random.Random(seed)
    valves = valves_of(rng, 9)
    found = reshuffled(valves)
    inside: dict[int, str | None] = {k + 1: f"of {k + 1}" for k in range(len(valves))}
    hand: dict[str, str] = {}
    for move in found["moves"]["value"]:
        numbers = [int(n) for n in re.findall(r"\d+", move)]
        if move.startswith("lift out") and "put it into" in move:
            source, target = numbers
            assert inside[target] is None, move
            inside[target], inside[source] = inside[source], None
        elif move.startswith("lift out"):
            assert inside[numbers[0]] is not None, move
            hand[str(numbers[0])], inside[numbers[0]] = str(inside[numbers[0]]), None
        elif "from the mat" in move:
            target, source = numbers
            assert inside[target] is None, move
            inside[target] = hand.pop(str(source))
        else:
            assert inside[numbers[0]] is None, move
            inside[numbers[0]] = "new"
    for line in found["plan"]["value"]:
        number = int(line.split(":")[0])
        source = re.search(r"from valve (\d+)", line)
        want = "new" if "new" in line else f"of {source[1]}" if source else f"of {number}"
        assert inside[number] == want, line


def test_one_more_spare_never_needs_more_new_shims():
    """Thirty-two valves, with and without another shim in the drawer."""
    rng = random.Random(7)
    valves = valves_of(rng, 32)
    found, more = reshuffled(valves), reshuffled(valves, (2.45,))
    assert more["new_shims"]["value"] <= found["new_shims"]["value"]


def test_a_valve_that_no_size_serves_is_named():
    valves = [*valves_of(random.Random(1), 2), {**valves_of(random.Random(2), 1)[0]}]
    valves[2]["shim"] = mm(9.0)
    with pytest.raises(Refused, match="valve 3: no shim in hand"):
        reshuffled(valves)


@pytest.mark.parametrize("seed", range(20))
def test_the_least_cost_of_all_assignments(seed):
    """Against all permutations, with entries that are not allowed."""
    rng = random.Random(seed)
    rows, columns = rng.randint(1, 5), rng.randint(5, 7)
    costs = [[rng.choice((None, *range(20))) for _ in range(columns)] for _ in range(rows)]
    every = [
        sum(c for c in own if c is not None)
        for order in itertools.permutations(range(columns), rows)
        if None not in (own := [costs[r][c] for r, c in enumerate(order)])
    ]
    found = assigned(costs)
    if not every:
        assert found is None
        return
    assert found is not None
    assert len(set(found)) == rows
    assert sum(costs[r][c] or 0 for r, c in enumerate(found)) == min(every)


def test_a_hotter_seat_asks_for_a_hotter_ring():
    """Law: monotone in seat temperature and in interference; inches give the same."""
    ring = {"ring_bore_at_20C": mm(35)}

    def hot(seat: float, at: float) -> float:
        given = {**ring, "seat_diameter_at_20C": mm(seat)}
        found = compute("heat_ring", {**given, "seat_temperature": {"value": at, "unit": "°C"}})
        return float(found["ring_temperature"]["value"])

    assert hot(35.018, -18) < hot(35.018, 20) < hot(35.025, 20)
    inch = {
        "seat_diameter_at_20C": {"value": 35.018 / 25.4, "unit": "in"},
        "ring_bore_at_20C": {"value": 35 / 25.4, "unit": "in"},
    }
    found = compute("heat_ring", inch)
    assert found["ring_temperature"]["value"] == pytest.approx(hot(35.018, 20), abs=1e-6)
    assert found["interference"]["unit"] == "in"
