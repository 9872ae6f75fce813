"""Small devices that stand in for real ones: seeded, with faults, each a process of its own."""
