"""The ties of a build."""

from hollet.screens.ties import TiesView, ties_view
from hollet.services.workshop import Workshop

__all__ = ["tied"]


def tied(workshop: Workshop, build: str) -> TiesView:
    """Every line that was parted, where it is tucked, whether it is back and proven."""
    with workshop.held(build) as state:
        return ties_view(state)
