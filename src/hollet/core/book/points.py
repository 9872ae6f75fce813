"""Places under a vehicle and its units: where a support may stand, and where never."""

from hollet.core.procedure.words import Carried
from hollet.core.view import View

__all__ = ["NOT_SAID", "POINTS", "Point", "forbidden_point"]

NOT_SAID = "place not said"


class Point(View):
    """A place to support: its body, where it lies in the plan view (0..1 from the front, 0..1 from
    the left), or why never there.
    """

    id: str
    name: str
    body: Carried
    x: float
    y: float
    forbidden: str | None = None


POINTS: tuple[Point, ...] = tuple(
    Point(id=i, name=n, body=b, x=x, y=y, forbidden=f)
    for i, n, b, x, y, f in (
        ("frame_fl", "frame, front left", "vehicle", 0.30, 0.28, None),
        ("frame_fr", "frame, front right", "vehicle", 0.30, 0.72, None),
        ("frame_rl", "frame, rear left", "vehicle", 0.66, 0.28, None),
        ("frame_rr", "frame, rear right", "vehicle", 0.66, 0.72, None),
        ("wheel_fl", "front left wheel", "vehicle", 0.16, 0.10, None),
        ("wheel_fr", "front right wheel", "vehicle", 0.16, 0.90, None),
        ("wheel_rl", "rear left wheel", "vehicle", 0.82, 0.10, None),
        ("wheel_rr", "rear right wheel", "vehicle", 0.82, 0.90, None),
        ("axle_l", "axle tube, left", "axle", 0.82, 0.30, None),
        ("axle_r", "axle tube, right", "axle", 0.82, 0.70, None),
        ("axle_mid", "axle casing", "axle", 0.82, 0.50, None),
        ("hub_l", "left hub or lower arm", "hub", 0.16, 0.24, None),
        ("hub_r", "right hub or lower arm", "hub", 0.16, 0.76, None),
        ("eye_front", "front lifting eye", "engine", 0.12, 0.50, None),
        ("eye_rear", "rear lifting eye", "engine", 0.22, 0.50, None),
        ("block_rail", "rails of the block", "engine", 0.17, 0.44, None),
        ("bell", "bell housing", "engine", 0.25, 0.50, None),
        ("box_front", "gearbox, front of the case", "gearbox", 0.32, 0.50, None),
        ("box_tail", "gearbox tail", "gearbox", 0.44, 0.50, None),
        ("unit_floor", "whole unit, on the floor", "powertrain", 0.24, 0.50, None),
        ("sill", "sill seam", "vehicle", 0.48, 0.16, "the seam folds and the vehicle comes off"),
        (
            "floor_pan",
            "floor pan, bonded panel",
            "vehicle",
            0.52,
            0.62,
            "sheet metal carries nothing",
        ),
        (
            "sump",
            "sump pan",
            "engine",
            0.19,
            0.58,
            "thin sheet: it dents, and the pump pick-up with it",
        ),
        (
            "bolts",
            "bolts and studs",
            "other",
            0.36,
            0.62,
            "weight hangs on jack or sling, never on a bolt",
        ),
        ("diff_cover", "thin axle cover", "axle", 0.90, 0.50, "it cracks and leaks"),
    )
)


def forbidden_point(point: str) -> str | None:
    """Why nothing may stand under this point, or None."""
    return next(
        (p.forbidden for p in POINTS if p.name.casefold() == point.strip().casefold()), None
    )
