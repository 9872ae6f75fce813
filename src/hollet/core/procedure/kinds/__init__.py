"""The kinds of step that a sheet may have, one a module; the union is told apart by `kind`."""

from typing import Annotated, get_args

from pydantic import Field

from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.procedure.kinds.remove import RemoveStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.kinds.tighten import TightenStep

__all__ = ["STEP_KINDS", "BaseStep", "Step"]

Step = Annotated[
    CheckStep | InspectStep | RemoveStep | MeasureStep | TightenStep | FillStep | RunStep,
    Field(discriminator="kind"),
]
STEP_KINDS = frozenset(
    word
    for kind in get_args(get_args(Step)[0])
    for word in get_args(kind.model_fields["kind"].annotation)
)
"""The words by which a sheet names them."""
