"""Instruments that speak for themselves: the line protocol, what was heard, and stand-ins."""
