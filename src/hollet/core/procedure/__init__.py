"""Sheets and plans: kinds of steps, changes, order with its reasons, formulas."""
