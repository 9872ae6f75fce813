"""The form of each calculation, and what was typed into it."""

import pytest

from hollet.core.errors import NotFound, Refused
from hollet.core.forms import compute_typed, forms

FORMS = {form.name: form for form in forms()}


@pytest.mark.parametrize("form", FORMS.values(), ids=list(FORMS))
def test_every_form_can_be_filled_in(form):
    """A title, a rule in words, fields with a unit or options; what was left empty is refused with
    a field, never answered.
    """
    assert len(form.about) > 30
    assert form.fields
    for field in form.fields:
        assert (
            field.kind in ("yes_no", "number")
            or field.options
            or field.unit
            or field.dimension is None
        ), field.name
        assert field.kind != "choice" or field.options
    needed = [field for field in form.fields if field.needed]
    if needed:
        with pytest.raises(Refused) as refusal:
            compute_typed(form.name, {})
        assert refusal.value.message


def test_what_is_typed_is_read_as_mechanics_write_it():
    """Thou and inches beside mm, lists by spaces or semicolons, BTDC, yes and no, whole numbers."""
    gap = compute_typed(
        "piston_clearance", {"bore_min": '3.386"', "bore_max": "86.05", "piston": "85.96 mm"}
    )
    assert gap["min_clearance"]["value"] == pytest.approx(86.0044 - 85.96)
    for text in ("86.01 86.02 86.03", "86.01; 86.02; 86.03", "86.01 mm; 86.02; 3.38700787 in"):
        found = compute_typed("bore_map", {"thrust": text, "axial": "86 86 86", "nominal": "86"})
        assert found["taper"]["value"] == pytest.approx(0.02, abs=1e-6)
    timing = compute_typed(
        "timing_total",
        {"initial": "4 ATDC", "mechanical": "12", "advance_in_distributor_degrees": "yes"},
    )
    assert timing["total_without_vacuum"]["value"] == 20
    assert compute_typed("awg_area", {"gauge": "2"})["area"]["value"] == pytest.approx(
        33.63, abs=0.01
    )
    assert (
        compute_typed("contact_pattern", {"drive_side": "heel", "coast_side": "heel"})["action"][
            "value"
        ]
        == "ring_gear_towards_pinion"
    )


def test_figures_with_a_name_each():
    """Shells by their grade, one in thou beside mm: grades 3 and 4 give 0.040 (reference case
    T04-08); a figure without its name is asked for.
    """
    typed = {
        "housing_bore": "59.01",
        "journal": "54.978",
        "lower_limit": "0.025",
        "upper_limit": "0.055",
        "target": "0.04",
    }
    found = compute_typed(
        "choose_shells",
        typed | {"grade_wall": "1: 1.986; 2: 1.990; 3: 1.994 mm; 4: 1.998; 5: 2.002"},
    )
    assert found["grades"]["value"] == ["3", "4"]
    assert found["clearance"]["value"] == pytest.approx(0.04)
    with pytest.raises(Refused, match="each with its name") as refusal:
        compute_typed("choose_shells", typed | {"grade_wall": "1.986; 2: 1.990"})
    assert refusal.value.field == "grade_wall"


@pytest.mark.parametrize(
    ("name", "typed", "field"),
    [
        ("piston_clearance", {"bore_min": "86 kg", "bore_max": "86", "piston": "85"}, "bore_min"),
        ("piston_clearance", {"bore_min": "86", "bore_max": "86", "piston": "85-86"}, "piston"),
        ("timing_total", {"initial": "10-12", "mechanical": "12"}, "initial"),
        ("awg_area", {"gauge": "two"}, "gauge"),
        ("bore_map", {"thrust": "86 oops 86", "axial": "86 86 86", "nominal": "86"}, None),
    ],
)
def test_a_bad_figure_is_named_at_its_field(name, typed, field):
    """One sentence, with the field where it is known."""
    with pytest.raises(Refused) as refusal:
        compute_typed(name, typed)
    assert field is None or refusal.value.field == field
    assert len(refusal.value.message) > 15


def test_no_such_form():
    """A name that is none, and a calculation that takes more than a form can ask."""
    for name in ("nonsense", "check_sequence"):
        with pytest.raises(NotFound):
            compute_typed(name, {})


def test_rows_are_typed_as_they_stand_on_paper():
    """A kit and a table of valves: a row each, in the order that the form says."""
    typed = {"gap": "8.2", "min_gap": "2.5", "max_gap": "5", "max_stack": "3"}
    found = compute_typed("choose_shims", {**typed, "kit": "0.8 x 3; 1.6 2\n2.4mm 1"})
    assert found["shims"]["value"] == pytest.approx([0.8, 1.6, 2.4])
    valves = {"valves": "0.10 2.60 0.16 0.24; 0.30 2.50 0.16 0.24", "new_sizes": "2 3.2 0.05"}
    assert compute_typed("reshuffle_shims", valves)["new_shims"]["value"] == 0


@pytest.mark.parametrize("kit", ["0.8", "0.8 3 2", "0.8 three", "0.8 -1", "0.8 1.5"])
def test_a_row_that_is_none_says_how_one_looks(kit):
    typed = {"gap": "8.2", "min_gap": "2.5", "max_gap": "5", "kit": kit}
    with pytest.raises(Refused) as refusal:
        compute_typed("choose_shims", typed)
    assert refusal.value.field == "kit"
    assert "kit" in refusal.value.message
