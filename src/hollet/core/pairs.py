"""Two figures that must go together: what goes in is smaller than its bore."""

from hollet.core.fields import Length
from hollet.core.quantities.quantity import Quantity, decimal_text, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["FitsCheck", "fits_check"]


class FitsCheck(Input):
    """Two sizes of a pair: what is outside (a bore, a deeper depth), and what goes into it."""

    outer: Length = None
    inner: Length = None


class Fits(Result):
    """Whether to ask: `inner_larger` where what goes in is not smaller than what it goes into."""

    ask: bool
    slip: str = "none"
    difference: Quantity


@calculation("A pair that must go together")
def fits_check(i: FitsCheck) -> Fits:
    """Outer less inner; nothing or less is asked, and that the two may be swapped.

    Example
    -------
    >>> bore, piston = {"value": 84.0, "unit": "mm"}, {"value": 84.01, "unit": "mm"}
    >>> fits_check(FitsCheck.model_validate({"outer": bore, "inner": piston})).slip
    'inner_larger'
    """
    outer, inner = i.figure("outer"), i.figure("inner")
    unit = i.outer.unit if i.outer else "mm"
    wrong = round9(outer - inner) <= 0
    return Fits(
        ask=wrong,
        slip="inner_larger" if wrong else "none",
        difference=in_unit(round9(outer - inner), unit),
        working=(f"{outer:g} − {inner:g} = {decimal_text(round9(outer - inner))} mm",),
    )
