"""Attack: mutated files and texts at every reader's edge give a document or our own error."""

import copy
import io
import json
import random
import resource
import tempfile
import time
import traceback
import warnings
import zipfile
from functools import partial
from pathlib import Path

from firecrest.app.settings import Settings
from firecrest.core.curve_text import read_curve
from firecrest.core.errors import FirecrestError
from firecrest.core.reading import read_quantity
from firecrest.core.units import QUANTITIES
from firecrest.design.project import project_of
from firecrest.design.text import project_to_json
from firecrest.files.container import Document, read_document, write_document
from firecrest.files.demos import read_demo
from firecrest.files.journal import WORK, Journal, left_over
from firecrest.shelf.exchange import planned, read_file, write_parts
from firecrest.shelf.pasting import LONGEST, name_in, read_sheet
from firecrest.shelf.query import parse_query
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.table import decoded, write_table
from tests.attacks.results import Result

SLOWEST_S = 1.0
MOST_MB = 500
PIECES = (
    b"\x00", b"\xff\xfe", b"\xed\xa0\x80", b"1e999", b"-1e999", b"NaN", b"10" * 40, b'"', b"{",
    b"}", b"]", b"[" * 300, b"null", b"\\ud800", b"\\u0000", b"<img src='/dev/zero'>", b" " * 3000,
    b"a" * 3000, b",", b";", b"\r", b"\n", b"\t", "٣٤½²⁻".encode(), b"=1+1", b"PK\x05\x06",
    b"5 x 10^-4", b"12 x 10^999 Hz",
)  # fmt: skip
ODD = (
    None, True, -1, 0, 10**30, -(10**30), 1e308, 5e-324, "", "x" * 5000, "<b>&amp;", "\x00",
    "\u202e", [], {}, [1] * 300, {"a": 1}, [[[[]]]], "1e999", "😀" * 100,
)  # fmt: skip
SHEET = """Alder W13-4 5 1/4 in full range\nRe 3,5 ohm  Le 0.30 mH\nfs 66 Hz ± 5 Hz\nQms 4.2
Sd 87 cm2\nVas 0.26 cu.ft\nCms 5.7x10^-4 m/N\npower 34 W RMS\nImpedance 2 x 4 ohm\nprice € 0"""
SEARCH = "Ø 140 to 200, under €40, fs under 60 hz"
SETTINGS = b'{"theme": "dark", "recent": ["/a"], "window/geometry": "AAAA"}'
CURVE = "* Hz ohm phase\n" + "\n".join(f"{10 * 1.1**k:.3f}; {4 + k % 7},5; {k}" for k in range(60))


def attack(seed, count, seconds):
    """Every reader in turn."""
    result = Result("mutations", count, seconds)
    slowest, before = ("", 0.0), _most_memory()
    with tempfile.TemporaryDirectory() as folder:
        targets = list(readers(Path(folder)))
        for number in result.rounds():
            dice = random.Random(f"{seed} {number}")
            name, data, read = targets[number % len(targets)]
            mutated = bomb(dice) if name == "bombs" else mutate(dice, data)
            began = time.perf_counter()
            what = trouble(read, mutated)
            took = time.perf_counter() - began
            slowest = max(slowest, (name, took), key=lambda pair: pair[1])
            if took > SLOWEST_S:
                what = what or f"took {took:.1f} s"
            if what:
                result.fail(f"{name} {seed} {number}: {what}")
    used = _most_memory() - before
    if used > MOST_MB:
        result.fail(f"{used:.0f} MB were used")
    result.facts = {"slowest": f"{slowest[0]} {slowest[1]:.2f} s", "memory": f"{used:.0f} MB"}
    return result


def _most_memory():
    """The most memory this process has ever held, MB."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


def trouble(read, data):
    """What a reader did wrong with some bytes; nothing when it read or refused them."""
    try:
        read(data)
    except FirecrestError as error:
        if error.unforeseen:
            cause = error.__cause__
            place = traceback.extract_tb(cause.__traceback__)[-1]
            return f"guarded {type(cause).__name__} {cause!s:.80} ({place.name}:{place.lineno})"
        return "" if str(error).strip() else "an error without words"
    except Exception as error:
        place = traceback.extract_tb(error.__traceback__)[-1]
        return f"{type(error).__name__} {error!s:.80} ({place.name}:{place.lineno})"
    return ""


def mutate(dice, data):
    """Other bytes: of a JSON text often another tree, else other letters and pieces."""
    if data[:1] in (b"{", b"[") and dice.random() < 0.6:
        return _other_tree(dice, data)
    made = bytearray(data)
    for _ in range(dice.choice((1, 1, 2, 3, 8))):
        place = dice.randrange(len(made) + 1)
        kind = dice.random()
        if kind < 0.35 and place < len(made):
            made[place] = dice.randrange(256)
        elif kind < 0.6:
            made[place:place] = dice.choice(PIECES)
        elif kind < 0.75:
            del made[place : place + dice.choice((1, 4, 64, 4096))]
        elif kind < 0.9:
            start = dice.randrange(len(made) + 1)
            made[place:place] = made[start : start + dice.choice((1, 16, 256))]
        else:
            del made[place:]
        if not made:
            break
    return bytes(made)


def _other_tree(dice, data):
    tree = json.loads(data)
    for _ in range(dice.choice((1, 1, 2, 4))):
        node = tree
        for _ in range(dice.randrange(1, 9)):
            keys = list(node) if isinstance(node, dict) else list(range(len(node)))
            if not keys:
                break
            key = dice.choice(keys)
            if isinstance(node[key], dict | list) and dice.random() < 0.8:
                node = node[key]
                continue
            if isinstance(node, dict) and dice.random() < 0.15:
                node[dice.choice(("", "new", "name", "\x00"))] = node.pop(key)
            else:
                node[key] = copy.deepcopy(dice.choice(ODD))
            break
    return json.dumps(tree).encode()


def readers(folder):
    """(name, bytes that are read well, the reader) of every edge."""
    design = read_demo("slipway")
    text = project_to_json(project_of(design)).encode()
    path = folder / "x.firecrest"
    files = {"curves/z.csv": b"10,4\n" * 99, "photos/a.png": b"\x89"}
    write_document(path, Document(project_of(design), files))
    document, entries = partial(_document, folder), list(shipped_entries())[::9]
    yield "container", path.read_bytes(), document
    yield "design", text, document
    yield "demo", project_to_json(project_of(read_demo("breakwater"))).encode(), document
    yield "bombs", b"", document
    yield "parts JSON", write_parts(entries[:6]).encode(), _parts
    yield "parts CSV", write_table(entries).encode(), _parts
    yield "curve", CURVE.encode(), lambda data: read_curve(decoded(data), "z.txt")
    yield "sheet", SHEET.encode(), _sheet
    yield "search", SEARCH.encode(), lambda data: parse_query(_text(data))
    yield "quantity", b"7 1/4 in + 2*(3-1) mm", _quantity
    yield "settings", SETTINGS, partial(_settings, folder)
    journal = Journal(folder / "unsaved", "kept")
    journal.keep(Document(project_of(design), {"a": b"1"}), path)
    journal.let_go()
    work = folder / "unsaved" / "kept" / WORK
    yield "journal", work.read_bytes(), partial(_journal, folder, work)


def _text(data):
    return data.decode("utf-8", errors="surrogateescape")


def _document(folder, data):
    path = folder / "mutated.firecrest"
    path.write_bytes(data)
    document = read_document(path)
    again = folder / "again.firecrest"
    write_document(again, document)
    if read_document(again) != Document(project_of(document.design), document.attachments):
        raise AssertionError("another document after saving")


def bomb(dice):
    """A container with members as many, as large, of such names and kinds as it may be."""
    stored, deflated = zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED
    kinds = (stored, deflated, deflated, zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA)
    stream = io.BytesIO()
    with warnings.catch_warnings(), zipfile.ZipFile(stream, "w") as archive:
        warnings.simplefilter("ignore")
        archive.writestr(
            "design.json", project_to_json(project_of(read_demo("slipway"))), dice.choice(kinds)
        )
        many = dice.random() < 0.02
        for k in range(2100 if many else dice.choice((0, 1, 3))):
            name = dice.choice((f"x{k}", f"../{k}", f"/{k}", "a" * 300, "a", "a\\b", "é/ü"))
            size = (
                1
                if many
                else dice.choice((0, 10, 10, 10, 3_000_000, 70_000_000 * (dice.random() < 0.1)))
            )
            archive.writestr(name, b"0" * size, stored if many else dice.choice(kinds))
    return stream.getvalue()


def _parts(data):
    table = read_file(data, "parts.csv")
    planned(table, {e.id: e for e in shipped_entries()})
    assert write_table(table.entries)
    assert write_parts(table.entries)


def _sheet(data):
    text = _text(data)[:LONGEST]
    for kind in ("driver", "radiator"):
        readings = read_sheet(text, kind)
        assert all(0 <= r.start <= r.end <= len(text) for r in readings)
        name_in(text, readings)


def _quantity(data):
    for quantity, kind in QUANTITIES.items():
        try:
            value = read_quantity(_text(data), quantity, kind.units[0].label)
        except FirecrestError:
            continue
        assert abs(value) < float("inf")


def _settings(folder, data):
    path = folder / "firecrest" / "settings.json"
    path.parent.mkdir(exist_ok=True)
    path.write_bytes(data)
    store = Settings(path.parent)
    assert store.get("theme", "desktop") in ("light", "dark", "desktop")
    assert all(isinstance(p, str) for p in store.get("recent", []))
    store.get_state("window/geometry")
    store.put("theme", "light")
    assert Settings(path.parent).get("theme", "") == "light"


def _journal(folder, work, data):
    work.write_bytes(data)
    for item in left_over(folder / "unsaved"):
        item.journal.let_go()
    assert work.read_bytes() == data
