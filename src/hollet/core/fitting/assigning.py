"""The linear assignment problem: each row takes one column of its own, at the least cost in all.

Hungarian method with potentials, in whole numbers, by shortest augmenting paths (Kuhn, Munkres; as
in Burkard, Dell'Amico, Martello: Assignment Problems, 4.2).
"""

from collections.abc import Sequence

__all__ = ["assigned"]


def assigned(costs: Sequence[Sequence[int | None]]) -> list[int] | None:
    """The column of each row; None where a cost of None (not allowed) cannot be avoided.

    Parameters
    ----------
    costs : rows of equal length, at least as many columns as rows; whole numbers, zero or more

    Examples
    --------
    >>> assigned([[4, 1, 3], [2, 0, 5], [3, 2, 2]])
    [1, 0, 2]
    >>> assigned([[1, None], [1, None]]) is None
    True
    """
    rows, columns = len(costs), len(costs[0])
    never = 1 + sum(max((c for c in row if c is not None), default=0) for row in costs)
    price = [[never if c is None else c for c in row] for row in costs]
    u, v = [0] * (rows + 1), [0] * (columns + 1)
    owner = [0] * (columns + 1)
    for row in range(1, rows + 1):
        _augment(price, row, u, v, owner)
    found = [0] * rows
    for column in range(1, columns + 1):
        if owner[column]:
            found[owner[column] - 1] = column - 1
    return None if any(costs[r][c] is None for r, c in enumerate(found)) else found


def _augment(
    price: Sequence[Sequence[int]], row: int, u: list[int], v: list[int], owner: list[int]
) -> None:
    """Give a row its column along the shortest path; the potentials stay feasible."""
    columns = len(v) - 1
    owner[0] = row
    at = 0
    least: list[int | None] = [None] * (columns + 1)
    way, used = [0] * (columns + 1), [False] * (columns + 1)
    while True:
        used[at] = True
        own = owner[at]
        delta, nearest = None, 0
        line, shift = price[own - 1], u[own]
        for column in range(1, columns + 1):
            if used[column]:
                continue
            now = line[column - 1] - shift - v[column]
            best = least[column]
            if best is None or now < best:
                least[column] = best = now
                way[column] = at
            if delta is None or best < delta:
                delta, nearest = best, column
        assert delta is not None
        for column in range(columns + 1):
            if used[column]:
                u[owner[column]] += delta
                v[column] -= delta
            elif (found := least[column]) is not None:
                least[column] = found - delta
        at = nearest
        if owner[at] == 0:
            break
    while at:
        before = way[at]
        owner[at] = owner[before]
        at = before
