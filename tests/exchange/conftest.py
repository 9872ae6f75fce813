"""A workshop with one build, as the services have it."""

from tests.services.conftest import hand, workshop

__all__ = ["hand", "workshop"]
