"""Parameters as benches need to know them, read from the models that describe themselves."""

from __future__ import annotations

from typing import Any, get_args

from kitecore.document.properties import Keys, may_have_keys
from kitecore.model import Model


class Control(Model):
    """One parameter. ``low`` and ``high`` bound the control, not the value; ``choices`` are all;

    ``keyed`` is whether it may have keys.
    """

    name: str
    help: str = ""
    unit: str = ""
    control: str = "slider"
    low: float | None = None
    high: float | None = None
    step: float | None = None
    default: Any = None
    choices: tuple[str, ...] = ()
    keyed: bool = False


def controls_of(model: type[Model]) -> tuple[Control, ...]:
    """The parameters of a model that were made by `model.param`, in order; others are left out."""
    found = []
    for name, field in model.model_fields.items():
        extra = field.json_schema_extra
        if not isinstance(extra, dict) or "control" not in extra:
            continue
        default = field.get_default()
        assert not isinstance(default, Keys)
        facts: dict[str, Any] = dict(extra)
        if facts["control"] == "choice":
            facts["choices"] = get_args(field.annotation)
        facts |= {"help": field.description or "", "default": default}
        found.append(Control(name=name, keyed=may_have_keys(field), **facts))
    return tuple(found)
