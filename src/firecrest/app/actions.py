"""All actions in one table: menus, shortcuts and the find field are built from it."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Action:
    """One command: ``slot`` names the window's method; ``argument`` is passed when given.

    ``sub`` is the submenu it stands in; of several shortcuts ("A; B") the first is shown.
    """

    id: str
    menu: str
    text: str
    slot: str
    shortcut: str = ""
    argument: str = ""
    break_before: bool = False
    sub: str = ""


DEMOS = (
    ("demo", "&Slipway: pontoon speaker", "slipway"),
    ("demo_boathouse", "&Boathouse: sealed, radiators, bandpass", "boathouse"),
    ("demo_lantern", "&Lantern: long folded slot", "lantern"),
    ("demo_breakwater", "Break&water: 2.1", "breakwater"),
    ("demo_regatta", "&Regatta: two ways", "regatta"),
    ("demo_headland", "&Headland: three measured ways", "headland"),
    ("demo_gangway", "&Gangway: coaxial", "gangway"),
    ("demo_capstan", "&Capstan: for an instrument", "capstan"),
    ("demo_ferry", "&Ferry: stacked layers, a batch of ten", "ferry"),
    ("demo_kit", "&Kit: drivers, bodies and ends", "kit"),
)

MENUS = ("&Project", "&Edit", "&View", "P&arts", "&Help")

ACTIONS = (
    Action("new", "&Project", "&New project", "new_project", "Ctrl+N"),
    Action("open", "&Project", "&Open…", "open_file", "Ctrl+O"),
    *(
        Action(id, "&Project", text, "open_demo", argument=name, sub="Open a &demo")
        for id, text, name in DEMOS
    ),
    Action("save", "&Project", "&Save", "save", "Ctrl+S"),
    Action("save_as", "&Project", "Save &as…", "save_as", "Ctrl+Shift+S"),
    Action("rename", "&Project", "Rena&me…", "rename", "F2"),
    Action("page", "&Project", "Save as a &page…", "save_page", break_before=True),
    Action("print", "&Project", "Pr&int…", "print_page", "Ctrl+P"),
    Action("quit", "&Project", "&Quit", "close", "Ctrl+Q; Ctrl+W", break_before=True),
    Action("undo", "&Edit", "&Undo", "undo", "Ctrl+Z"),
    Action("redo", "&Edit", "&Redo", "redo", "Ctrl+Shift+Z; Ctrl+Y"),
    Action(
        "find",
        "&Edit",
        "&Find a command, field or part",
        "find_anything",
        "Ctrl+K",
        break_before=True,
    ),
    Action("copy_variant", "&Edit", "&Copy this variant", "copy_variant", "Ctrl+D", sub="&Variant"),
    Action(
        "next_variant", "&Edit", "&Next variant", "next_variant", "Ctrl+Tab", "1", sub="&Variant"
    ),
    Action(
        "last_variant",
        "&Edit",
        "&Previous variant",
        "next_variant",
        "Ctrl+Shift+Tab",
        "-1",
        sub="&Variant",
    ),
    Action("beside", "&Edit", "Show the other &behind", "toggle_beside", "Ctrl+B", sub="&Variant"),
    Action("rename_variant", "&Edit", "&Rename…", "rename_variant", "Shift+F2", sub="&Variant"),
    Action("variant_left", "&Edit", "Move &left", "move_variant", argument="-1", sub="&Variant"),
    Action("variant_right", "&Edit", "Move r&ight", "move_variant", argument="1", sub="&Variant"),
    Action("delete_variant", "&Edit", "&Delete this variant", "delete_variant", sub="&Variant"),
    Action("add_way", "&Edit", "Add a &way", "add_way", break_before=True),
    Action("add_chamber", "&Edit", "Add a &chamber", "add_chamber"),
    Action("find_here", "&Edit", "Find on this &page", "find_here", "Ctrl+F"),
    Action("stage_promise", "&View", "&Promise", "show_stage", "Alt+1", "promise"),
    Action("stage_parts", "&View", "Pa&rts", "show_stage", "Alt+2", "parts"),
    Action("stage_size", "&View", "&Size", "show_stage", "Alt+3", "size"),
    Action("stage_power", "&View", "P&ower", "show_stage", "Alt+4", "power"),
    Action("stage_voice", "&View", "&Voice", "show_stage", "Alt+5", "voice"),
    Action("stage_cabinet", "&View", "C&abinet", "show_stage", "Alt+6", "cabinet"),
    Action("stage_compare", "&View", "&Compare", "show_stage", "Alt+9", "compare"),
    *(
        Action(
            f"move_{n}",
            "&Edit",
            f"Try move &{n}",
            "try_move",
            f"Ctrl+{n}",
            str(n),
            sub="Next &moves",
        )
        for n in range(1, 10)
    ),
    Action("back", "&View", "&Back", "go_back", "Alt+Left", break_before=True),
    Action("forward", "&View", "&Forward", "go_forward", "Alt+Right"),
    Action("region", "&View", "Next region", "next_region", "F6"),
    Action("region_back", "&View", "Previous region", "previous_region", "Shift+F6"),
    Action("worst", "&View", "&Worst frequency", "look_worst", "Ctrl+Shift+W"),
    Action("ghost", "&View", "&Keep as ghost", "toggle_ghost", "Ctrl+G"),
    Action("rail", "&View", "&Narrow rail", "toggle_rail", "F8", break_before=True),
    Action("side", "&View", "S&ide panel", "toggle_side", "F9"),
    Action("full", "&View", "F&ull screen", "toggle_full_screen", "F11"),
    Action("larger", "&View", "Lar&ger text", "zoom", "Ctrl++; Ctrl+=", "1", break_before=True),
    Action("smaller", "&View", "S&maller text", "zoom", "Ctrl+-", "-1"),
    Action("usual", "&View", "Text as t&he desktop", "zoom", "Ctrl+0", "0"),
    Action("light", "&View", "&Light", "choose_theme", argument="light", break_before=True),
    Action("dark", "&View", "&Dark", "choose_theme", argument="dark"),
    Action("desktop", "&View", "As the d&esktop", "choose_theme", argument="desktop"),
    Action("layout", "&View", "Reset la&yout", "reset_layout"),
    Action("new_driver", "P&arts", "New &driver", "new_shelf_part", argument="driver"),
    Action("new_radiator", "P&arts", "New &radiator", "new_shelf_part", argument="radiator"),
    Action("paste_sheet", "P&arts", "&Paste a sheet", "paste_sheet", "Ctrl+Shift+V"),
    Action("shelf_in", "P&arts", "&Take parts from a file…", "take_parts", break_before=True),
    Action("shelf_csv", "P&arts", "Save the shelf as &CSV…", "save_shelf", argument="csv"),
    Action("shelf_json", "P&arts", "Save the shelf as &JSON…", "save_shelf", argument="json"),
    Action(
        "shelf_undo", "P&arts", "&Undo on the shelf", "undo_shelf", "Ctrl+Alt+Z", break_before=True
    ),
    Action("shelf_redo", "P&arts", "R&edo on the shelf", "redo_shelf", "Ctrl+Alt+Shift+Z"),
    Action("help", "&Help", "&Guide to what is here", "help_here", "F1"),
    Action("start", "&Help", "&Start page", "show_start"),
    Action("tour", "&Help", "&Tour of the window", "start_tour"),
    Action("keys", "&Help", "&Keys", "show_keys"),
    Action("about", "&Help", "&About Firecrest", "about"),
)
