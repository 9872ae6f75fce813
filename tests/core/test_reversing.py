"""A take-down turned round: no reason is ever broken, and what cannot be kept is told with both
reasons.
"""

from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from hollet.core.procedure.reversing import Link, Node, Off, refit_links, turn_round


def link(before: str, then: str, origin: str = "sheet", because: str = "so") -> Link:
    """A link of one kind."""
    return Link(before, then, because, "access closes", origin)


def off(name: str, *links: tuple[str, str, str, str], back: str | None = None) -> Off:
    """A removal put back by one step."""
    return Off(name, name, (back or f"{name}-on",), links)


def nodes(*names: str, stage: int = 6) -> list[Node]:
    """Steps of one stage, in their order."""
    return [Node(name, (stage, k)) for k, name in enumerate(names)]


def test_the_bare_reverse():
    """Three things that came off one after the other go back the other way."""
    offs = [
        off("a"),
        off("b", ("a", "b is behind a", "access closes", "turned")),
        off("c", ("b", "c is behind b", "access closes", "turned")),
    ]
    links, one_way = refit_links(offs)
    assert turn_round(nodes("a-on", "b-on", "c-on"), [], links).order == ("c-on", "b-on", "a-on")
    assert one_way == ()
    assert links[0].because == "coming off, b waited for this: b is behind a"


def test_what_is_not_turned_round():
    """Cleaning, soaking and marking were for coming off only; they are kept apart, with
    the reason.
    """
    offs = [
        off("washed"),
        off(
            "opened",
            ("washed", "grit falls in", "contamination", "turned"),
            ("washed", "the oil needs a night", "drying", "turned"),
        ),
    ]
    links, one_way = refit_links(offs)
    assert links == ()
    assert [o.because for o in one_way] == ["grit falls in", "the oil needs a night"]
    assert all("coming off only" in o.why for o in one_way)


def test_the_sheet_wins_and_the_clash_is_told():
    """Take-down says a before b, the sheet b before a: the sheet's stands, both reasons
    are there.
    """
    turned = [link("a", "b", "turned", "turned so")]
    found = turn_round(nodes("a", "b"), [link("b", "a", because="the sheet says so")], turned)
    assert found.order == ("b", "a")
    assert [(c.dropped.because, [k.because for k in c.kept]) for c in found.clashes] == [
        ("turned so", ["the sheet says so"])
    ]
    assert found.not_reversed == {"b"}


def test_the_take_down_can_be_preferred():
    """With the take-down preferred the sheet's link is the one that is given up."""
    turned = [link("a", "c", "turned")]
    sheet = [link("c", "b"), link("b", "a")]
    found = turn_round(nodes("a", "b", "c"), sheet, turned, frozenset({("a", "c")}))
    assert found.order.index("a") < found.order.index("c")
    assert [c.dropped.origin for c in found.clashes] == ["sheet"]


def test_the_mere_order_gives_way_first():
    """A link that only the log's order made never pushes out one that somebody gave a
    reason for.
    """
    turned = [link("a", "b", "log"), link("b", "a", "said")]
    found = turn_round(nodes("a", "b"), [], turned)
    assert found.order == ("b", "a")
    assert [c.dropped.origin for c in found.clashes] == ["log"]


def test_a_later_stage_never_comes_first():
    """A turned link against the order of the stages is told, not followed."""
    steps = [Node("late", (7, 0)), Node("early", (5, 1))]
    found = turn_round(steps, [], [link("late", "early", "turned")])
    assert found.order == ("early", "late")
    assert found.clashes[0].kept == ()


@st.composite
def jobs(draw):
    """Steps in two stages, sheet links that hold together, and turned links of any origin, some of
    them nonsense.
    """
    names = [f"s{k}" for k in range(draw(st.integers(2, 9)))]
    steps = [Node(name, (draw(st.sampled_from([5, 6])), k)) for k, name in enumerate(names)]
    ranked = sorted(steps, key=lambda n: n.rank)
    pairs = st.tuples(st.sampled_from(names), st.sampled_from(names)).filter(lambda p: p[0] != p[1])
    place = {node.id: k for k, node in enumerate(ranked)}
    sheet = [link(a, b) for a, b in draw(st.lists(pairs, max_size=8)) if place[a] < place[b]]
    turned = [
        link(a, b, draw(st.sampled_from(["turned", "said", "log"])))
        for a, b in draw(st.lists(pairs, max_size=14))
    ]
    return steps, sheet, turned


@given(jobs())
def test_no_reason_is_broken(job):
    """Every kept link holds in the order, every sheet link is kept, and each link is kept or told
    as a clash.
    """
    steps, sheet, turned = job
    found = turn_round(steps, sheet, turned)
    place = {name: k for k, name in enumerate(found.order)}
    assert sorted(found.order) == sorted(node.id for node in steps)
    assert all(place[x.before] < place[x.then] for x in found.links)
    assert {(x.before, x.then) for x in sheet} <= {(x.before, x.then) for x in found.links}
    told = {(c.dropped.before, c.dropped.then) for c in found.clashes} | {
        (x.before, x.then) for x in found.links
    }
    assert {(x.before, x.then) for x in turned} <= told
    rank = {node.id: node.rank for node in steps}
    assert all(rank[a][0] <= rank[b][0] for a, b in pairwise(found.order))


@given(jobs())
def test_a_clash_names_what_stands_against_it(job):
    """The chain of a clash runs from its later step back to its earlier one, link by link."""
    steps, sheet, turned = job
    for clash in turn_round(steps, sheet, turned).clashes:
        if clash.kept:
            assert clash.kept[0].before == clash.dropped.then
            assert clash.kept[-1].then == clash.dropped.before
            assert all(a.then == b.before for a, b in pairwise(clash.kept))
