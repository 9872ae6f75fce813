"""The exact table of workshop units.

Everything follows from 1 in = 25.4 mm, 1 lb = 0.45359237 kg, g_n = 9.80665 m/s2, 1 US gal = 231 in3
and
1 imp gal = 4.54609 L (international yard-and-pound agreement 1959; ISO 80000-1; NIST SP 811).
Factors are
fractions, so psi and lbf/in, which are no finite decimals, stay exact.
"""

from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

__all__ = ["AMBIGUOUS", "CANONICAL", "Unit", "find_unit", "from_canonical", "to_canonical"]

F = Fraction  # so that the table below stays readable
INCH = F("25.4")
LBF = F("0.45359237") * F("9.80665")
KGF = F("9.80665")
US_GAL = 231 * INCH**3 / 1000
IMP_GAL = F("4546.09")

CANONICAL = {
    "length": "mm",
    "mass": "g",
    "force": "N",
    "torque": "N·m",
    "pressure": "kPa",
    "volume": "mL",
    "stiffness": "N/mm",
    "angle": "deg",
    "temperature": "°C",
    "speed": "rpm",
    "time": "s",
    "voltage": "V",
    "resistance": "Ω",
    "percent": "%",
    "ratio": "1",
    "expansion": "1/K",
    "threads": "1/in",
    "count": "pc",
    "area": "mm²",
    "current": "A",
    "density": "kg/m³",
    "viscosity": "Pa·s",
    "unbalance": "g·mm",
    "torsional rate": "N·m/deg",
    "distance": "km",
    "power": "W",
    "specific heat": "J/(kg·K)",
    "warming rate": "°C/min",
}


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit as printed, its dimension, and its factor (and offset) to the canonical unit."""

    name: str
    dimension: str
    factor: F
    offset: Fraction = Fraction(0)


_TABLE: tuple[tuple[str, str, F, str], ...] = (
    ("mm", "length", F(1), "mm millimetre millimetres"),
    ("cm", "length", F(10), "cm"),
    ("m", "length", F(1000), "m metre"),
    ("µm", "length", F(1, 1000), "um µm μm micron microns"),
    ("in", "length", INCH, "in inch inches \" ″ ''"),
    ("thou", "length", INCH / 1000, "thou thousandth thousandths"),
    ("ft", "length", INCH * 12, "ft foot feet '"),
    ("W", "power", F(1), "W watt watts"),
    ("kW", "power", F(1000), "kW"),
    ("J/(kg·K)", "specific heat", F(1), "J/(kg·K) J/kg/K"),
    ("°C/min", "warming rate", F(1), "°C/min K/min"),
    ("km", "distance", F(1), "km"),
    ("mi", "distance", F("1.609344"), "mi mile miles"),
    ("g", "mass", F(1), "g gram grams"),
    ("kg", "mass", F(1000), "kg"),
    ("lb", "mass", F("453.59237"), "lb lbs"),
    ("N", "force", F(1), "n newton"),
    ("kN", "force", F(1000), "kn"),
    ("lbf", "force", LBF, "lbf"),
    ("kgf", "force", KGF, "kgf kp"),
    ("N·m", "torque", F(1), "nm n·m n.m n-m n*m n⋅m newtonmetre"),
    ("daN·m", "torque", F(10), "danm dan·m dan.m"),
    ("N·cm", "torque", F(1, 100), "ncm n·cm"),
    (
        "ft·lbf",
        "torque",
        LBF * INCH * 12 / 1000,
        "ft·lbf ft-lbf ftlbf ft·lb ft-lb ft-lbs ftlb ftlbs ft.lb ft.lbs "
        "ft.lbf lb-ft lb·ft lbft lbsft lbs-ft lbf-ft lbf·ft lbfft lb.ft lbf.ft foot-pound "
        "foot-pounds",
    ),
    (
        "in·lbf",
        "torque",
        LBF * INCH / 1000,
        "in·lbf in-lbf inlbf in·lb in-lb in-lbs inlb inlbs in.lb in.lbf lb-in "
        "lb·in lbin lbs-in lbs·in lbsin lbf-in lbf·in lbfin lb.in",
    ),
    ("kgf·m", "torque", KGF, "kgf·m kgf-m kgfm kgm kg-m kg·m mkg mkp kpm"),
    ("kgf·cm", "torque", KGF / 100, "kgf·cm kgf-cm kgfcm kgcm kg-cm kg·cm"),
    ("kPa", "pressure", F(1), "kpa"),
    ("Pa", "pressure", F(1, 1000), "pa"),
    ("MPa", "pressure", F(1000), "mpa n/mm² n/mm2"),
    ("bar", "pressure", F(100), "bar"),
    ("mbar", "pressure", F(1, 10), "mbar"),
    ("psi", "pressure", LBF / INCH**2 * 1000, "psi lbf/in² lbf/in2"),
    ("kgf/cm²", "pressure", F("98.0665"), "kgf/cm² kgf/cm2 kg/cm² kg/cm2"),
    ("atm", "pressure", F("101.325"), "atm"),
    ("inHg", "pressure", F("3.386388640341"), "inhg"),
    ("mL", "volume", F(1), "ml cc cm³ cm3"),
    ("L", "volume", F(1000), "l litre litres liter liters"),
    ("in³", "volume", INCH**3 / 1000, "in³ in3 cuin"),
    ("US gal", "volume", US_GAL, "usgal"),
    ("US qt", "volume", US_GAL / 4, "usqt"),
    ("US pt", "volume", US_GAL / 8, "uspt"),
    ("US fl oz", "volume", US_GAL / 128, "usfloz"),
    ("imp gal", "volume", IMP_GAL, "impgal ukgal"),
    ("imp qt", "volume", IMP_GAL / 4, "impqt ukqt"),
    ("imp pt", "volume", IMP_GAL / 8, "imppt ukpt"),
    ("imp fl oz", "volume", IMP_GAL / 160, "impfloz ukfloz"),
    ("N/mm", "stiffness", F(1), "n/mm"),
    ("lbf/in", "stiffness", LBF / INCH, "lbf/in lb/in"),
    ("deg", "angle", F(1), "deg degs degree degrees °"),
    ("turn", "angle", F(360), "turn turns rev revs"),
    ("rpm", "speed", F(1), "rpm r/min rev/min 1/min"),
    ("s", "time", F(1), "s sec secs second seconds"),
    ("min", "time", F(60), "min mins minute minutes"),
    ("h", "time", F(3600), "h hr hrs hour hours"),
    ("V", "voltage", F(1), "v volt volts"),
    ("mV", "voltage", F(1, 1000), "mv"),
    ("Ω", "resistance", F(1), "Ω Ω ohm ohms"),
    ("mΩ", "resistance", F(1, 1000), "mΩ mΩ mohm"),
    ("%", "percent", F(1), "% percent"),
    ("1", "ratio", F(1), "1"),
    ("1/K", "expansion", F(1), "1/k /k"),
    ("1/in", "threads", F(1), "1/in tpi"),
    ("pc", "count", F(1), "pc pcs piece pieces"),
    ("mm²", "area", F(1), "mm² mm2"),
    ("A", "current", F(1), "a amp amps ampere amperes"),
    ("kg/m³", "density", F(1), "kg/m³ kg/m3"),
    ("Pa·s", "viscosity", F(1), "pa·s pas"),
    ("g·mm", "unbalance", F(1), "g·mm gmm g-mm"),
    ("N·m/deg", "torsional rate", F(1), "n·m/deg nm/deg n·m/° nm/°"),
)
_TEMPERATURES = (
    (Unit("°C", "temperature", F(1)), "°c degc c celsius ℃"),
    (Unit("°F", "temperature", F(5, 9), F(-160, 9)), "°f degf f fahrenheit ℉"),
    (Unit("K", "temperature", F(1), F("-273.15")), "k kelvin"),
)
_BY_NAME = {
    alias: Unit(name, dim, factor)
    for name, dim, factor, aliases in _TABLE
    for alias in aliases.split()
}
_BY_NAME |= {alias.lower(): unit for alias, unit in list(_BY_NAME.items())}
_BY_NAME |= {alias: unit for unit, aliases in _TEMPERATURES for alias in aliases.split()}

AMBIGUOUS = {
    "pt": "US pt or imp pt",
    "pint": "US pt or imp pt",
    "pints": "US pt or imp pt",
    "qt": "US qt or imp qt",
    "quart": "US qt or imp qt",
    "quarts": "US qt or imp qt",
    "gal": "US gal or imp gal",
    "gallon": "US gal or imp gal",
    "gallons": "US gal or imp gal",
    "oz": "US fl oz, imp fl oz or a mass in g",
    "floz": "US fl oz or imp fl oz",
    "mil": "thou or mm",
    "mils": "thou or mm",
}


def squeeze(text: str) -> str:
    """The form under which a unit is looked up: spaces out, lower case, full words for US and
    imperial.
    """
    joined = "".join(text.split()).rstrip(".")
    lowered = (
        joined.lower().replace("u.s.", "us").replace("imperial", "imp").replace("fl.oz", "floz")
    )
    lowered = (
        lowered.replace("gallons", "gal").replace("gallon", "gal")
        if lowered[:2] in ("us", "im", "uk")
        else lowered
    )
    lowered = (
        lowered.replace("quarts", "qt").replace("quart", "qt")
        if lowered[:2] in ("us", "im", "uk")
        else lowered
    )
    return (
        lowered.replace("pints", "pt").replace("pint", "pt")
        if lowered[:2] in ("us", "im", "uk")
        else lowered
    )


@lru_cache(maxsize=1024)
def find_unit(text: str) -> Unit | None:
    """The unit meant by `text`, or None. Case is free, except that a capital M alone means nothing
    here.

    Examples
    --------
    >>> find_unit("ft-lb").name
    'ft·lbf'
    >>> find_unit("furlong") is None
    True
    """
    return _BY_NAME.get(squeeze(text))


def to_canonical(value: F, unit: Unit) -> F:
    """`value` in the canonical unit of its dimension; a temperature is a point, not a
    difference.
    """
    return value * unit.factor + unit.offset


def units_of(dimension: str) -> tuple[Unit, ...]:
    """All units of a dimension, each once, in the order of the table."""
    return tuple(
        {unit.name: unit for unit in _BY_NAME.values() if unit.dimension == dimension}.values()
    )


def from_canonical(value: F, unit: Unit) -> F:
    """Inverse of `to_canonical`."""
    return (value - unit.offset) / unit.factor
