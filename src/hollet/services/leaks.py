"""Fluids and leaks of a build."""

from datetime import date

from hollet.screens.leaks import LeaksView, leaks_view
from hollet.services.workshop import Workshop

__all__ = ["leaks"]


def leaks(workshop: Workshop, build: str) -> LeaksView:
    """What is under pressure, what leaked, and the table of fluids."""
    with workshop.held(build) as state:
        return leaks_view(state, date.fromisoformat(workshop.now()[:10]))
