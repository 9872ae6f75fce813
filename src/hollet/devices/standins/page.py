"""The small page of a stand-in: what it shows, large, and keys for what it may be told."""

import html
import threading
from collections.abc import Callable
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import parse_qs

from hollet.core.errors import Refused

__all__ = ["serve_page"]

PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><title>{name}</title>
<meta name="viewport" content="width=device-width">
<style>body{{font:20px sans-serif;margin:24px;max-width:640px}}
output{{display:block;font:700 72px monospace;margin:16px 0}}
button,input{{font:inherit;min-height:56px;margin:4px;padding:4px 16px}}
.problem{{color:#a00}}</style>
<h1>{name}</h1><p>{id}, stands in for a real one</p><output>{shows}</output>
<form method="post"><input name="do" value="{last}" aria-label="what it does" autofocus>
<button>Do it</button></form><form method="post">{keys}</form>
<p class="problem" role="alert">{problem}</p><p>{commands}</p></html>"""


def serve_page(
    port: int,
    about: Callable[[], dict[str, str]],
    do: Callable[[str], None],
    keys: tuple[str, ...],
) -> ThreadingHTTPServer:
    """Serve the page on this machine only; returns the server, which runs in a thread."""

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self._answer("", "")

        def do_POST(self) -> None:
            size = min(int(self.headers.get("content-length") or 0), 1000)
            said = parse_qs(self.rfile.read(size).decode()).get("do", [""])[0]
            problem = ""
            origin = self.headers.get("origin")
            if origin is not None and origin != f"http://{self.headers.get('host')}":
                problem = "this page was not opened from its own address"
            else:
                try:
                    do(said)
                except Refused as refused:
                    problem = refused.message
            self._answer(said, problem)

        def _answer(self, last: str, problem: str) -> None:
            told = {k: html.escape(v) for k, v in about().items()}
            buttons = "".join(
                f'<button name="do" value="{html.escape(key)}">{html.escape(key)}</button>'
                for key in keys
            )
            text = PAGE.format(
                **told, keys=buttons, last=html.escape(last), problem=html.escape(problem)
            )
            self.send_response(200)
            self.send_header("content-type", "text/html; charset=utf-8")
            self.end_headers()
            self.wfile.write(text.encode())

        def log_message(self, format: str, *args: object) -> None:
            """Say nothing on the terminal: the figures stand there."""

    server = ThreadingHTTPServer(("127.0.0.1", port), Handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    return server
