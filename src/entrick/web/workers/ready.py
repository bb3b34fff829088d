"""What every worker has ready: loaded once, where workers are forked from.

Much is made when it is first wanted: the parser, the kinds, how an answer is written. A worker is
forked with all of it made, so that its first answer takes no longer than its next."""

from __future__ import annotations

import json

from ...demo import sample_plans
from ..operation import Sent
from ..operations import answer

SAMPLE = "OY-041-bearing-bracket.entrick"
"""A plan with some of everything."""

_BODY = json.dumps({"text": sample_plans()[SAMPLE]}).encode()
for _address in ("/api/work", "/api/proof"):
    answer(Sent("POST", _address, body=_BODY), {})
