"""Many structures of numbers that differ in figures only, as one whose floats are columns.

Structures are nested dataclasses, models, tuples and mappings. A column has the shape (designs, 1);
a figure that all designs share stays a float. Models with columns in them never leave the
derivation: their constructors, which check ranges, are left out on purpose.
"""

import dataclasses
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any, TypeVar

import numpy as np

from firecrest.core.arrays import Real
from firecrest.design.edits.paths import Path

NUMBER = "number"
_FIELDS: dict[type, tuple[tuple[str, bool], ...] | None] = {}
Tree = TypeVar("Tree")


def _names(kind: type) -> tuple[tuple[str, bool], ...] | None:
    """(field name, whether it is a mere label) of a dataclass type; None of anything else."""
    if kind not in _FIELDS:
        _FIELDS[kind] = None
        if dataclasses.is_dataclass(kind):
            fields = dataclasses.fields(kind)
            _FIELDS[kind] = tuple((f.name, bool(f.metadata.get("label"))) for f in fields)
    return _FIELDS[kind]


Flat = tuple[Any, tuple[float, ...]]
"""(topology, floats) of a structure."""


def flattened(value: Any, known: dict[int, Flat] | None = None) -> Flat:
    """(topology, floats): two values of equal topology differ in floats and labels only.

    ``known`` remembers branches by their identity: for values that share some, and all live on.
    """
    return _flat(value, {} if known is None else known)


def _flat(value: Any, known: dict[int, Flat]) -> Flat:
    kind = type(value)
    if kind is float or isinstance(value, np.floating):
        return NUMBER, (float(value),)
    names = _names(kind)
    if names is not None:
        if id(value) not in known:
            items = [getattr(value, name) for name, label in names if not label]
            known[id(value)] = _all(kind, items, known)
        return known[id(value)]
    if kind is tuple:
        return _all(len(value), value, known)
    if isinstance(value, Mapping):
        return _all(tuple(value), value.values(), known)
    return value, ()


def _all(kind: Any, items: Iterable[Any], known: dict[int, Flat]) -> Flat:
    topology: list[Any] = [kind]
    floats: list[float] = []
    for item in items:
        if type(item) is float:
            topology.append(NUMBER)
            floats.append(item)
        else:
            shape, own = _flat(item, known)
            topology.append(shape)
            floats.extend(own)
    return tuple(topology), tuple(floats)


def mapped(value: Tree, leaf: Callable[[Any], Any]) -> Tree:
    """The structure of ``value`` with ``leaf(x)`` in place of every float or array ``x``.

    Branches in which nothing changes are kept as they are.
    """
    made = _mapped(value, leaf)
    assert isinstance(made, type(value))
    return made


def _mapped(value: Any, leaf: Callable[[Any], Any]) -> Any:
    if isinstance(value, float | np.ndarray | np.floating):
        return leaf(value)
    names = _names(type(value))
    if names is not None:
        changes = {}
        for name, label in names:
            old = getattr(value, name)
            new = old if label else _mapped(old, leaf)
            if new is not old:
                changes[name] = new
        return changed(value, changes) if changes else value
    if type(value) is tuple:
        items = tuple(_mapped(item, leaf) for item in value)
        return items if any(a is not b for a, b in zip(items, value, strict=True)) else value
    if isinstance(value, Mapping):
        return {key: _mapped(item, leaf) for key, item in value.items()}
    return value


def changed(node: Tree, changes: Mapping[str, Any]) -> Tree:
    """A dataclass or model with other values in some fields, unchecked."""
    names = _names(type(node))
    assert names is not None
    made = object.__new__(type(node))
    for name, _ in names:
        object.__setattr__(made, name, changes[name] if name in changes else getattr(node, name))
    return made


def put(tree: Tree, path: Path, value: Any) -> Tree:
    """``tree`` with ``value``, often a column, at ``path``; unchecked."""
    return put_all(tree, {path: value})


def put_all(tree: Tree, values: Mapping[Path, Any]) -> Tree:
    """``tree`` with each of ``values`` at its path, rebuilt once; none lies within another."""
    made = _put(tree, list(values.items()), 0)
    assert isinstance(made, type(tree))
    return made


def _put(node: Any, items: Sequence[tuple[Path, Any]], depth: int) -> Any:
    """``node`` with every value whose path leads on from it, ``depth`` steps down."""
    if not items:
        return node
    if len(items[0][0]) == depth:
        return items[0][1]
    below: dict[Any, list[tuple[Path, Any]]] = {}
    for item in items:
        below.setdefault(item[0][depth], []).append(item)
    if isinstance(node, tuple):
        return tuple(_put(v, below.get(k, ()), depth + 1) for k, v in enumerate(node))
    if isinstance(node, Mapping):
        return {**node, **{k: _put(node[k], own, depth + 1) for k, own in below.items()}}
    return changed(node, {k: _put(getattr(node, k), own, depth + 1) for k, own in below.items()})


def stacked(first: Tree, floats: Sequence[Sequence[float]]) -> Tree:
    """``first`` with columns of all ``floats`` (one row a design) where these differ."""
    table = np.array(floats, dtype=np.float64).T
    differs = np.any(table != table[:, :1], axis=1)
    rows = iter(zip(table, differs, strict=True))

    def _leaf(own: Any) -> Any:
        row, differ = next(rows)
        return np.ascontiguousarray(row)[:, None] if differ else own

    return mapped(first, _leaf)


Columns = tuple[tuple[Path, Real], ...]
"""(where, values) of every column in a structure."""


def columns_of(tree: Any, path: Path = ()) -> Columns:
    """All columns of a structure."""
    if isinstance(tree, np.ndarray):
        return ((path, tree),) if tree.ndim > 1 else ()
    names = _names(type(tree))
    if names is not None:
        parts = [columns_of(getattr(tree, n), (*path, n)) for n, label in names if not label]
    elif type(tree) is tuple:
        parts = [columns_of(item, (*path, k)) for k, item in enumerate(tree)]
    elif isinstance(tree, Mapping):
        parts = [columns_of(item, (*path, key)) for key, item in tree.items()]
    else:
        return ()
    return tuple(column for part in parts for column in part)


def rows_of(tree: Tree, columns: Columns, rows: Any) -> Tree:
    """The designs at ``rows`` (a slice or places) of a stack with these ``columns``."""
    return put_all(tree, {path: values[rows] for path, values in columns})


def widened(tree: Tree, count: int) -> Tree:
    """Every number of an answer as an array (designs, n)."""

    def _leaf(x: Any) -> Real:
        return np.broadcast_to(x, (count, np.shape(x)[-1] if np.ndim(x) else 1))

    return mapped(tree, _leaf)


def joined(parts: Sequence[Tree]) -> Tree:
    """Answers of several blocks of designs as one."""
    made = _joined(parts)
    assert isinstance(made, type(parts[0]))
    return made


def _joined(parts: Sequence[Any]) -> Any:
    first = parts[0]
    if len(parts) == 1:
        return first
    if isinstance(first, np.ndarray):
        return np.concatenate(parts)
    names = _names(type(first))
    if names is not None:
        return changed(first, {n: _joined([getattr(p, n) for p in parts]) for n, _ in names})
    if type(first) is tuple:
        return tuple(_joined(items) for items in zip(*parts, strict=True))
    return first
