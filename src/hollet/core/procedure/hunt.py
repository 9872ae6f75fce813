"""The hunt list: every figure, torque, amount, tool and answer that the plan needs and has not got,
by the step that needs it first.
"""

from collections.abc import Mapping, Set

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.errors import Refused
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.plan import Plan, Selection
from hollet.core.procedure.schools import agreement_state
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import STAGES
from hollet.core.tightening.generic import generic_words

__all__ = ["GEAR_WORDS", "HuntItem", "generic_for", "hunt_list", "limits_used"]

LOOK_IN = (
    "the vehicle's workshop manual",
    "the part maker's sheet or box",
    "the plate or stamp on the unit",
    "a specialist or the maker's help line",
)
GEAR_WORDS = {"missing": "not in the shop", "broken": "broken", "lent": "lent out"}


class HuntItem(BaseModel):
    """One thing to find: `kind` is figure, torque, amount, tool, helper, part or fact."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    kind: str
    name: str
    state: str
    step: str
    number: str
    title: str
    stage: str
    stage_name: str
    look_in: tuple[str, ...] = ()
    fallback: str | None = None
    fallback_working: str | None = None
    about: str | None = None

    @computed_field
    @property
    def by_gear(self) -> bool:
        """Whether it is answered by what the shop has."""
        return self.kind == "tool"

    @computed_field
    @property
    def by_person(self) -> bool:
        """Whether it is answered by who comes."""
        return self.kind == "helper"

    @computed_field
    @property
    def by_book(self) -> bool:
        """Whether it is answered by a figure in the limit book."""
        return self.kind in ("figure", "amount", "torque")

    @computed_field
    @property
    def guessed(self) -> bool:
        """Whether a figure stands there that nobody read anywhere."""
        return self.state == "assumed"


def limits_used(step: Step) -> tuple[str, ...]:
    """Ids of the limits that a step needs."""
    return tuple(dict.fromkeys(limit for _, limit in step.limits()))


def hunt_list(
    selection: Selection, settled: Set[str], gear: Mapping[str, str], instruments: Set[str]
) -> tuple[HuntItem, ...]:
    """What is still to be found, in the order of the steps that are not settled.

    Parameters
    ----------
    settled : ids of the steps done, skipped or not applicable
    gear : tool name (casefold) -> owned, borrowed, missing, broken or lent
    instruments : kinds of measuring tools in the shop
    """
    plan = selection.plan
    found: dict[str, HuntItem] = {}
    for step in plan.step:
        if step.id in settled:
            continue
        for item in (
            *_figures(plan, step),
            *(item for name in step.tightens() for item in _joint(plan, step, name)),
            *_tools(step, gear, instruments),
            *_helpers(plan, step),
            *_answers(plan, selection, step),
        ):
            found.setdefault(item.id, item)
    return tuple(found.values())


def _look_in(plan: Plan) -> tuple[str, ...]:
    """Where to look, each place once however it is written in two sheets."""
    return tuple(
        {place.casefold(): place for place in reversed((*plan.look_in, *LOOK_IN))}.values()
    )[::-1]


def _item(step: Step, item_id: str, kind: str, name: str, state: str, **more: object) -> HuntItem:
    return HuntItem(
        id=item_id,
        kind=kind,
        name=name,
        state=state,
        step=step.id,
        number=step.number,
        title=step.title,
        stage=step.stage,
        stage_name=STAGES[step.stage],
        **more,
    )


def _figures(plan: Plan, step: Step) -> list[HuntItem]:
    found = []
    for limit_id in limits_used(step):
        limit = plan.find_limit(limit_id)
        if limit is None:
            continue
        state = (
            "not given"
            if not limit.given and limit.target is None
            else "sources disagree"
            if limit.conflict
            else "assumed"
            if limit.source is None and limit.own is None
            else None
        )
        if state:
            found.append(
                _item(
                    step,
                    f"limit:{limit.id}",
                    step.figure_kind,
                    limit.name,
                    state,
                    look_in=_look_in(plan),
                    about=limit.id,
                )
            )
    return found


def _joint(plan: Plan, step: Step, name: str) -> list[HuntItem]:
    joint = plan.find_joint(name)
    if joint is None or joint.final != "torqued":
        return []
    open_stages = [k for k, stage in enumerate(joint.stage, 1) if not stage.given()]
    if not open_stages and joint.source is not None:
        return []
    fallback, working = generic_for(joint)
    return [
        _item(
            step,
            f"joint:{joint.id}",
            "torque",
            f"{joint.name}: torque"
            if len(joint.stage) == 1
            else f"{joint.name}: {len(joint.stage)} stages",
            "not given" if open_stages else "assumed",
            look_in=_look_in(plan),
            fallback=fallback,
            fallback_working=working,
            about=joint.id,
        )
    ]


def generic_for(joint: Joint) -> tuple[str | None, str | None]:
    """The generic torque for a joint of which only the last stage is missing, with its working;
    else None and why not.

    Never for a critical joint (head, rod, main, flywheel, wheel and safety bolts): only the maker's
    figure counts there.
    """
    missing = [k for k, stage in enumerate(joint.stage, 1) if not stage.given()]
    if not missing:
        return None, None
    if joint.critical:
        return None, "no generic value for this joint: only the maker's figure"
    if missing != [len(joint.stage)] or not joint.thread or not joint.grade:
        return None, None
    try:
        return generic_words(
            joint.thread, joint.grade, "oiled" if "oil" in (joint.treatment or "") else "dry"
        )
    except Refused as refusal:
        return None, refusal.message


def _tools(step: Step, gear: Mapping[str, str], instruments: Set[str]) -> list[HuntItem]:
    found = []
    for tool in step.tools:
        state = gear.get(tool.casefold())
        if state not in ("owned", "borrowed"):
            words = GEAR_WORDS.get(state or "", "not in the list of tools yet")
            found.append(_item(step, f"tool:{tool.casefold()}", "tool", tool, words, about=tool))
    missing = "no such measuring tool in the shop"
    for kind in dict.fromkeys(spec.tool for spec in step.readings()):
        if kind not in instruments:
            found.append(_item(step, f"tool:{kind}", "tool", kind, missing, about=kind))
    return found


def _helpers(plan: Plan, step: Step) -> list[HuntItem]:
    if len(step.people) < 2 or step.id in plan.helpers:
        return []
    return [
        _item(
            step,
            f"helper:{step.id}",
            "helper",
            f"{len(step.people)} people: {'; '.join(f'{p.role}, {p.does}' for p in step.people)}",
            "to be asked",
        )
    ]


def _answers(plan: Plan, selection: Selection, step: Step) -> list[HuntItem]:
    found = []
    for agreement in plan.agreement:
        if agreement.step == step.id:
            state = agreement_state(agreement, plan.parts)
            if state.state != "agrees":
                found.append(
                    _item(
                        step,
                        f"part:{agreement.id}",
                        "part",
                        agreement.name,
                        state.words,
                        about=agreement.id,
                    )
                )
    if step.id in selection.perhaps:
        for condition in step.conditions():
            if condition.fact and condition.fact not in plan.facts:
                name = plan.all_facts()[condition.fact].name
                found.append(
                    _item(
                        step,
                        f"fact:{condition.fact}",
                        "fact",
                        name,
                        "not known yet",
                        about=condition.fact,
                    )
                )
    return found
