"""The doors to a browser: one request, one service, one answer."""
