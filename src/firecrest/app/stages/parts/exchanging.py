"""After a part is exchanged: what stays as it was set, and a way to keep the tuning."""

from functools import partial

from firecrest.app.session import Session
from firecrest.assessment.assess import Assessment
from firecrest.present.parts.exchange import Moved, exchange_words, moved_tunings
from firecrest.proposals.inverse import with_tuning

OFFERS = 2


def tell_exchange(session: Session, before: Assessment) -> None:
    """Tell what the exchange since ``before`` leaves to decide; nothing when it leaves nothing."""
    after = session.assessment
    text = exchange_words(before, after)
    if text:
        moved = moved_tunings(before, after)[:OFFERS]
        offers = [(f"Keep {m.before:.1f} Hz", partial(_keep_tuning, session, m)) for m in moved]
        session.told.emit(text, [*offers, ("Leave it", lambda: None)])


def _keep_tuning(session: Session, moved: Moved) -> None:
    label = f"Keep the tuning of {moved.before:.1f} Hz"
    session.attempt(
        lambda: session.apply(label, with_tuning(session.design, moved.before, moved.chamber))
    )
