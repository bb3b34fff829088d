"""What the desk answers about sample plans, a digest for each: ``answers.py DRAWING …``. Run in processes of their own,
whose sets come in another order."""

import hashlib
import json
import sys

from entrick.demo import sample_plans
from entrick.web.operation import Sent
from entrick.web.operations import answer

ASKED = ("/api/work", "/api/proof", "/api/suggest", "/api/around", "/api/export/svg")


def digests(wanted: list[str]) -> dict[str, str]:
    """Return the digest of every answer."""
    found = {}
    for name, text in sample_plans().items():
        if name[:6] in wanted:
            body = json.dumps({"text": text}).encode()
            for address in ASKED:
                told = answer(Sent("POST", address, body=body), {})
                found[f"{name} {address}"] = (
                    f"{told.status} {hashlib.sha256(told.content).hexdigest()}"
                )
    return found


if __name__ == "__main__":
    json.dump(digests(sys.argv[1:]), sys.stdout)
