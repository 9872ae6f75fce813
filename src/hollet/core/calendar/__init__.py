"""Evenings, helpers and pace: what work fits into the time there is."""
