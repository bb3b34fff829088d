"""Practice: questions from any plan, the same part with new givens, answers judged and understood, what comes next."""

from .ask import questions
from .mark import Learner, Mark, marked
from .question import RULES, Question, Slip
from .spacing import Answered, Card, cards, chosen
from .vary import variant

__all__ = [
    "RULES",
    "Answered",
    "Card",
    "Learner",
    "Mark",
    "Question",
    "Slip",
    "cards",
    "chosen",
    "marked",
    "questions",
    "variant",
]
