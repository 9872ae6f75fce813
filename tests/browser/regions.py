"""One helper for the bench: verbs are what a mechanic does, each returns when the
screen shows it.
"""

import json
import urllib.error
import urllib.request
import uuid
from typing import Any

import uuid_utils
from playwright.sync_api import Locator, Page, expect

from hollet.library.pictures import picture

ONCE = (" ", "PageDown", "0")
"""Keys of which a second press within 0.6 s is ignored."""


def api(url: str, path: str, body: Any = None) -> Any:
    """One call to the server, JSON in and out."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url + path, data, {"content-type": "application/json"})
    return json.load(urllib.request.urlopen(request, timeout=60))


def write(url: str, build: str, entry: dict) -> Any:
    """Write an entry past the screen, as another screen would."""
    body = {
        "id": str(uuid_utils.uuid7()),
        "who": "TR",
        "bench_time": "2026-03-01T09:00:00Z",
        "seen": 10**9,
        "entry": entry,
    }
    return api(url, f"/api/builds/{build}/entries", body)


def refused(url: str, build: str, entry: dict) -> Any:
    """An entry that the server does not take: what it answers."""
    try:
        write(url, build, entry)
    except urllib.error.HTTPError as refusal:
        return json.load(refusal)
    raise AssertionError(f"taken: {entry}")


def new_build(url: str, name: str = "Job", sheet: str = "top-end") -> str:
    """A build of a shipped sheet."""
    body = {
        "id": str(uuid.uuid4()),
        "who": "TR",
        "sheets": [sheet],
        "name": name,
        "vehicle": "Two",
        "about": "on the lift",
    }
    return str(api(url, "/api/builds", body)["id"])


def limit(url: str, build: str, name: str, **said: str) -> None:
    """Give a figure its limits, as the plan desk would."""
    version = api(url, f"/api/builds/{build}/plan")["version"]
    act = {"act": "limit", "limit": name, "version": 1, "source": "book", **said}
    api(
        url,
        f"/api/builds/{build}/plan",
        {
            "id": str(uuid_utils.uuid7()),
            "who": "TR",
            "version": version,
            "acts": [act],
            "reason": None,
        },
    )


class Bench:
    """The working screen."""

    def __init__(self, page: Page) -> None:
        self.page = page

    def go(self, url: str, title: str | None = None) -> "Bench":
        """Open an address and wait for its title, or for any: a key pressed before the view stands
        is nobody's.
        """
        self.page.goto(url)
        if title:
            self.shows(title)
        else:
            expect(self.page.locator("h1").first).to_be_visible()
        return self

    def go_shop(self, url: str) -> "Bench":
        """Open the Shop and wait until it says where one was."""
        self.page.goto(url)
        return self.in_shop()

    def in_shop(self) -> "Bench":
        """Wait until the Shop says where one was."""
        expect(self.page.get_by_text("Where you were")).to_be_visible()
        return self

    def shows(self, title: str) -> "Bench":
        """Wait until the title says so."""
        expect(self.page.locator("h1")).to_contain_text(title)
        return self

    def quiet(self) -> "Bench":
        """Wait until the page asks for nothing more: what it asks again when its live channel opens
        would otherwise bring in what another screen wrote meanwhile.
        """
        self.page.wait_for_load_state("networkidle")
        return self

    def key(self, key: str) -> None:
        """Press a key with nothing in focus; what a double press would swallow, later than one
        would count.
        """
        self.page.evaluate(
            "document.activeElement instanceof HTMLElement && document.activeElement.blur()"
        )
        if key in ONCE:
            self.page.wait_for_timeout(620)
        self.page.keyboard.press(key)

    def primary(self) -> Locator:
        """The one primary button."""
        return self.page.locator("button.primary")

    def press(self, name: str) -> None:
        """Press a button by its words."""
        self.page.get_by_role("button", name=name).first.click()

    def reason(self, words: str, button: str) -> None:
        """Give a reason in the dialog that asks for one."""
        dialog = self.page.get_by_role("dialog")
        dialog.locator("textarea").fill(words)
        dialog.get_by_role("button", name=button).click()
        expect(dialog).to_be_hidden()

    def written(self, words: str) -> None:
        """Wait until the newest line says so."""
        expect(self.page.locator(".written li").last).to_contain_text(words)

    def confirm_caution(self) -> None:
        """Press the box of a precondition where there is one."""
        box = self.page.locator("button.confirm:not(.yes)")
        if box.count():
            box.click()
            expect(self.page.locator("button.confirm.yes")).to_be_visible()

    def keep_as_found(self, kind: str) -> None:
        """Keep the capture that is asked for first, with the least that its kind takes."""
        self.press("Keep it")
        dialog = self.page.get_by_role("dialog")
        if kind == "photo":
            dialog.locator("input[name=photo]").set_input_files(
                {"name": "p.jpg", "mimeType": "image/jpeg", "buffer": picture("bay")}
            )
            expect(dialog.get_by_text("photo is kept")).to_be_visible()
        if kind == "mark":
            dialog.locator("input[name=place]").fill("left edge")
        if kind == "wires":
            dialog.locator("input[name=terminal0]").fill("B")
            dialog.get_by_role("button", name="black", exact=True).click()
        if kind == "length":
            dialog.locator("input[name=typed]").fill("61.5 mm")
        dialog.get_by_role("button", name="Kept as found").click()
        expect(dialog).to_be_hidden()

    def read(self, text: str, *, sure: bool = False) -> None:
        """Type a reading and Enter; `sure` answers the question about an odd one."""
        field = self.page.locator("input[name=reading]")
        field.fill(text)
        field.press("Enter")
        if sure:
            self.press("It is right, write it")
        self.written(f"typed {text}")
        self.page.wait_for_function(
            "() => !document.querySelector('input[name=reading]')?.value"
        )  # the one before may read the same
