"""A step that climbs one rung of the first start."""

from typing import Annotated, Literal

from pydantic import Field

from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.words import RUNGS, Id, Rung, Words

__all__ = ["RunStep"]


LIMITS = ("time_limit", "total_limit", "pressure", "pressure_by", "coolant", "timing", "rest")


class RunStep(BaseStep):
    """One rung of the first start; `least_s`: how long it has to last, in s, before what it is to
    show can have shown.
    """

    kind: Literal["run"]
    rung: Literal["power_on", "crank", "fuel_on", "fire", "run_on", "gear", "drive"]
    isolate: tuple[Words, ...] = ()
    expect: Words
    watch: tuple[Words, ...] = ()
    time_limit: Id
    total_limit: Id | None = None
    pressure: Id | None = None
    pressure_by: Id | None = None
    coolant: Id | None = None
    timing: Id | None = None
    rest: Id | None = None
    still_runs: Words | None = None
    least_s: Annotated[int, Field(ge=0, le=3600)] = 0

    def blocked(self, first: Rung | None) -> str:
        rungs = [*RUNGS, "nothing"]
        own = rungs[rungs.index(self.rung) + 1]
        stays = self.blocks or ("nothing" if self.stage in ("plan", "order", "settle") else None)
        return stays or own

    def as_run(self) -> "RunStep":
        return self

    def limits(self) -> tuple[tuple[str, str], ...]:
        return tuple((key, limit) for key in LIMITS if (limit := getattr(self, key)))

    def must_have(self, *, passed: bool, settled: bool) -> tuple[str, ...]:
        named = (self.time_limit, self.pressure, self.pressure_by, self.coolant)
        return () if settled else tuple(limit for limit in named if limit)
