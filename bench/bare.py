"""The bare limit that Hollet's speed is measured against: FastAPI, SQLAlchemy and uvicorn with a
page and one endpoint that keeps one row, synced to disk.
"""

import sys

import uvicorn
from fastapi import FastAPI
from fastapi.responses import HTMLResponse
from pydantic import BaseModel
from sqlalchemy import Text, create_engine, event
from sqlalchemy.orm import DeclarativeBase, Mapped, Session, mapped_column


class Base(DeclarativeBase):
    """Metadata."""


class Row(Base):
    """One row."""

    __tablename__ = "row"
    id: Mapped[str] = mapped_column(Text, primary_key=True)
    body: Mapped[str] = mapped_column(Text)


class Sent(BaseModel):
    """What is sent."""

    id: str
    body: str


def make(file: str) -> FastAPI:
    """The application on one SQLite file."""
    engine = create_engine(f"sqlite:///{file}")

    @event.listens_for(engine, "connect")
    def _(connection, _record) -> None:
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")

    Base.metadata.create_all(engine)
    app = FastAPI()

    @app.get("/")
    def page() -> HTMLResponse:
        return HTMLResponse("<h1>bare</h1>")

    @app.post("/rows")
    def keep(sent: Sent) -> Sent:
        with Session(engine) as session, session.begin():
            session.add(Row(id=sent.id, body=sent.body))
        return sent

    return app


if __name__ == "__main__":
    uvicorn.run(make(sys.argv[2]), port=int(sys.argv[1]), log_level="warning", access_log=False)
