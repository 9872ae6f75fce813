"""Line pictures for the demo, drawn here: no photo of a real vehicle ships with Hollet.

Each is a JPEG.
"""

import io
from collections.abc import Callable
from math import cos, pi, sin
from typing import Any

__all__ = ["PICTURES", "picture"]

WIDE, HIGH = 960, 720
PAPER, INK, PART, DARK = "#e9ecec", "#20282c", "#c6ced1", "#8d989d"
Point = tuple[float, float]


def _ring(draw: Any, x: float, y: float, r: float, fill: str = PART, width: int = 5) -> None:
    draw.ellipse([x - r, y - r, x + r, y + r], fill=fill, outline=INK, width=width)


def _shape(draw: Any, points: list[Point], fill: str = PART) -> None:
    draw.polygon(points, fill=fill)
    draw.line([*points, points[0]], fill=INK, width=6, joint="curve")


def _bolts(draw: Any, points: list[Point]) -> None:
    for x, y in points:
        _ring(draw, x, y, 15, fill=DARK, width=4)
        draw.line([x - 8, y, x + 8, y], fill=INK, width=3)


def _bay(draw: Any) -> None:
    _shape(draw, [(90, 120), (870, 120), (900, 640), (60, 640)], PAPER)
    _shape(draw, [(330, 200), (640, 200), (660, 560), (310, 560)])
    for k in range(4):
        _ring(draw, 380 + k * 72, 300, 24, fill=DARK)
    _shape(draw, [(120, 180), (260, 180), (260, 330), (120, 330)], DARK)
    _shape(draw, [(700, 420), (840, 420), (840, 600), (700, 600)])
    _ring(draw, 770, 250, 70)
    for x0, y0, x1, y1 in (
        (260, 250, 330, 250),
        (640, 300, 700, 260),
        (480, 560, 480, 640),
        (640, 480, 700, 500),
        (310, 520, 200, 600),
    ):
        draw.line([x0, y0, x1, y1], fill=INK, width=12)


def _starter(draw: Any) -> None:
    _shape(draw, [(120, 250), (720, 250), (760, 320), (760, 520), (120, 520)])
    _shape(draw, [(260, 120), (640, 120), (640, 250), (260, 250)], DARK)
    _ring(draw, 330, 185, 34)
    _ring(draw, 450, 185, 22)
    _ring(draw, 560, 185, 34)
    draw.line([330, 185, 330, 40], fill=INK, width=26)
    draw.line([560, 185, 700, 40], fill=INK, width=20)
    draw.line([450, 185, 450, 30], fill=INK, width=8)
    _ring(draw, 820, 420, 74)
    for k in range(9):
        a = k * 2 * pi / 9
        draw.line(
            [820 + 74 * cos(a), 420 + 74 * sin(a), 820 + 94 * cos(a), 420 + 94 * sin(a)],
            fill=INK,
            width=10,
        )


def _front_cover(draw: Any) -> None:
    _shape(
        draw,
        [
            (300, 90),
            (660, 90),
            (780, 240),
            (790, 480),
            (660, 640),
            (300, 640),
            (170, 480),
            (180, 240),
        ],
    )
    _ring(draw, 480, 400, 120, fill=DARK)
    _ring(draw, 480, 400, 50)
    _bolts(
        draw,
        [
            (300, 120),
            (480, 104),
            (660, 120),
            (766, 330),
            (690, 600),
            (480, 626),
            (270, 600),
            (194, 330),
        ],
    )


def _rockers(draw: Any) -> None:
    _shape(draw, [(60, 140), (900, 140), (900, 600), (60, 600)], PAPER)
    draw.line([80, 370, 880, 370], fill=INK, width=34)
    for k in range(8):
        x = 130 + k * 100
        side = -1 if k % 2 else 1
        _shape(
            draw,
            [(x - 24, 350), (x + 24, 350), (x + 16, 370 + side * 130), (x - 16, 370 + side * 130)],
        )
        _ring(draw, x, 370 + side * 130, 20, fill=DARK)
    _bolts(draw, [(180 + k * 150, 370) for k in range(5)])


def _bell(draw: Any) -> None:
    _ring(draw, 480, 360, 300)
    _ring(draw, 480, 360, 190, fill=PAPER)
    _ring(draw, 480, 360, 60, fill=DARK)
    _bolts(
        draw,
        [(480 + 262 * cos(a), 360 + 262 * sin(a)) for a in (-2.4, -1.57, -0.74, 0.6, 1.57, 2.54)],
    )
    _shape(draw, [(80, 520), (230, 520), (230, 680), (80, 680)], DARK)


def _forks(draw: Any) -> None:
    for y in (200, 360, 520):
        draw.line([70, y, 890, y], fill=INK, width=22)
    for x, y in ((250, 200), (480, 360), (700, 520)):
        _shape(
            draw,
            [
                (x - 30, y - 40),
                (x + 30, y - 40),
                (x + 26, y + 50),
                (x + 70, y + 120),
                (x + 40, y + 130),
                (x, y + 80),
                (x - 40, y + 130),
                (x - 70, y + 120),
                (x - 26, y + 50),
            ],
        )
    _bolts(draw, [(120, 200), (120, 360), (120, 520)])


def _spring(draw: Any) -> None:
    draw.line([30, 120, 930, 120], fill=INK, width=30)
    for k, half in enumerate((380, 320, 265, 210, 150, 95, 50)):
        bow = [
            (480 + x * half / 10, 470 + 22 * k - 120 * (x * half / 3800) ** 2)
            for x in range(-10, 11)
        ]
        draw.line(bow, fill=INK, width=16, joint="curve")
        draw.line(bow, fill=PART, width=8, joint="curve")
    _ring(draw, 100, 350, 40)
    _ring(draw, 860, 350, 40)
    _shape(draw, [(80, 130), (120, 130), (116, 350), (84, 350)])
    _shape(draw, [(880, 130), (910, 130), (874, 350), (846, 350)])
    _ring(draw, 480, 400, 64, fill=DARK)
    for x in (410, 550):
        draw.line([x, 330, x, 660], fill=INK, width=14)


def _leaves(draw: Any) -> None:
    for k, half in enumerate((400, 360, 300, 250, 190, 130, 80)):
        y = 90 + 88 * k
        _shape(draw, [(480 - half, y), (480 + half, y), (480 + half, y + 44), (480 - half, y + 44)])
        _ring(draw, 480, y + 22, 12, fill=PAPER, width=4)


def _axle(draw: Any) -> None:
    _shape(draw, [(120, 120), (840, 120), (900, 360), (840, 620), (120, 620), (60, 360)])
    _shape(draw, [(180, 170), (780, 170), (830, 360), (780, 570), (180, 570), (130, 360)], DARK)
    _ring(draw, 420, 360, 170)
    for k in range(24):
        a = 2 * pi * k / 24
        ends = [420 + 140 * cos(a), 360 + 140 * sin(a), 420 + 168 * cos(a), 360 + 168 * sin(a)]
        draw.line(ends, fill=INK, width=6)
    _ring(draw, 660, 360, 70)
    _bolts(draw, [(480 + 390 * cos(pi * k / 5), 370 + 280 * sin(pi * k / 5)) for k in range(10)])


def _teeth(draw: Any) -> None:
    for k in range(4):
        x = 130 + 190 * k
        _shape(draw, [(x, 600), (x + 50, 130), (x + 130, 130), (x + 170, 600)])
        draw.ellipse([x + 52, 330, x + 126, 480], fill=DARK, outline=INK, width=3)


PICTURES: dict[str, Callable[[Any], None]] = {
    "bay": _bay,
    "starter": _starter,
    "front_cover": _front_cover,
    "rockers": _rockers,
    "bell": _bell,
    "forks": _forks,
    "spring": _spring,
    "leaves": _leaves,
    "axle": _axle,
    "teeth": _teeth,
}


def picture(name: str) -> bytes:
    """One picture, 960 by 720 pixels."""
    from PIL import Image, ImageDraw

    image = Image.new("RGB", (WIDE, HIGH), PAPER)
    PICTURES[name](ImageDraw.Draw(image))
    out = io.BytesIO()
    image.save(out, "JPEG", quality=80)
    return out.getvalue()
