"""The highest long-term level, and what holds it."""

import numpy as np
import pytest

from firecrest.core.limits.elements import Limit
from firecrest.core.limits.programme_level import programme_level_of


def limit(name, volts, code="C", index=0):
    return Limit(name, code, np.array([volts]), index)


def test_the_tightest_limit_holds_it_and_each_name_has_its_own_level():
    limits = [limit("swing", 10.0, "V"), limit("cone", 4.0), limit("cone", 2.0, index=1)]
    found = programme_level_of(limits, 80.0)
    assert (found.name, found.code) == ("cone", "C")
    assert found.level == pytest.approx(80 + 20 * np.log10(2.0))
    assert found.by_limit == {
        "swing": pytest.approx(100.0),
        "cone": pytest.approx(80 + 20 * np.log10(2.0)),
    }


def test_a_sagging_pack_is_told_by_its_letter():
    sag = Limit("swing", "V", np.array([3.0]), pack=np.array([True]))
    assert programme_level_of([sag], 80.0).code == "P"
