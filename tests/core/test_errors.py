"""The one family of errors."""

import pytest

from firecrest.core.errors import DesignError, FirecrestError, MissingFigureError, guarded


def test_what_goes_wrong_unforeseen_in_a_reader_becomes_a_sentence_and_is_marked():
    words = r"This sheet cannot be read \(KeyError\)"
    with pytest.raises(DesignError, match=words) as told, guarded("This sheet", DesignError):
        raise KeyError("x")
    assert told.value.unforeseen
    assert isinstance(told.value.__cause__, KeyError)


def test_our_own_errors_pass_as_they_are():
    words = "needs Xmax of Alder"
    with pytest.raises(FirecrestError, match=words) as told, guarded("This sheet", DesignError):
        raise MissingFigureError("Xmax", "Alder")
    assert (told.value.figure, told.value.part) == ("Xmax", "Alder")
    assert not told.value.unforeseen
