"""What the builds of the shop are called, and of which vehicle they are."""

from hollet.services.workshop import Workshop

__all__ = ["build_names", "build_rows"]


def build_rows(workshop: Workshop) -> dict[str, tuple[str, str, str, str]]:
    """Id, name, vehicle and its words of every build, the oldest first."""

    def read() -> dict[str, tuple[str, str, str, str]]:
        with workshop.store.read() as books:
            of = {v.id: v for v in books.vehicles.all()}
            found = sorted(books.builds.all(), key=lambda b: b.made)
        return {b.id: (b.id, b.name, of[b.vehicle].name, of[b.vehicle].about) for b in found}

    return workshop.kept(("rows",), workshop.store.version, read)


def build_names(workshop: Workshop) -> dict[str, str]:
    """The name of every build, the oldest first."""
    return {build: name for build, name, _, _ in build_rows(workshop).values()}
