"""What holds across kinds of steps: passing, left open, load, gates, bags, the order back."""
