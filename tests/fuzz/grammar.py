"""Random plans by the grammar the kinds declare: mostly sensible, sometimes degenerate, sometimes nonsense."""

from __future__ import annotations

import re
from random import Random

from entrick.core.moves import kinds
from entrick.core.plan.forms import Form, Slot, Word
from entrick.core.plan.slots import NUMBERS
from entrick.demo import sample_plans

# Places that coincide, lie in line or are concentric on purpose: that is where constructions come to nothing.
PRELUDE = """\
given a = 20 "a size"
given b = 9/16 "another"
given w = 30° "a direction"
O = datum
A = point, 40 right of O
B = point, 40 right of O, 20 above
C = point, 20 right of O
D = point, 20 left of A, 20 above
E = point, 0 right of O
l1 = line, from O to A
l2 = line, through O, plumb
l3 = line, through B, level
c1 = circle, centre O, radius 20
c2 = circle, centre O, radius 10
c3 = circle, centre A, radius 20
k = arc, radius 30, touching c1, touching c3, above, beside
ring = spaced, 6 on c1, from below
box1 = box, 60 by 40, centred on O
pol = polygon, 6 sides, centred on O, radius 20
el = ellipse, centred on O, axes 60 and 30
holes = circle, centre ring, radius 3
sl = slot, from O to A, width 12
rim = line in, box1
edge = run, from O, right 20, up 10, to A
sp = spiral, about O, radius 5 to 30, 2 turns
wheel = gear, about O, 12 teeth, module 4, bore diameter 12
inv = involute, of c2, through 60°
""".splitlines()

POOLS = {
    "point": ["O", "A", "B", "C", "D", "E", "ring", "ring.1", "c1.centre", "k.start", "l1.middle"],
    "line": [
        "l1",
        "l2",
        "l3",
        "line O A",
        "line A B",
        "O.level",
        "O.plumb",
        "line O E",
        "box1.top",
        "edge.leg.1",
    ],
    "circle": ["c1", "c2", "c3", "k", "holes", "holes.1", "holes.2"],
    "run": ["rim", "box1", "pol", "el", "sl", "edge", "sp", "wheel", "inv"],
}
POOLS["curve"] = [*POOLS["line"], *POOLS["circle"]]
POOLS["shape"] = [*POOLS["point"], *POOLS["curve"], *POOLS["run"]]
POOLS["several"] = POOLS["shape"]

LENGTHS = [
    "0",
    "1",
    "2",
    "3",
    "5",
    "10",
    "12",
    "20",
    "24",
    "30",
    "40",
    "60",
    "-5",
    "-20",
    "1/2",
    "9/32",
    "0.000001",
    "0.0000000001",
    "33.333",
    "1000",
    "99999",
    "1000000",
    "a",
    "b",
    "a/2",
    "a - 20",
    "sqrt(2)*a",
    "(a + b)",
    "1/3",
    "½",
    "4 1/4",
    "2.5 in",
    "Ø20",
    "a*a",
    "w",
    "1/0",
    "5000 mm",
]
ANGLES = [
    "0°",
    "30°",
    "45°",
    "90°",
    "180°",
    "360°",
    "-90°",
    "0.0001°",
    "89.9999°",
    "w",
    "720°",
    "22° 30'",
    "30",
    "1000000°",
    "120°",
    "60°",
]
COUNTS = [
    "0",
    "1",
    "2",
    "3",
    "4",
    "5",
    "6",
    "8",
    "12",
    "24",
    "60",
    "360",
    "361",
    "-1",
    "2.5",
    "a",
    "1000000",
]
TEXTS = [
    '"M10"',
    '"M24x2"',
    '"1/2-13"',
    '"SHAFT"',
    '""',
    '"x\x07y"',
    '"&<>\'"',
    '"Ø½″"',
    '"M0"',
    '"ab\u0085c"',
    '"\ud7ff\ufffe"',
    '"' + "W" * 300 + '"',
]
RATIOS = ["1:1", "2:1", "1:2", "1000:1", "1:1000", "0:1", "3:7"]
WORDS = [
    "above",
    "left",
    "near",
    "first",
    "long",
    "cw",
    "assumed",
    "radius",
    "touching",
    "of",
    "O",
    "c1",
    ">",
    "(",
    '"',
    "=",
    "½on",
    "\t",
    "…",
    "by",
    "to",
    "at",
    "30°",
    "20",
    "Ø",
    "#",
    "1e9",
]
SHEETS = [
    "",
    "sheet A4 landscape, scale 1:1, border 10",
    "sheet A3 portrait, scale 1:2, border filing, dimensions unidirectional",
    "sheet A4, scale 1000:1",
    "sheet A0 landscape, scale 1:1000",
    "sheet 17 by 22, scale 1:1, border 1/2",
    "sheet A3, ground isometric 5",
    "sheet A4, ground squares 2, isometric projection",
    "sheet A3, scale 1:5, ground squares a",
    "sheet A3, border 200",
    "sheet 5000 by 5000, ground squares 2",
]
USUAL = 0.85
"""Share of the choices that are made as a drafter would."""


def _needed(rows: list[str]) -> list[str]:
    """Return what of the prelude some rows refer to, with what that refers to in turn."""
    said = " ".join(rows)
    kept: list[str] = []
    for row in reversed(PRELUDE):
        name = row.split(" =")[0].split()[-1]
        if name == "O" or re.search(rf"(?<![\w.]){name}(?!\w)", said):
            kept.append(row)
            said += " " + row
    return kept[::-1]


class Writer:
    """Writes random plans; the same seed writes the same ones."""

    def __init__(self, random: Random) -> None:
        self.random = random
        self.made: list[str] = []
        self.samples = sorted(sample_plans().values())

    def plan(self) -> str:
        """Return a plan: by the grammar, or a sample with some of its words changed."""
        text = (
            self._by_grammar()
            if self.random.random() < 0.8
            else self._spoilt(self.random.choice(self.samples))
        )
        return self._spoilt(text) if self.random.random() < 0.1 else text

    def _by_grammar(self) -> str:
        pick = self.random
        self.made = []
        rows = [
            pick.choice(['plan "Any"', "", 'plan "a\x01b"']),
            pick.choice(["units mm", "units mm", "units in", ""]),
            pick.choice(SHEETS),
        ]
        fresh = []
        for index in range(pick.randint(1, 6)):
            kind = pick.choice(list(kinds().values()))
            name = f"z{index}"
            fresh.append(self._statement(name, kind.name, kind.forms))
            self.made.append(name)
        rows += (
            _needed(fresh)
            if pick.random() < USUAL
            else pick.sample(PRELUDE, pick.randint(0, len(PRELUDE)))
        )
        rows += fresh
        return "\n".join(row for row in rows if row) + "\n"

    def _statement(self, name: str, kind: str, forms: tuple[Form, ...]) -> str:
        pick = self.random
        said = [form for form in forms if form.needed and pick.random() < 0.97]
        others = [form for form in forms if not form.needed]
        said += pick.sample(others, min(len(others), pick.choice([0, 1, 1, 2, 2, 2, 3, 4])))
        said += [form for form in said if form.most > 1 and pick.random() < 0.6]
        said += [
            form
            for form in said
            if form.most > 2 and pick.random() < 0.6
            for _ in range(pick.randint(1, 4))
        ]
        clauses = [self._clause(form) for form in said]
        if pick.random() > USUAL:
            pick.shuffle(clauses)
        note = pick.choice(["", "", "", "", ' "a note"', ", assumed"])
        return ", ".join([f"{name} = {kind}", *clauses]) + note

    def _clause(self, form: Form) -> str:
        words = []
        for part in form.parts:
            if isinstance(part, Word):
                if not part.optional or self.random.random() < 0.5:
                    words.append(part.text)
            else:
                words.append(self._value(part))
        return " ".join(words)

    def _value(self, slot: Slot) -> str:
        pick = self.random
        if slot.choices:
            return pick.choice(slot.choices)
        if slot.type == "walk":
            return self._walk()
        if slot.type == "several":
            return " ".join(self._reference("several") for _ in range(pick.randint(1, 5)))
        if slot.type == "lengths":
            return " ".join(pick.choice(LENGTHS) for _ in range(pick.randint(1, 4)))
        if slot.type in NUMBERS:
            usual = {"angle": ANGLES, "count": COUNTS}.get(slot.type, LENGTHS)
            return pick.choice(usual if pick.random() < 0.97 else [*LENGTHS, *ANGLES, *COUNTS])
        if slot.type == "text":
            return pick.choice(TEXTS)
        if slot.type == "ratio":
            return pick.choice(RATIOS)
        return self._reference(slot.type)

    def _reference(self, type: str) -> str:
        pick = self.random
        if self.made and pick.random() < 0.3:
            made = pick.choice(self.made)
            return made + pick.choice(
                ["", "", "", ".1", ".centre", ".start", ".end", ".middle", ".2.1"]
            )
        pool = POOLS.get(type, POOLS["shape"]) if pick.random() < 0.93 else POOLS["shape"]
        return pick.choice(pool)

    def _walk(self) -> str:
        pick = self.random
        stops = []
        for _ in range(pick.choice([1, 1, 2, 3, 4, 6])):
            way = pick.choice(
                [
                    "",
                    "",
                    "",
                    " cw",
                    " ccw",
                    " long",
                    " short",
                    " via C",
                    " at A",
                    " near B",
                    " above",
                    " left",
                ]
            )
            stops.append(self._reference(pick.choice(["curve", "run"])) + way)
        return pick.choice([" > ", " > ", ">"]).join(stops)

    def _spoilt(self, text: str) -> str:
        """Change, add or lose some words."""
        pick = self.random
        for _ in range(pick.randint(1, 3)):
            rows = text.split("\n")
            row = pick.randrange(len(rows))
            words = rows[row].split(" ")
            place = pick.randrange(len(words))
            how = pick.random()
            word = pick.choice([*WORDS, *LENGTHS, *ANGLES, *COUNTS, *POOLS["shape"]])
            words[place : place + (how < 0.7)] = [] if how < 0.2 else [word]
            rows[row] = (
                pick.choice([" ", " ", " ", ""]).join(words) if how > 0.98 else " ".join(words)
            )
            if how > 0.95:
                rows.insert(pick.randrange(len(rows)), rows[row])
            text = "\n".join(rows)
        return text
