"""Work: how each kind of step stands, from the facts of the log."""
