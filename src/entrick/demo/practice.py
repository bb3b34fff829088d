"""Practice rounds of a simulated learner whose slips are known: rehearsed, not answered by
anybody."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from random import Random

from ..core.desk import work_out
from ..core.practice.ask import questions
from ..core.practice.mark import marked
from ..core.practice.question import Question
from ..core.practice.slips import rounded
from ..store import AnswerView, Store, list_answers, list_jobs, one_job, put_answer

ROUNDS, EACH = 8, 10
SEED = 7
EVERY = timedelta(days=3)

HABITS = {
    "diameter for radius": 0.6,
    "sum for difference": 0.5,
    "scale forgotten": 0.35,
    "the other crossing": 0.4,
    "one part out": 0.5,
    "not halved": 0.3,
}
"""How often the learner makes each slip, of its chances, in the first round; half as often in the
last."""


def load_practice(store: Store) -> int:
    """Enter made-up rounds into a register that has none; return how many answers."""
    with store.reading() as session:
        if list_answers(session):
            return 0
        jobs = [one_job(session, job.id) for job in list_jobs(session).jobs[:ROUNDS]]
    random = Random(SEED)
    start = datetime.now(UTC) - EVERY * (ROUNDS + 1)
    count = 0
    for number, job in enumerate(jobs):
        work = work_out(job.newest.text)
        pool = [q for q in questions(work, SEED) if q.sort in ("length", "angle", "choice")]
        picked = random.sample(pool, k=min(EACH, len(pool)))
        answers = []
        for place, question in enumerate(picked):
            said = _said(question, random, 1 - number / (2 * ROUNDS))
            mark = marked(question, said)
            answers.append(
                AnswerView(
                    f"{SEED:08x}{number:08x}{place:08x}",
                    start + EVERY * number + timedelta(minutes=place),
                    work.solution.title,
                    question.rule,
                    mark.share,
                    tuple(slip.key for slip in mark.slips[:1]),
                    tuple(sorted({slip.key for slip in question.slips})),
                    rehearsed=True,
                )
            )
        with store.writing() as session:
            for answer in answers:
                put_answer(session, answer)
        count += len(answers)
    return count


def _said(question: Question, random: Random, still: float) -> str:
    """Return what the learner answers: by one of its habits, or right."""
    for slip in question.slips:
        if random.random() < HABITS.get(slip.key, 0.0) * still:
            answer = slip.answer
            break
    else:
        answer = question.right if isinstance(question.right, float | int | str) else ""
    if isinstance(answer, str):
        return answer
    return f"{rounded(float(answer), question.near if question.sort == 'length' else 0.0):.6f}"
