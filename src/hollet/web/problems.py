"""A refusal as the answer to a request."""

from fastapi.responses import JSONResponse

from hollet.web.models import Problem

__all__ = ["answer"]

QUESTIONS = (
    "odd_figure",
    "source_asked",
    "logged_already",
    "count_asked",
    "force_limit",
    "moves_shut",
    "far_move",
)
"""Refusals that only ask."""


def answer(
    status: int, code: str, message: str, field: str | None = None, newer: tuple[str, ...] = ()
) -> JSONResponse:
    """The Problem with this status."""
    problem = Problem(
        reason_code=code,
        message=message,
        field=field,
        newer=list(newer),
        asks=code in QUESTIONS,
    )
    return JSONResponse(problem.model_dump(), status_code=status)
