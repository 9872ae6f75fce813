"""The command line: serve, demo, compute, sheet check, backup, restore, verify."""

import json
import os
import shutil
import socket
import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from hollet.cli.device import device
from hollet.core.catalogue import compute as run_calculation
from hollet.core.catalogue import names
from hollet.core.errors import HolletError, Refused, Unavailable

if TYPE_CHECKING:
    from hollet.services.workshop import Workshop

__all__ = ["app"]

app = typer.Typer(no_args_is_help=True, add_completion=False, help=__doc__)
sheet_app = typer.Typer(no_args_is_help=True, help="Procedure sheets.")
app.add_typer(sheet_app, name="sheet")
app.command()(device)
Port = Annotated[int, typer.Option(help="Port on 127.0.0.1.")]
Initials = Annotated[str, typer.Option("--who", help="The initials of who takes it so.")]
Data = Annotated[
    Path | None,
    typer.Option(
        "--data", help="Folder of the data; else HOLLET_DATA, else ~/.local/share/hollet."
    ),
]


def data_folder(given: Path | None) -> Path:
    """Where the data is."""
    return given or Path(
        os.environ.get("HOLLET_DATA") or Path.home() / ".local" / "share" / "hollet"
    )


def fail(message: str) -> typer.Exit:
    """One sentence to the error channel, exit code 1."""
    typer.echo(message, err=True)
    return typer.Exit(1)


Open = Annotated[
    bool,
    typer.Option(
        "--workshop",
        help="Open Hollet to the workshop network too, for paired phones and tablets only.",
    ),
]
Address = Annotated[
    str | None,
    typer.Option(
        help="The address of this machine on the workshop network; found by itself when left out."
    ),
]


InstrumentPort = Annotated[
    int | None, typer.Option(help="Take instruments in over TCP too, at this port.")
]
Serial = Annotated[
    list[str] | None, typer.Option(help="A serial line with an instrument at it; may be repeated.")
]


@app.command()
def serve(
    port: Port = 8765,
    data: Data = None,
    workshop_network: Open = False,
    address: Address = None,
    instrument_port: InstrumentPort = None,
    serial: Serial = None,
) -> None:
    """Start Hollet on this machine."""
    import uvicorn

    from hollet.services.workshop import Workshop
    from hollet.web.app import Wires, create_app

    if not port_free(port):
        raise fail(f"Port {port} is busy: stop what uses it, or start with --port {port + 1}.")
    try:
        workshop = Workshop(data_folder(data))
        found = workshop.store.damage()
        if found:
            raise Unavailable(
                f"the database is damaged ({found}): restore a backup with 'hollet restore FILE'"
            )
        workshop.store.daily_backup(datetime.now(UTC))
    except (HolletError, OSError) as error:
        raise fail(f"Hollet cannot start: {error}") from error
    typer.echo(
        f"Hollet is on http://127.0.0.1:{port}  (data in {data_folder(data)}; Ctrl-C stops it)"
    )
    at = f"{address or own_address()}:{port}" if workshop_network else None
    if at:
        typer.echo(
            f"Open to the workshop network on http://{at}, for paired devices only: pair them "
            "under Phones, on this machine. "
            "It is plain http: use it in your own network, never in a public one."
        )
    uvicorn.run(
        create_app(workshop, address=at, wires=Wires(instrument_port, tuple(serial or ()))),
        host="0.0.0.0" if at else "127.0.0.1",
        port=port,
        log_level="warning",
        access_log=False,
        proxy_headers=False,
    )
    workshop.close()


def own_address() -> str:
    """The address by which this machine goes out to its network; nothing is sent. 127.0.0.1 without
    a network.
    """
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))
        except OSError:
            return "127.0.0.1"
        return str(probe.getsockname()[0])


def port_free(port: int) -> bool:
    """Whether nobody listens on the port."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


@app.command()
def demo(
    port: Port = 8765,
    data: Data = Path("demo-data"),
    fresh: bool = False,
    only_make: bool = False,
    workshop_network: Open = False,
    address: Address = None,
) -> None:
    """Start Hollet with the demo data; it is made once and kept. --fresh makes it anew."""
    from hollet.services.demo import make_demo

    folder = data_folder(data)
    if not only_make and not port_free(port):
        raise fail(f"Port {port} is busy: stop what uses it, or start with --port {port + 1}.")
    if fresh and folder.exists():
        shutil.rmtree(folder)
    if not (folder / "hollet.sqlite").exists():
        making = folder.with_name(folder.name + ".making")
        shutil.rmtree(making, ignore_errors=True)
        make_demo(making)
        shutil.rmtree(folder, ignore_errors=True)
        making.rename(folder)
    if not only_make:
        serve(port, folder, workshop_network, address)


@app.command()
def compute(
    name: Annotated[str | None, typer.Argument()] = None,
    list_all: Annotated[bool, typer.Option("--list")] = False,
) -> None:
    """Run a calculation: JSON in on the standard input, JSON out. A refusal has exit code 2."""
    if list_all or name is None:
        typer.echo("\n".join(names()))
        return
    try:
        text = "" if sys.stdin.isatty() else sys.stdin.read()
        data: Any = json.loads(text or "{}")
        if not isinstance(data, dict):
            raise Refused(
                "bad_input",
                'the input must be a JSON object such as {"text": "3.5 thou"}',
                field="input",
            )
        typer.echo(json.dumps(run_calculation(name, data), ensure_ascii=False))
    except json.JSONDecodeError as error:
        refuse("bad_input", f"the input is not JSON: {error}")
    except HolletError as error:
        refuse(error.reason_code, error.message)


def refuse(code: str, message: str) -> None:
    """A refusal as JSON, exit code 2."""
    typer.echo(
        json.dumps({"refuse": True, "reason_code": code, "message": message}, ensure_ascii=False)
    )
    raise typer.Exit(2)


def looked_at(data: Path | None) -> "Workshop":
    """The workshop in the data folder, beside a Hollet that may run on it; nothing is made."""
    from hollet.services.workshop import Workshop

    try:
        return Workshop(data_folder(data), look=True)
    except HolletError as error:
        raise fail(error.message) from error


@app.command()
def backup(file: Path, data: Data = None) -> None:
    """Copy the whole database to FILE while Hollet runs."""
    workshop = looked_at(data)
    typer.echo(f"Copied to {workshop.store.backup(file)}")
    workshop.close()


@app.command()
def restore(file: Path, data: Data = None) -> None:
    """Put a backup in place of the database; the old one is kept beside it. Stop Hollet first."""
    folder = data_folder(data)
    if not file.is_file():
        raise fail(f"There is no file {file}.")
    from hollet.services.restoring import restore_backup

    try:
        kept = restore_backup(file, folder, datetime.now(UTC))
    except HolletError as error:
        raise fail(error.message) from error
    typer.echo(f"Restored into {folder}" + (f"; the database before it is {kept}" if kept else ""))


@app.command()
def verify(data: Data = None) -> None:
    """Check the database, every chain and every plan; exit code 1 when something is broken."""
    from hollet.services.verifying import verify as check

    workshop = looked_at(data)
    lines = check(workshop)
    workshop.close()
    typer.echo("\n".join(lines))
    if any(line.startswith("broken") for line in lines):
        raise typer.Exit(1)


@sheet_app.command("check")
def sheet_check(file: Path) -> None:
    """Hold a sheet against the laws: each breach with its line and what would be right. Exit code 1
    when one is broken, 2 when the sheet would be refused.
    """
    from hollet.services.sheets import look_at_sheet

    try:
        look = look_at_sheet(file.read_text("utf-8"))
    except (OSError, UnicodeDecodeError) as error:
        raise fail(f"{file} cannot be read: {error}") from error
    except HolletError as error:
        typer.echo(error.message, err=True)
        raise typer.Exit(2) from error
    for breach in look.breaches:
        at = f"line {breach.line}" if breach.line else "sheet"
        typer.echo(f"{at}, {breach.field}: {breach.words}")
        typer.echo(f"  {'SAFETY, ' if breach.safety else ''}{breach.name}. Right: {breach.right}")
    typer.echo(look.words)
    if look.breaches:
        raise typer.Exit(2 if look.refused else 1)


@app.command()
def seal(who: Initials, data: Data = None) -> None:
    """Take everything as it stands now for what Hollet left, where it was changed past Hollet on
    purpose. Stop Hollet first; the shop's log says who took what.
    """
    from hollet.services.verifying import accept_as_it_is
    from hollet.services.workshop import Workshop

    try:
        workshop = Workshop(data_folder(data))
        taken = accept_as_it_is(workshop, who)
        workshop.close()
    except HolletError as error:
        raise fail(error.message) from error
    typer.echo("\n".join(f"taken as it is: {words}" for words in taken) or "nothing was changed")


@app.command()
def openapi() -> None:
    """Print the OpenAPI schema, from which the front end's types are made."""
    import tempfile

    from hollet.services.workshop import Workshop
    from hollet.web.app import create_app

    with tempfile.TemporaryDirectory() as folder:
        workshop = Workshop(Path(folder))
        typer.echo(
            json.dumps(create_app(workshop).openapi(), indent=1, sort_keys=True, ensure_ascii=False)
        )
        workshop.close()


if __name__ == "__main__":
    app()
