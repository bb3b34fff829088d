"""What was done at the board: measured against computed with the slip named, and what sittings teach."""

from .learning import Learnt, Spread, learn
from .measured import Verdict, judge
from .sitting import Event, Sitting, effective
from .taught import Taught, teach

__all__ = ["Event", "Learnt", "Sitting", "Spread", "Taught", "Verdict", "effective", "judge", "learn", "teach"]
