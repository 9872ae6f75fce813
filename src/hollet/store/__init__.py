"""The log and the tables behind protocols: in SQLite, sealed, and in memory."""
