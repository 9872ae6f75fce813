"""What a running Hollet does by itself: today's copy."""

from hollet.core.errors import HolletError
from hollet.services.workshop import Workshop

__all__ = ["EVERY", "copied_today"]

EVERY = 600.0
"""Seconds between two looks whether today has its copy."""


def copied_today(workshop: Workshop) -> str:
    """Make today's copy where there is none; "" or why it could not be made, in a sentence."""
    try:
        workshop.store.daily_backup(workshop.clock())
    except (OSError, HolletError) as error:
        return f"today's copy could not be made: {error}"
    return ""
