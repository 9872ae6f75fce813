"""What is seen on a part: the trade's terms with what each looks like, usually means, what would
confirm it, and what is usually done.

Grades run from 1 to 3. What a term usually means is shop experience, a first guess and never a
proof.
"""

from typing import Literal

from pydantic import BaseModel, ConfigDict

__all__ = [
    "BESIDE",
    "CLEANING",
    "CODES",
    "CONFIDENCE",
    "DISPOSITIONS",
    "IN_THE_BOX",
    "METHODS",
    "SURFACES",
    "Cleaning",
    "Confidence",
    "Disposition",
    "FindingCode",
    "Method",
    "Surface",
    "codes_for",
]

Surface = Literal[
    "rolling",
    "teeth",
    "journal",
    "shell",
    "bore",
    "spline",
    "seal",
    "thread",
    "casting",
    "flange",
    "friction",
    "plastic",
    "sliding",
    "fluid",
    "wire",
    "felt",
]
SURFACES: dict[str, str] = {
    "rolling": "rollers, balls, races",
    "teeth": "gear teeth",
    "journal": "shaft journal",
    "shell": "plain bearing",
    "bore": "cylinder or housing bore",
    "spline": "splines",
    "seal": "rubber and lips",
    "thread": "threads",
    "casting": "cast or pressed body",
    "flange": "sealing face",
    "friction": "friction face",
    "plastic": "plastic",
    "sliding": "sliding face, fork, ring",
    "fluid": "oil, fluid, magnet",
    "wire": "wires and pipes",
    "felt": "by hand and ear",
}
IN_THE_BOX = "all that belongs to it"
BESIDE: dict[str, tuple[str, ...]] = {
    "rolling": ("outside diameter", "bore", "width", "number on it", "seals or shields"),
    "teeth": ("number of teeth", "width", "way the teeth lean"),
    "journal": ("diameters", "length", "keyways and holes"),
    "shell": ("wall", "width", "tang and oil hole"),
    "bore": ("bore", "length"),
    "spline": ("number of splines", "length"),
    "seal": ("outside diameter", "bore", "width", "way the lip looks", "material"),
    "thread": ("thread and pitch", "length", "head and grade"),
    "casting": ("holes and threads", "height and offset", "number on it"),
    "flange": ("holes", "thickness", "shape of the openings"),
    "friction": ("diameter", "thickness", "splines", "way round"),
    "plastic": ("length", "clips and plugs"),
    "sliding": ("width", "bore", "grooves"),
    "wire": ("length", "plug and colours"),
    "fluid": ("grade on the can", "amount"),
}
"""What of a part is laid old beside new, by the kinds of its faces."""
Disposition = Literal[
    "reuse",
    "clean",
    "rework",
    "replace",
    "replace_open",
    "other_use",
    "watch",
    "deeper",
    "undecided",
]
DISPOSITIONS: dict[str, str] = {
    "reuse": "use it again",
    "clean": "clean and look again",
    "rework": "rework",
    "replace": "replace",
    "replace_open": "replace because it is open",
    "other_use": "keep for another use",
    "watch": "use it and watch",
    "deeper": "look deeper",
    "undecided": "undecided",
}
Cleaning = Literal["as it came", "wiped", "washed", "polished"]
CLEANING: tuple[Cleaning, ...] = ("as it came", "wiped", "washed", "polished")
Confidence = Literal["sure", "likely", "unsure"]
CONFIDENCE: tuple[Confidence, ...] = ("sure", "likely", "unsure")
Method = Literal[
    "eye",
    "lamp from the side",
    "magnifier",
    "fingertip",
    "by hand",
    "tapped",
    "dye",
    "listened",
    "smelt",
    "magnet",
]
METHODS: tuple[Method, ...] = (
    "eye",
    "lamp from the side",
    "magnifier",
    "fingertip",
    "by hand",
    "tapped",
    "dye",
    "listened",
    "smelt",
    "magnet",
)


class FindingCode(BaseModel):
    """One term: how it looks, what it usually means, what would confirm that, where to look next,
    what is usually done.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    name: str
    looks: str
    means: str
    confirm: str
    next: str
    usual: tuple[Disposition, ...]
    on: tuple[Surface, ...]
    grades: tuple[str, str, str] = ("light", "clear", "heavy")
    bad_from: int | None = 2
    bad_on_safety: int | None = 2

    def bad(self, grade: int, safety: bool) -> bool:
        """Whether this grade is bad, on a safety-critical part or on another."""
        least = self.bad_on_safety if safety else self.bad_from
        return least is not None and grade >= least


BAD: dict[str, tuple[int | None, int | None]] = {
    "crack": (1, 1),
    "spall": (1, 1),
    "chipped": (2, 1),
    "bent": (2, 1),
    "stripped": (2, 1),
    "corrosion": (3, 3),
    "polished": (None, None),
    "discoloured": (None, None),
}
"""From which grade a term is bad, on any part and on a safety-critical one, where it is not the
second grade.
"""


def _code(
    code: str,
    name: str,
    looks: str,
    means: str,
    confirm: str,
    next_: str,
    usual: str,
    on: str,
    grades: str = "",
) -> FindingCode:
    return FindingCode(
        id=code,
        name=name,
        looks=looks,
        means=means,
        confirm=confirm,
        next=next_,
        usual=tuple(usual.split()),
        on=tuple(on.split()),
        bad_from=BAD.get(code, (2, 2))[0],
        bad_on_safety=BAD.get(code, (2, 2))[1],
        **({"grades": tuple(grades.split("|"))} if grades else {}),
    )


CODES: dict[str, FindingCode] = {
    code.id: code
    for code in (
        _code(
            "scratch",
            "Scratch",
            "one thin line, a nail hardly catches it",
            "a single hard grain, or handling",
            "a nail across it",
            "the face that ran against it",
            "reuse rework",
            "journal shell bore sliding seal flange",
        ),
        _code(
            "score",
            "Scoring",
            "many deep lines the way it moves, a nail catches",
            "grit in the oil, or no oil for a moment",
            "grains pressed into the softer partner",
            "oil filter and pump, then the partner face",
            "rework replace",
            "journal shell bore sliding rolling teeth",
        ),
        _code(
            "dent",
            "Dents",
            "round pits with a raised, shiny rim",
            "chips went through the mesh or were rolled over",
            "a magnet in the oil, the same pitch round the race",
            "everything that the oil reached after it",
            "replace watch",
            "rolling teeth spline",
            "one or two|several|all round",
        ),
        _code(
            "pit",
            "Pitting",
            "small holes without a rim, grey ground",
            "the surface is tired: load, age, or water in the oil",
            "magnifier, under a lamp from the side",
            "the partner, then bearing preload and alignment",
            "replace watch",
            "rolling teeth shell",
        ),
        _code(
            "spall",
            "Spalling",
            "flakes broken out, bright ragged ground",
            "pitting gone on, or a hard knock",
            "the flakes in the oil",
            "where the flakes went: trace the oil",
            "replace",
            "rolling teeth shell",
        ),
        _code(
            "fret",
            "Fretting",
            "red-brown powder or dull, rubbed spots",
            "two faces move where they should sit still",
            "measure the fit: seat against race",
            "the fit on both sides, the bolts that clamp it",
            "replace rework",
            "journal bore spline flange shell",
        ),
        _code(
            "scuff",
            "Scuffing",
            "dull, torn streaks, metal dragged over",
            "the oil film broke: heat, too little clearance, dry start",
            "measure the clearance; the partner looks alike",
            "clearance and oil feed of this place",
            "rework replace",
            "bore teeth sliding journal friction",
        ),
        _code(
            "smear",
            "Smearing",
            "metal wiped over a groove or an oil hole",
            "soft metal ran hot and flowed",
            "oil holes closed by it",
            "oil feed, journal size and straightness",
            "replace",
            "shell sliding rolling",
        ),
        _code(
            "embedded",
            "Grains pressed in",
            "dark or shiny grains sunk into soft metal",
            "the oil carried grit or chips",
            "a needle lifts one out",
            "filter, pump, oilways; what was cut or blasted nearby",
            "replace watch",
            "shell friction sliding plastic",
        ),
        _code(
            "tint",
            "Heat tint",
            "straw, brown, purple or blue",
            "it was hot: no oil, slip, or too tight",
            "hardness with a file on a scrap edge",
            "oil feed, preload, the seal beside it",
            "replace deeper",
            "rolling teeth journal spline friction sliding thread",
            "straw|brown to purple|blue or grey",
        ),
        _code(
            "corrosion",
            "Corrosion",
            "red or black stains, rough to the nail",
            "water, standing, or acid in old oil",
            "polish one spot: does a pit stay?",
            "where the water came in: seal, vent, cover",
            "clean rework replace",
            "rolling journal bore casting flange thread wire spline teeth shell",
        ),
        _code(
            "erosion",
            "Eaten away",
            "a washed-out channel, often toward a bolt hole",
            "coolant or gas blew past it for long",
            "straight edge and light",
            "gasket, the faces on both sides, coolant",
            "rework replace deeper",
            "flange casting bore",
        ),
        _code(
            "crack",
            "Crack",
            "a fine dark line, oil creeps out of it",
            "it was overloaded, or is tired",
            "clean, dye, wait, look; tap: it rings dull",
            "how far it goes; the same place on its neighbours",
            "replace",
            "casting teeth journal rolling bore flange plastic friction seal",
            "hair line|seen at once|through",
        ),
        _code(
            "chipped",
            "Broken out",
            "an edge or a corner is missing",
            "a knock, a bad shift, or a crack gone through",
            "find the piece",
            "where the piece went: trace the oil",
            "replace",
            "teeth rolling plastic casting friction spline",
        ),
        _code(
            "step",
            "Wear step",
            "a ledge that the nail feels at the end of the run",
            "it has run there for long",
            "measure both sides of the step",
            "the partner, and what it does to the clearance",
            "rework replace watch",
            "journal bore spline teeth sliding seal friction",
        ),
        _code(
            "polished",
            "Polished patch",
            "shiny where it should be dull",
            "more load there than elsewhere",
            "is it on the same side on all of them?",
            "alignment, bent rod, twisted cap",
            "reuse watch deeper",
            "shell bore sliding rolling teeth",
        ),
        _code(
            "glazed",
            "Glazed",
            "mirror-like, hone marks gone",
            "long running at low load, or burnt oil",
            "a nail across: no marks left",
            "ring gaps and oil use",
            "rework",
            "bore friction",
        ),
        _code(
            "brittle",
            "Hard or cracked rubber",
            "does not bend, small cracks when bent",
            "age, heat or the wrong fluid",
            "bend it sharply over a finger",
            "all rubber as old as this",
            "replace replace_open",
            "seal plastic wire",
            "stiff|fine cracks|breaks",
        ),
        _code(
            "swollen",
            "Swollen or soft",
            "larger than its groove, soft, sticky",
            "the wrong fluid or fuel with too much spirit in it",
            "lay it beside a new one",
            "all rubber in the same fluid",
            "replace",
            "seal plastic",
        ),
        _code(
            "discoloured",
            "Discoloured",
            "yellow, brown or chalky",
            "heat, light or chemicals",
            "bend a corner that nobody needs",
            "its neighbours, the heat source",
            "watch replace",
            "plastic wire seal fluid",
        ),
        _code(
            "bent",
            "Bent",
            "not straight on a flat plate",
            "a knock, or it was pulled against",
            "roll it on glass, dial in the middle",
            "what it was bolted to",
            "replace rework",
            "casting flange journal thread wire sliding",
        ),
        _code(
            "stripped",
            "Thread stripped",
            "flattened or missing turns, the bolt goes in crooked",
            "cross-threaded, or over-tightened",
            "a new bolt by hand, all the way",
            "the bolt, and the torque that it had",
            "rework replace",
            "thread",
            "first turns|half|all",
        ),
        _code(
            "strange",
            "Not as it left the works",
            "a cut, a splice, filler, paint, a foreign bolt",
            "somebody was here before",
            "ask, compare with the drawing",
            "what else that person touched",
            "rework deeper reuse",
            "wire casting thread flange plastic",
        ),
        _code(
            "elsewhere",
            "Damage beside the working face",
            "pry marks, hammer marks, gouges",
            "it came apart by force once",
            "does it stand proud? a stone laid flat tells",
            "the fit of what sits there",
            "rework reuse",
            "casting flange bore journal rolling",
        ),
        _code(
            "chips",
            "Chips",
            "flakes or slivers, on a magnet or not",
            "something upstream breaks up",
            "magnet: steel; needle: bronze bends, cage brass is yellow",
            "trace back to what is made of that",
            "deeper",
            "fluid",
            "fine fur|slivers|pieces",
        ),
        _code(
            "paste",
            "Grey paste",
            "fine, smears between the fingers",
            "wear of a long time, or a bearing that starts",
            "how long was the oil in?",
            "gears and rollers under a lamp",
            "watch deeper",
            "fluid",
        ),
        _code(
            "milky",
            "Milky",
            "grey-white like cocoa with milk",
            "water in it",
            "a drop on a hot plate crackles",
            "vent, seals, cooler",
            "replace deeper",
            "fluid",
        ),
        _code(
            "play",
            "Play",
            "it moves where it should not",
            "worn, or the preload is gone",
            "a dial, and the same push each time",
            "the fit and the shims there",
            "deeper replace watch",
            "felt spline",
            "just felt|clear|knocks",
        ),
        _code(
            "notchy",
            "Notchy",
            "catches at the same place each turn",
            "dents, grit, or a flat on a roller",
            "turn it slowly both ways, washed and dry",
            "open it: rollers and races",
            "replace clean",
            "felt",
            "just felt|clear|locks",
        ),
        _code(
            "rough",
            "Rough or rumbling",
            "a rumble in the fingers or in a rod at the ear",
            "grit, rust or tired races",
            "wash, oil, turn again",
            "the races",
            "replace clean",
            "felt",
            "whisper|clear|loud",
        ),
        _code(
            "dull",
            "Rings dull",
            "no clear ping when tapped",
            "a crack, or two parts loose in each other",
            "tap its neighbour the same way",
            "dye at the root",
            "deeper replace",
            "felt casting friction",
            "doubtful|duller|dead",
        ),
        _code(
            "noise",
            "Noise",
            "ticks, knocks, whines, grates or hisses",
            "play, a tooth, a dry bearing, gas past a joint",
            "a rod at the ear, place by place; does it follow the speed?",
            "what lies under the loudest place",
            "deeper watch replace",
            "felt casting",
            "only with a rod|at arm's length|across the shop",
        ),
        _code(
            "glow",
            "Glows",
            "dull red in the dark",
            "late ignition, a lean mixture, or gas that cannot get out",
            "timing light; the mixture; a hand before the tail pipe",
            "gasket and manifold beside it, wires near by",
            "deeper rework",
            "casting flange",
            "a spot|a band|all of it",
        ),
        _code(
            "smell",
            "Smells burnt",
            "sharp, like burnt oil or friction lining",
            "it was hot or slipped",
            "smell fresh fluid beside it",
            "heat tint on what runs in it",
            "deeper replace",
            "fluid friction",
            "faint|clear|strong",
        ),
    )
}


def codes_for(surface: Surface) -> tuple[FindingCode, ...]:
    """The terms that belong to a kind of face, the commonest first."""
    return tuple(code for code in CODES.values() if surface in code.on)
