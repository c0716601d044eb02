"""The shipped demo projects, their variants by name, and the blank one of a new project."""

from functools import cache
from importlib import resources

from firecrest.core.errors import FileError
from firecrest.design.design import Design
from firecrest.design.project import Project, Variant, switched
from firecrest.design.text import project_from_json

BLANK = "untitled"
DASH = "-"
"""Between a demo and its variant, as in boathouse-radiators."""


def demo_names() -> list[str]:
    """Names of the shipped demos, each also with its further variants."""
    files = resources.files("firecrest.demos").iterdir()
    names = [f.name.removesuffix(".json") for f in files if f.name.endswith(".json")]
    found = [name for name in names if name != BLANK]
    return sorted(
        [*found, *(f"{n}{DASH}{v.name}" for n in found for v in _read(n).variants[1:] if _short(v))]
    )


def _short(variant: Variant) -> bool:
    """Whether a variant has a name of one word, by which it is asked for."""
    return variant.name.isalpha()


def read_demo_project(name: str) -> Project:
    """One of the demos, with the variant in force that ``name`` may end in; FileError lists them
    when there is none of that name.
    """
    whole, _, part = name.lower().partition(DASH)
    file = resources.files("firecrest.demos") / f"{whole}.json"
    project = _read(whole) if file.is_file() else None
    letters = [v.letter for v in project.variants if v.name == part] if project and part else []
    if project is None or (part and not letters):
        raise FileError(f"There is no demo called {name}. There are: {', '.join(demo_names())}.")
    return switched(project, letters[0]) if letters else project


def read_demo(name: str) -> Design:
    """The variant in force of a demo; FileError as ``read_demo_project``."""
    return read_demo_project(name).design


def blank_design() -> Design:
    """What a new project starts from: a sealed box with house parts and no name."""
    return read_demo(BLANK)


@cache  # what is shipped stays as it is
def _read(name: str) -> Project:
    file = resources.files("firecrest.demos") / f"{name}.json"
    return project_from_json(file.read_text(encoding="utf-8"))
