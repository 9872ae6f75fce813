"""What an instrument has sent and a mechanic may take: a figure with its evidence."""

from typing import NamedTuple

from hollet.core.quantities.quantity import Quantity

__all__ = ["SentPull", "SentValue"]


class SentPull(NamedTuple):
    """The samples of a pull in the order of time: degrees on the wrench's own scale and N·m; the
    `file` that keeps them, and whether some were `lost` on the way.
    """

    angle: tuple[float, ...]
    torque: tuple[float, ...]
    file: str
    lost: bool


class SentValue(NamedTuple):
    """One reading that was sent: by which device and tool of the shop, heard when (UTC, ISO 8601),
    as which `raw` line; `trouble`: why it cannot be taken as it is; `began`: when
    the pull began that it ended.
    """

    id: str
    device: str
    tool: str | None
    heard: str
    raw: str
    value: Quantity
    angle: Quantity | None = None
    pull: SentPull | None = None
    trouble: str = ""
    began: str = ""
