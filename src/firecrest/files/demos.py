"""The shipped demo designs and the blank one a new project starts from."""

from importlib import resources

from firecrest.core.errors import FileError
from firecrest.design.design import Design
from firecrest.design.text import project_from_json

BLANK = "untitled"


def demo_names() -> list[str]:
    """Names of the shipped demos."""
    files = resources.files("firecrest.demos").iterdir()
    names = sorted(f.name.removesuffix(".json") for f in files if f.name.endswith(".json"))
    return [name for name in names if name != BLANK]


def read_demo(name: str) -> Design:
    """One of the demos; FileError lists them when there is none of that name."""
    file = resources.files("firecrest.demos") / f"{name.lower()}.json"
    if not file.is_file():
        raise FileError(f"There is no demo called {name}. There are: {', '.join(demo_names())}.")
    return project_from_json(file.read_text(encoding="utf-8")).design


def blank_design() -> Design:
    """What a new project starts from: a sealed box with house parts and no name."""
    return read_demo(BLANK)
