"""Figures as mechanics write them, exact in their units."""
