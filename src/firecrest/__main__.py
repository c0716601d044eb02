"""The ``firecrest`` command: headless commands here, everything else opens the window."""

import sys


def main() -> int:
    """Dispatch without loading Qt for a headless command."""
    arguments = sys.argv[1:]
    if arguments and arguments[0] in ("--version", "-V"):
        from firecrest import __version__

        print(f"firecrest {__version__}")
        return 0
    if arguments and arguments[0] in ("assess", "schema", "--help", "-h"):
        from firecrest.cli import run

        if arguments[0] in ("--help", "-h"):
            print(
                "usage: firecrest [open] [FILE | --demo NAME]   open the window\n"
                "       firecrest assess FILE [--json] ...      print the promises\n"
                "       firecrest schema                        JSON Schema of design.json\n"
                "       firecrest --version"
            )
            return 0
        return run(arguments)
    from firecrest.app.start import run_window

    return run_window(arguments[1:] if arguments[:1] == ["open"] else arguments)


if __name__ == "__main__":
    sys.exit(main())
