"""Hollet: a build book for engines, drivetrains and suspension that does the arithmetic."""

__version__ = "0.1.0"
