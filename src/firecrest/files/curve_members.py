"""Measured curves as members of a container: each text once, named by what is in it.

In ``design.json`` a curve then has a ``digest`` in place of its ``content``.
"""

import hashlib
from collections.abc import Iterator, Mapping
from typing import Any

KEY, CONTENT, DIGEST = "curves", "content", "digest"
FOLDER, SUFFIX = "curves/", ".csv"


def set_out(body: Any) -> dict[str, bytes]:
    """Take the texts of all curves out of a JSON tree; member name -> bytes."""
    members = {}
    for curve in _curves(body):
        data = str(curve.pop(CONTENT)).encode()
        digest = hashlib.sha256(data).hexdigest()
        curve[DIGEST] = digest
        members[_member(digest)] = data
    return members


def brought_in(body: Any, members: Mapping[str, bytes]) -> tuple[dict[str, bytes], list[str]]:
    """Put the texts back into a JSON tree; what is left of ``members``, and curves not found.

    A curve whose text is gone leaves the tree; a design without it still opens.
    """
    used, lost = set(), []
    for curve in _curves(body):
        if DIGEST not in curve:
            continue
        name = _member(str(curve.pop(DIGEST)))
        try:
            curve[CONTENT] = members[name].decode()
            used.add(name)
        except (KeyError, UnicodeDecodeError):
            lost.append(f"{name:.80}: the curve “{curve.get('name', '')!s:.60}” has no text")
    for owner in _owners(body):
        owner[KEY] = [c for c in owner[KEY] if not isinstance(c, dict) or CONTENT in c]
    return {name: data for name, data in members.items() if name not in used}, lost


def _member(digest: str) -> str:
    return f"{FOLDER}{digest}{SUFFIX}"


def _owners(body: Any) -> Iterator[dict[str, Any]]:
    """Objects with a list of curves, anywhere in a JSON tree."""
    waiting = [body] if isinstance(body, dict | list) else []
    while waiting:
        node = waiting.pop()
        if isinstance(node, dict) and isinstance(node.get(KEY), list):
            yield node
        children = node.values() if isinstance(node, dict) else node
        waiting.extend(c for c in children if isinstance(c, dict | list))


def _curves(body: Any) -> Iterator[dict[str, Any]]:
    for owner in _owners(body):
        yield from (c for c in owner[KEY] if isinstance(c, dict) and (CONTENT in c or DIGEST in c))
