"""The command line: one command, one service."""
