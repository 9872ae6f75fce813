"""The findings desk of a build."""

from hollet.core.steps.inspection import InspectionView, inspection_view
from hollet.services.workshop import Workshop

__all__ = ["inspection"]


def inspection(workshop: Workshop, build: str) -> InspectionView:
    """Every inspection of a build, like parts side by side, money, explanations."""
    with workshop.held(build) as state:
        return inspection_view(state, tuple(workshop.tools().values()))
