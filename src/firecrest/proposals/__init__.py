"""Things that make new designs: layouts, tunings, starts, ports, parts put in, levers."""
