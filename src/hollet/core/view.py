"""The base of what screens are shown: frozen, and every field present."""

from pydantic import BaseModel, ConfigDict

__all__ = ["View"]


class View(BaseModel):
    """Base of all views."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
