"""Physics and engineering of portable loudspeakers: no interface, no files, no globals."""
