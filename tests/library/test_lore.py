"""What the shop knows ships whole, and a file that is not whole is refused with its field."""

import pytest
from pydantic import ValidationError

from hollet.core.lore import Lore
from hollet.library.lore import lore

WHOLE = lore().model_dump(mode="json")


def without(kind: str, name: str) -> dict:
    """All of it but for one."""
    return {**WHOLE, kind: [one for one in WHOLE[kind] if one["id"] != name]}


def changed(kind: str, name: str, **own) -> dict:
    """All of it, with one changed."""
    found = [{**one, **own} if one["id"] == name else one for one in WHOLE[kind]]
    return {**WHOLE, kind: found}


def test_it_ships_whole():
    """Read again from its own figures it is the same; a crack is bad from the first grade, also
    where nobody can be hurt, and a polish never by itself.
    """
    assert Lore.model_validate(WHOLE) == lore()
    crack, polished = lore().code("crack"), lore().code("polished")
    assert crack.bad(1, safety=False)
    assert crack.bad(1, safety=True)
    assert not polished.bad(3, safety=True)
    chipped = lore().code("chipped")
    assert [chipped.bad(1, safety=s) for s in (True, False)] == [True, False]
    assert lore().code("banana") is None
    assert [rung.id for rung in lore().stuck][-1] == "broken"


@pytest.mark.parametrize(
    ("data", "words"),
    [
        ({**WHOLE, "finding": [*WHOLE["finding"], WHOLE["finding"][0]]}, "has scratch twice"),
        (without("stuck", "heat"), "'stuck' lacks heat"),
        (without("around", "dark"), "'around' lacks dark"),
        (changed("around", "dark", means={"lift": "x"}), "'dark' must say what it means"),
        (changed("finding", "crack", usual=["glue it"]), "finding.1?.*usual"),
        (changed("finding", "crack", on=["moon"]), "on"),
        (changed("stuck", "heat", harm=None), "harm"),
        ({**WHOLE, "extra": []}, "extra"),
        ({**WHOLE, "finding": [f for f in WHOLE["finding"] if "felt" not in f["on"]]}, "felt"),
    ],
)
def test_what_is_not_whole_is_refused(data, words):
    """Twice, missing, silent, or a word that is none: each is named."""
    with pytest.raises(ValidationError, match=words):
        Lore.model_validate(data)
