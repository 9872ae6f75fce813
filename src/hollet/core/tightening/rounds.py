"""The rounds of a joint: in which stages a torque is reached."""

import itertools
import math

from hollet.core.errors import Refused
from hollet.core.fields import Torque
from hollet.core.quantities.quantity import Quantities, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["stages"]


class Stages(Input):
    """A final torque, the percentages of its stages, and the graduation of the wrench."""

    final_torque: Torque = None
    stages_percent: list[float]
    graduation: Torque = None


class StagesResult(Result):
    """Torque of each stage."""

    torques: Quantities


@calculation("Torque of each stage")
def stages(i: Stages) -> StagesResult:
    """All stages but the last are rounded down to the graduation.

    Raises
    ------
    Refused
        `stages_not_rising`, `last_stage_not_100`, `torque_not_positive`, `not_a_finite_number`.
    """
    final = i.figure("final_torque")
    if final <= 0:
        raise Refused(
            "torque_not_positive", "'final_torque' must be above zero", field="final_torque"
        )
    percents = i.stages_percent
    if not percents or not all(math.isfinite(p) for p in percents):
        raise Refused(
            "not_a_finite_number",
            "'stages_percent' must list percentages such as 30, 60, 100",
            field="stages_percent",
        )
    if percents[0] <= 0 or any(a >= b for a, b in itertools.pairwise(percents)):
        raise Refused(
            "stages_not_rising", "the stages must rise, such as 30, 60, 100", field="stages_percent"
        )
    if percents[-1] != 100:
        raise Refused("last_stage_not_100", "the last stage must be 100 %", field="stages_percent")
    grid = i.figure("graduation") if i.graduation else 0.0
    if grid < 0:
        raise Refused(
            "torque_not_positive", "'graduation' must not be below zero", field="graduation"
        )
    raw = [final * p / 100 for p in percents]
    found = [math.floor(round9(t / grid)) * grid if grid else t for t in raw[:-1]] + [final]
    if found[0] <= 0 or any(round9(a) >= round9(b) for a, b in itertools.pairwise(found)):
        raise Refused(
            "stages_not_rising",
            f"on a graduation of {grid:g} N·m two stages come out alike, or one at nothing: "
            "fewer stages, or a finer wrench",
            field="graduation",
        )
    unit = i.final_torque.unit if i.final_torque else "N·m"
    return StagesResult(
        torques=Quantities(
            value=[in_unit(t, unit).value for t in found], unit=in_unit(final, unit).unit
        ),
        working=tuple(
            f"{final:g} × {p:g} % = {t:g} N·m" for p, t in zip(percents, raw, strict=True)
        ),
    )
