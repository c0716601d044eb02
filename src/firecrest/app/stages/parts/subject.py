"""What a sheet shows: a part of the design, or one of the shelf tried in a design of its own."""

from firecrest.app.editing import Editing
from firecrest.app.session import Session
from firecrest.app.shelf_keeper import WAITING
from firecrest.core.errors import DesignError
from firecrest.design.edits.paths import Path, rebuilt, value_at
from firecrest.files.demos import blank_design
from firecrest.proposals.placing import host, path_of, put
from firecrest.shelf.entry import Entry
from firecrest.shelf.kinds import part_text


class Subject:
    """A part under one's eyes: where it stands, what edits it, and its place on the shelf."""

    def __init__(
        self,
        session: Session,
        editing: Editing,
        path: Path,
        entry_id: str,
        *,
        in_present: bool = True,
    ) -> None:
        self.session, self.editing, self.path, self.entry_id = session, editing, path, entry_id
        self._in_present = in_present
        self._host = session.design
        self._seen = self.entry

    @property
    def present(self) -> bool:
        """Whether the part is tried in the window's design as it is now."""
        return self._in_present and self._host is self.session.design

    @property
    def outdated(self) -> bool:
        """Whether the window's design has changed since a shelf part was put into it."""
        return not self.in_design and self._in_present and self._host is not self.session.design

    @property
    def in_design(self) -> bool:
        """Whether it is the design's own copy."""
        return self.editing is self.session

    @property
    def part(self) -> object:
        """The part as it is now."""
        return value_at(self.editing.design, self.path)

    @property
    def entry(self) -> Entry | None:
        """Its entry on the shelf, if it is there."""
        return self.session.shelf.entries().get(self.entry_id)

    def keep(self) -> bool:
        """Write an edited shelf part to the shelf; False (and told) when another window was first.

        Marks and notes that changed elsewhere meanwhile stay; only figures can collide.
        """
        entry, seen = self.entry, self._seen
        if entry is None or seen is None:
            return True
        part = rebuilt(self.part, shelf=None)
        if part_text(part) == seen.body:
            return True
        if entry.revision != seen.revision:
            self.session.shelf.refused.emit(
                f"{entry.name} was changed in another window meanwhile. Its figures from there "
                "are shown; what you typed last was not kept."
            )
            return False
        kept = self.session.shelf.attempt(
            lambda shelf: shelf.keep_part(entry, part), key=("part", entry.id)
        )
        if kept is not WAITING:
            self._seen = kept
        return kept is not None


def of_design(session: Session, path: Path) -> Subject:
    """The design's part at ``path``."""
    link = value_at(session.design, path).shelf
    return Subject(session, session, path, link.part if link else "")


def of_shelf(session: Session, entry: Entry) -> Subject:
    """A shelf part, in the present design where it can be, else in a blank one."""
    try:
        design, in_present = put(session.design, entry.part), True
    except DesignError:
        design, in_present = host([blank_design()], entry.part), False
    path = path_of(design, entry.part)
    return Subject(session, Editing(design, session), path, entry.id, in_present=in_present)
