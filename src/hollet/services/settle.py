"""What settles on a build, and what its vehicle is fit to."""

from hollet.screens.settle import SettleView, settle_view
from hollet.services.workshop import Workshop

__all__ = ["settling"]


def settling(workshop: Workshop, build: str) -> SettleView:
    """Measured again beside the first figure."""
    with workshop.held(build) as state:
        return settle_view(state, tuple(workshop.tools().values()), workshop.now())
