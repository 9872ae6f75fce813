"""The first run: the watch over its samples, and the rules of thumb that lead up to it."""
