"""The findings desk of a build, and what is not as it left the works."""

from hollet.core.steps.inspection import InspectionView, inspection_view
from hollet.screens.changed import ChangedView, changed_view
from hollet.services.workshop import Workshop

__all__ = ["changes", "inspection"]


def inspection(workshop: Workshop, build: str) -> InspectionView:
    """Every inspection of a build, like parts side by side, money, explanations."""
    with workshop.held(build) as state:
        return inspection_view(state, tuple(workshop.tools().values()))


def changes(workshop: Workshop, build: str) -> ChangedView:
    """What is not as it left the works."""
    with workshop.held(build) as state:
        return changed_view(state)
