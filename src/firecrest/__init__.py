"""Firecrest: sizes small self-powered loudspeakers against their promises."""

__version__ = "0.1.0"
