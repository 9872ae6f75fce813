"""What goes out and comes in: archives, CSV, printed sheets."""
