"""Use cases: they own transactions and the clock."""
