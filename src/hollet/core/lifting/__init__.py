"""What hangs and what carries it: slings, links, stands, booms. Nothing here is ever conceded."""
