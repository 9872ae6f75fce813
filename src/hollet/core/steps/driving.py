"""Whether a vehicle has been driven since its build began, by the facts that stand."""

from hollet.core.entries import AttemptEnded, AttemptStarted, BookState, OdometerSaid, TrialDriven
from hollet.core.procedure.kinds import BaseStep

__all__ = ["NOT_DRIVEN", "undriven"]

NOT_DRIVEN = "nothing says that it was driven: no drive, no trial, no odometer before and after"


def undriven(state: BookState, step: BaseStep) -> str | None:
    """Why what is looked at after a drive cannot be looked at yet; None where a drive, a trial or a
    longer distance on the odometer stands in the log.
    """
    if step.vehicle != "driven" or state.all(TrialDriven) or _drove(state):
        return None
    read = [
        e.body.value.figure("distance") for e in state.each(OdometerSaid, "vehicle", "odometer")
    ]
    return None if read and read[-1] > min(read) else NOT_DRIVEN


def _drove(state: BookState) -> bool:
    ended = {e.body.attempt for e in state.all(AttemptEnded)}
    return any(
        e.body.rung == "drive" and e.body.attempt in ended for e in state.all(AttemptStarted)
    )
