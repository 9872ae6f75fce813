"""What a screen draws: typed views composed from the facts of the core, pure functions."""
