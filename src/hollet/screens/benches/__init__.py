"""Benches, one module a kind of step."""
