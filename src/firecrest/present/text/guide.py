"""The guide as it ships: its pages, their headings, and which page a stage has."""

import re
from dataclasses import dataclass
from functools import cache
from importlib import resources

ORDER = (
    "promise",
    "parts",
    "size",
    "map",
    "boxes",
    "ports",
    "power",
    "voice",
    "cabinet",
    "compare",
    "doubt",
    "moves",
    "files",
    "command-line",
)
_PICTURE = re.compile(r"^!\[[^\]]*\]\([^)]*\)\n?", re.MULTILINE)
_HEADING = re.compile(r"^#{1,3} (.+)$", re.MULTILINE)


@dataclass(frozen=True)
class Page:
    """A page by its key: Markdown without pictures, and its headings, the title first."""

    key: str
    text: str
    headings: tuple[str, ...]

    @property
    def title(self) -> str:
        """What the page is called."""
        return self.headings[0]


@cache
def pages() -> tuple[Page, ...]:
    """All pages in reading order."""
    folder = resources.files("firecrest") / "guide"
    return tuple(_page(key, (folder / f"{key}.md").read_text(encoding="utf-8")) for key in ORDER)


def _page(key: str, text: str) -> Page:
    return Page(key, _PICTURE.sub("", text), tuple(_HEADING.findall(text)))


def page_named(key: str) -> Page:
    """The page of a stage or by its own key; the first one when there is none of that key."""
    return next((page for page in pages() if page.key == key), pages()[0])
