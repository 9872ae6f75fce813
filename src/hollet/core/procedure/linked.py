"""Paths that go on from one another: what lies between the battery and a point lies in the path of
every point behind it."""

from collections.abc import Iterator, Sequence

from hollet.core.procedure.results import ResultSpec

__all__ = ["path_laws", "path_of"]


def path_of(results: Sequence[ResultSpec], spec: ResultSpec) -> tuple[ResultSpec, ...]:
    """The results that this one goes on from, the nearest first."""
    known, found = {r.id: r for r in results}, list[ResultSpec]()
    at = known.get(spec.through or "")
    while at is not None and at not in found:
        found.append(at)
        at = known.get(at.through or "")
    return tuple(found)


def path_laws(results: Sequence[ResultSpec]) -> Iterator[tuple[str, str]]:
    """A path goes on from another one of its step, and never from itself."""
    known = {result.id for result in results}
    for result in results:
        if result.through is not None and result.through not in known:
            yield (
                "result",
                f"'{result.id}' goes through '{result.through}', which is no result of this step",
            )
        if result in path_of(results, result):
            yield "result", f"'{result.id}' goes through itself"
