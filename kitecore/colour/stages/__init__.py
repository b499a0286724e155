"""What each stage of a grade does. To add one: its settings in `document.grade`, a module here."""

from kitecore.colour.stages._base import StageRule, stage_rules
from kitecore.registry import import_all

import_all(__name__)

__all__ = ["StageRule", "stage_rules"]
