"""Clients of the application, by where they ask from."""

from fastapi import FastAPI
from fastapi.testclient import TestClient

__all__ = ["from_here"]


def from_here(app: FastAPI) -> TestClient:
    """A client on this machine."""
    return TestClient(app, base_url="http://127.0.0.1", client=("127.0.0.1", 50000))
