"""Faults of a build."""

from hollet.screens.faults import FaultsView, faults_view
from hollet.services.workshop import Workshop

__all__ = ["faults"]


def faults(workshop: Workshop, build: str) -> FaultsView:
    """What is wrong, what it can be, and which test splits it."""
    with workshop.held(build) as state:
        return faults_view(state, tuple(workshop.tools().values()))
