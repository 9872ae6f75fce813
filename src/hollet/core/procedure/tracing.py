"""The way of oil, fluid and particles through a unit as a graph, and what lies downstream of a part
that failed.
"""

from typing import Annotated

from pydantic import Field

from hollet.core.procedure.words import Id, Part, Words

__all__ = ["Flow", "Reached", "Station", "Trace", "downstream"]


class Station(Part):
    """A place that the flow passes: its part in the inspection, where it is drawn, and whether it
    holds back what is carried.
    """

    id: Id
    name: Words
    part: Id | None = None
    x: Annotated[float, Field(ge=0, le=640)]
    y: Annotated[float, Field(ge=0, le=160)]
    filter: bool = False


class Flow(Part):
    """From one station to the next."""

    start: Id
    to: Id


class Trace(Part):
    """A graph of stations and flows, what it carries, and a line drawing of the unit (polylines in
    a field of 640 by 160).
    """

    id: Id
    name: Words
    carries: Words = "chips"
    station: Annotated[tuple[Station, ...], Field(min_length=2, max_length=40)]
    flow: Annotated[tuple[Flow, ...], Field(min_length=1, max_length=120)]
    outline: Annotated[tuple[tuple[tuple[float, float], ...], ...], Field(max_length=40)] = ()

    def find(self, station: str | None) -> Station | None:
        """The station with this id."""
        return next((s for s in self.station if s.id == station), None)


class Reached(Part):
    """A station downstream: its number in flow order, how many flows away, from where, and through
    which filters at the least.
    """

    station: Id
    n: int
    distance: int
    came_from: Id
    filters: tuple[Words, ...] = ()


def downstream(trace: Trace, failed: str) -> tuple[Reached, ...]:
    """All stations that particles from `failed` can reach, nearest first (breadth first, in the
    sheet's order of flows).

    A filter is passed on, not trusted: it may have stood open on its by-pass. What lies behind one
    says so.
    """
    order: dict[str, Reached] = {}
    queue: list[tuple[str, int, tuple[str, ...]]] = [(failed, 0, ())]
    for here, distance, filters in queue:
        for flow in trace.flow:
            if flow.start != here or flow.to == failed or flow.to in order:
                continue
            station = trace.find(here)
            behind = (
                (*filters, station.name)
                if station and station.filter and here != failed
                else filters
            )
            order[flow.to] = Reached(
                station=flow.to,
                n=len(order) + 1,
                distance=distance + 1,
                came_from=here,
                filters=behind,
            )
            queue.append((flow.to, distance + 1, behind))
    return tuple(order.values())
