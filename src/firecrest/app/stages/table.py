"""Which stages there are, in working order; a stage is loaded when it is first shown."""

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from firecrest.app.stages.base import Stage

STAGES = {
    "promise": ("promise", "PromiseStage"),
    "parts": ("parts.stage", "PartsStage"),
    "size": ("size.stage", "SizeStage"),
    "power": ("power.stage", "PowerStage"),
    "voice": ("voice.stage", "VoiceStage"),
    "cabinet": ("cabinet.stage", "CabinetStage"),
    "compare": ("compare.stage", "CompareStage"),
}
"""Key: module below this folder, and class in it."""


def stage_class(key: str) -> type["Stage"]:
    """The class of a stage; KeyError when there is none of that name."""
    module, name = STAGES[key]
    found: type[Stage] = getattr(import_module(f"firecrest.app.stages.{module}"), name)
    return found
