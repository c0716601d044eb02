"""How one begins: the start page and the tour, as the window offers them."""

from functools import partial

from firecrest.app.actions import DEMOS
from firecrest.app.finding import Finding
from firecrest.app.settings import settings
from firecrest.app.start_page import Begin, StartPage, Tour, recent_begins
from firecrest.files.demos import blank_design
from firecrest.present.text import words
from firecrest.present.text.units import told


def _owed_where() -> str:
    """What a new project begins with, and the place its promises are for."""
    blank = blank_design()
    distance = told(blank.brief.listening.distance, "length", "m", 0)
    return f"Write down what it owes first: {distance} away, {words.surroundings(blank)}"


class Beginning(Finding):
    """The beginner's half of the main window."""

    def show_start(self) -> None:
        """Where to begin: blank, from parts, a demo, a recent file; a document ends it."""
        self._leave_cards()
        begins: list[Begin] = [
            ("A new box, from the promise", _owed_where(), self._from_promise),
            ("From what I have", "Your driver's data sheet first, then the box", self._from_parts),
            ("Show me around", "Five pointers at the parts of the window", self.start_tour),
        ]
        demos = [
            (text.replace("&", ""), "Opens as a project of its own", partial(self.open_demo, name))
            for _, text, name in DEMOS
        ]
        recent = recent_begins(settings.get("recent", []), self.open_path)
        page = StartPage(self, begins, demos, recent)
        self.session.file_changed.connect(page.leave)

    def _from_promise(self) -> None:
        if self.new_project():
            self.show_stage("promise")

    def _from_parts(self) -> None:
        if self.new_project():
            self._parts().new_part("driver", pasting=True)

    def _leave_cards(self) -> None:
        """Whatever page or pointer is on show goes."""
        for page in self.findChildren(StartPage):
            page.leave()
        for tour in self.findChildren(Tour):
            tour.leave()

    def start_tour(self) -> None:
        """Five pointers, to be left at any time."""
        self._leave_cards()
        Tour(
            self,
            [
                (
                    self.strip,
                    "Promises",
                    "What the box owes, what it gets, and by how much it is short. Press one to "
                    "change it.",
                ),
                (
                    self.rail,
                    "Stages",
                    "From promise to voice, in any order: Alt and a number. A sign tells where "
                    "something is short.",
                ),
                (
                    self.stage,
                    "The stage",
                    "Plots above, what you build below. Type in any unit; while you type, ghosts "
                    "show what it would do.",
                ),
                (
                    self.side,
                    "Why",
                    "What gives out first, what helps most, and moves to try by pointing at them. "
                    "Underlined words lead to their field.",
                ),
                (
                    self.chain,
                    "The chain",
                    "From the pack to the listener: how much each link has to spare at its own "
                    "worst note.",
                ),
            ],
        )
