"""Colour roles, light and dark, and the tints and patterns of the limits."""

from dataclasses import dataclass

from firecrest.present.plot.plot import tint_of

LIGHT = {
    "paper": "#EBEEE1",
    "sheet": "#F9FAF5",
    "tray": "#DFE4D2",
    "field": "#FFFFFF",
    "card": "#FFFFFF",
    "rule": "#CDD3BE",
    "grid": "#E4E8DA",
    "rule2": "#777E65",
    "ink": "#1B2015",
    "ink2": "#4F563F",
    "olive": "#56660F",
    "olivet": "#DDE5B5",
    "onolive": "#FFFFFF",
    "flame": "#AE3805",
    "flamet": "#FBDDC8",
    "amber": "#7A5600",
    "ambert": "#FFF0BF",
    "crest": "#F08C0A",
    "yolk": "#FFCB2E",
    "onyolk": "#12150C",
    "stripe": "#12150C",
    "brow": "#FFFFFF",
    "onstripe": "#FFFFFF",
    "wood": "#EFE0BE",
    "woodline": "#8A7440",
    "frame": "#4A5142",
    "cone": "#6A715C",
    "basket": "#2C3226",
}
DARK = {
    "paper": "#171A12",
    "sheet": "#1E2219",
    "tray": "#10130B",
    "field": "#10130B",
    "card": "#1E2219",
    "rule": "#373D2C",
    "grid": "#282D20",
    "rule2": "#858D72",
    "ink": "#F1EFE1",
    "ink2": "#B6BAA2",
    "olive": "#B5CA5C",
    "olivet": "#38421B",
    "onolive": "#12150C",
    "flame": "#FF935A",
    "flamet": "#4A2614",
    "amber": "#FFD04D",
    "ambert": "#3F3510",
    "crest": "#F5A02A",
    "yolk": "#FFD04D",
    "onyolk": "#12150C",
    "stripe": "#FFFFFF",
    "brow": "#10130B",
    "onstripe": "#12150C",
    "wood": "#4A4028",
    "woodline": "#9C8A5C",
    "frame": "#0E120B",
    "cone": "#4E5643",
    "basket": "#23291C",
}


STEPS_LIGHT = (
    "#F6F3E2", "#EAEBCB", "#DDE5B5", "#CBD793", "#B5C56F", "#9CB04E", "#829732", "#687B1C",
)  # fmt: skip
STEPS_DARK = (
    "#1E2219", "#272E1B", "#38421B", "#4A5821", "#5F7029", "#778B35", "#93A945", "#B5CA5C",
)  # fmt: skip
"""Fills of a map, from the least to the most."""


@dataclass(frozen=True)
class Tint:
    """Fill and line of a limit, light and dark."""

    light: tuple[str, str]
    dark: tuple[str, str]


TINTS = {
    "upright": Tint(("#A9CFF5", "#1B62C8"), ("#15305F", "#3D9BF5")),
    "rings": Tint(("#DBF2EF", "#06474F"), ("#1C605D", "#A6F2E4")),
    "dots": Tint(("#DBF2EF", "#06474F"), ("#1C605D", "#A6F2E4")),
    "net": Tint(("#DCABC2", "#A83282"), ("#3C1427", "#F7619B")),
    "level": Tint(("#FBEAA4", "#7B6B00"), ("#5E5214", "#EBD23A")),
    "rising": Tint(("#F9A97F", "#8F2800"), ("#5A2710", "#FF935A")),
    "zigzag": Tint(("#B7A6F5", "#4A1A86"), ("#47207F", "#C4BAF8")),
    "dashes": Tint(("#DFE4D2", "#4F563F"), ("#282D20", "#B6BAA2")),
}
"""By the name of the pattern; which limit has which stands with the limit."""


@dataclass(frozen=True)
class Theme:
    """One set of colours; ``dark`` picks the tints."""

    dark: bool

    def __getitem__(self, role: str) -> str:
        """Colour of a role, as #RRGGBB."""
        return (DARK if self.dark else LIGHT)[role]

    def roles(self) -> dict[str, str]:
        """All roles with their colours."""
        return DARK if self.dark else LIGHT

    def step(self, place: int) -> str:
        """Fill of a map's step, from 0 up."""
        steps = STEPS_DARK if self.dark else STEPS_LIGHT
        return steps[min(max(place, 0), len(steps) - 1)]

    def fill(self, code: str) -> str:
        """Fill of a limit's tint."""
        tint = TINTS[tint_of(code)]
        return (tint.dark if self.dark else tint.light)[0]

    def line(self, code: str) -> str:
        """Line and text colour of a limit."""
        tint = TINTS[tint_of(code)]
        return (tint.dark if self.dark else tint.light)[1]


def contrast(a: str, b: str) -> float:
    """Contrast ratio of two #RRGGBB colours, by the WCAG 2 formula."""
    high, low = sorted((_luminance(a), _luminance(b)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def _luminance(colour: str) -> float:
    channels = [int(colour[k : k + 2], 16) / 255 for k in (1, 3, 5)]
    linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]
