"""The ``firecrest`` command: headless commands here, everything else opens the window."""

import os
import sys
from io import TextIOWrapper

BROKEN_PIPE = 141
"""Exit status when the reader of the output has gone, as shells count it (128 + SIGPIPE)."""


def main() -> int:
    """Run the command; a stream that takes no letter or goes away ends it without a trace."""
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, TextIOWrapper):
            stream.reconfigure(errors="replace")
    try:
        status = _dispatch(sys.argv[1:])
        if sys.stdout is not None:
            sys.stdout.flush()
    except BrokenPipeError:
        # What is still in the buffer has nowhere to go; the interpreter would try once more.
        os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
        return BROKEN_PIPE
    except OSError as error:
        print(f"firecrest: {error.strerror or error}", file=sys.stderr)
        os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
        return 2
    return status


def _dispatch(arguments: list[str]) -> int:
    """Headless commands without loading Qt."""
    if arguments and arguments[0] in ("--version", "-V"):
        from firecrest import __version__

        print(f"firecrest {__version__}")
        return 0
    if arguments and arguments[0] in ("assess", "compare", "schema", "--help", "-h"):
        from firecrest.cli import run

        if arguments[0] in ("--help", "-h"):
            print(
                "usage: firecrest [open] [FILE | --demo NAME]   open the window\n"
                "       firecrest assess FILE [--json] ...      print the promises\n"
                "       firecrest compare FILE [--json]         its variants side by side\n"
                "       firecrest schema                        JSON Schema of design.json\n"
                "       firecrest --version"
            )
            return 0
        return run(arguments)
    from firecrest.app.start import run_window

    return run_window(arguments[1:] if arguments[:1] == ["open"] else arguments)


if __name__ == "__main__":
    sys.exit(main())
