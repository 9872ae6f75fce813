"""The FastAPI application: routers, one table from errors to HTTP, the live channel, the built
front end.
"""

import asyncio
import contextlib
import logging
import threading
from collections.abc import AsyncIterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request, WebSocket, WebSocketDisconnect
from fastapi.exceptions import RequestValidationError
from fastapi.responses import FileResponse, JSONResponse
from fastapi.routing import APIRoute
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.routing import Match

from hollet import __version__
from hollet.core.errors import Conflict, HolletError, NotFound, Refused, Unavailable
from hollet.services.devices import Pairing, known_device
from hollet.services.feed import attach
from hollet.services.upkeep import EVERY, copied_today
from hollet.services.workshop import Workshop
from hollet.web.access import TOKEN, Access, Gatekeeper
from hollet.web.feed import listen_serial, listen_tcp, open_doors
from hollet.web.models import Problem
from hollet.web.problems import answer
from hollet.web.routers import (
    builds,
    calendar,
    compute,
    desks,
    devices,
    parts,
    plans,
    rehearsal,
    shop,
    takedown,
)

__all__ = ["DIST", "STATUS", "Wires", "create_app"]

DIST = Path(__file__).parent / "dist"
STATUS: dict[type[HolletError], int] = {
    Refused: 422,
    NotFound: 404,
    Conflict: 409,
    Unavailable: 503,
}
PROBLEMS: dict[int | str, dict[str, Any]] = {
    code: {"model": Problem} for code in (400, 401, 403, 404, 409, 413, 422, 429, 503)
}


@dataclass(frozen=True, slots=True)
class Wires:
    """Where instruments come in besides the WebSocket: a TCP port, and serial lines by path."""

    port: int | None = None
    serial: tuple[str, ...] = ()


def create_app(
    workshop: Workshop,
    dist: Path = DIST,
    address: str | None = None,
    wires: Wires | None = None,
) -> FastAPI:
    """The application over one workshop; with `address` (host:port) it is open to the workshop
    network there, to paired devices. `wires`: where instruments come in besides.
    """
    hosts = frozenset({address}) if address else frozenset()
    access = Access(hosts, lambda token: bool(token) and known_device(workshop, token) is not None)

    feed = attach(workshop)

    @contextlib.asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        tasks = [
            asyncio.create_task(asyncio.to_thread(_warm)),
            asyncio.create_task(_upkeep(workshop)),
        ]
        ended = threading.Event()
        open_to = "0.0.0.0" if address else "127.0.0.1"
        tcp = await listen_tcp(feed, wires.port, open_to) if wires and wires.port else None
        for path in wires.serial if wires else ():
            listen_serial(feed, path, ended)
        yield
        ended.set()
        if tcp is not None:
            tcp.close()
        for task in tasks:
            task.cancel()

    app = FastAPI(
        title="Hollet",
        version=__version__,
        lifespan=lifespan,
        responses=PROBLEMS,
        docs_url=None,
        redoc_url=None,
        generate_unique_id_function=_name,
    )
    app.state.workshop = workshop
    app.state.feed = feed
    app.state.pairing = Pairing(workshop, address) if address else None
    app.add_middleware(Gatekeeper, access=access)
    for router in (
        shop.router,
        builds.router,
        plans.router,
        takedown.router,
        parts.router,
        calendar.router,
        desks.router,
        devices.router,
        compute.router,
        rehearsal.router,
    ):
        app.include_router(router, prefix="/api")
    _errors(app)
    _live(app, workshop, access)
    open_doors(app, workshop, feed, access)
    _pages(app, dist)
    return app


def _name(route: APIRoute) -> str:
    return route.name


def _warm() -> None:
    """Import what is slow after the start, not before the first page."""
    from hollet.core.verdicts import coverage_factor

    coverage_factor(4.0)


async def _upkeep(workshop: Workshop) -> None:
    """A copy a day, also of a Hollet that runs for weeks."""
    while True:
        await asyncio.sleep(EVERY)
        wrong = await asyncio.to_thread(copied_today, workshop)
        if wrong:
            logging.getLogger("uvicorn.error").warning(wrong)


def _errors(app: FastAPI) -> None:
    @app.exception_handler(HolletError)
    async def _(_: Request, error: HolletError) -> JSONResponse:
        status = next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)
        return answer(
            status, error.reason_code, error.message, error.field, getattr(error, "newer", ())
        )

    @app.exception_handler(RequestValidationError)
    async def _(_: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        field = ".".join(str(part) for part in first["loc"][1:]) or "body"
        status = 400 if first["type"] == "json_invalid" else 422
        return answer(status, "bad_input", f"'{field}': {first['msg']}", field)

    @app.exception_handler(HTTPException)
    async def _(_: Request, error: HTTPException) -> JSONResponse:
        return answer(error.status_code, "http", str(error.detail))


def _live(app: FastAPI, workshop: Workshop, access: Access) -> None:
    @app.websocket("/ws/live")
    async def live(socket: WebSocket) -> None:
        """Tells each open screen which build has moved on, and to which line; a device that is
        revoked hears nothing more.
        """
        token = socket.scope.get(TOKEN)
        await socket.accept()
        loop, queue = asyncio.get_running_loop(), asyncio.Queue[tuple[str, int]]()
        end = workshop.listen(
            lambda build, seq: loop.call_soon_threadsafe(queue.put_nowait, (build, seq))
        )
        reader = asyncio.create_task(_until_closed(socket))
        try:
            while not reader.done():
                getter = asyncio.create_task(queue.get())
                await asyncio.wait({getter, reader}, return_when=asyncio.FIRST_COMPLETED)
                if token is not None and not access.known(token):
                    getter.cancel()
                    reader.cancel()
                    await socket.close(1008, "not_paired")
                    break
                if getter.done():
                    build, seq = getter.result()
                    await socket.send_json({"build": build, "seq": seq})
                else:
                    getter.cancel()
        except (WebSocketDisconnect, RuntimeError):
            # the screen went away while it was being told: nothing is lost, it asks when it returns
            reader.cancel()
        finally:
            end()


def _unknown(app: FastAPI, path: str) -> Exception:
    """What is wrong with an address below the doors: its method, or all of it."""
    scope = {"type": "http", "path": f"/{path}", "method": "GET", "root_path": "", "headers": []}
    if any(route.matches(scope)[0] is Match.PARTIAL for route in app.router.routes):
        return HTTPException(405, f"'/{path}' is there, and cannot be asked in this way")
    return NotFound("address", path)


async def _until_closed(socket: WebSocket) -> None:
    with contextlib.suppress(WebSocketDisconnect):
        while True:
            await socket.receive_text()


def _pages(app: FastAPI, dist: Path) -> None:
    if (dist / "assets").is_dir():
        app.mount("/assets", StaticFiles(directory=dist / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str) -> FileResponse:
        """The one page; the front end reads the address."""
        if path.startswith(("api/", "ws/", "assets/")):
            raise _unknown(app, path)
        file = dist / path
        known = path in ("favicon.svg", "sw.js") and file.is_file()
        if not (dist / "index.html").is_file():
            raise Unavailable(
                "the front end is not built yet: run 'make build'", reason_code="not_built"
            )
        return FileResponse(
            file if known else dist / "index.html",
            headers={} if path == "favicon.svg" else {"Cache-Control": "no-cache"},
        )
