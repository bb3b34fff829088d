"""Runs the statements of a plan in order over a figure. Pure: same plan in, same solution out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from difflib import get_close_matches
from functools import lru_cache
from types import MappingProxyType

from . import fault
from .allowance import KEPT_PIECES, MOST_PIECES, TooMuch, kept_by_weight, pieces, refuse
from .figure import Family, Figure, Item, Ref
from .geometry import Arc, Circle, Line, Loop, Point, Shape
from .geometry.place import SIDES
from .geometry.walk import Stop
from .kind import Args, Candidate, Length, Made, Said, Undecided, Value
from .measure import Dimension, Quantity, Unit, spell
from .moves import kinds
from .plan.document import (
    LONGEST_LINE,
    UNREAD_GIVEN,
    Chain,
    Clause,
    DrawingNumber,
    Given,
    Plan,
    SheetLine,
    Statement,
    Title,
    Units,
    Unread,
)
from .plan.errors import ClauseError, PlanError
from .plan.expression import Arrow, Name, Num, Text, evaluate, names, write
from .plan.expression import Item as ClauseItem
from .plan.forms import Match, Slot, match_clause, match_clauses
from .plan.writer import write_content
from .tolerance import same

MOST_COPIES = 360
"""Members a family may have."""


@dataclass(frozen=True, slots=True)
class GivenEntry:
    """A given with its value and where it is used."""

    line: int
    given: Given | Chain
    quantity: Quantity | None
    used_by: tuple[int, ...] = ()
    error: PlanError | None = None


@dataclass(frozen=True, slots=True)
class Entry:
    """A statement with what it made, or why it could not."""

    line: int
    statement: Statement
    made: Made | None = None
    error: PlanError | None = None
    candidates: tuple[Candidate, ...] = ()


@dataclass(frozen=True)
class Solution:
    """A solved plan."""

    plan: Plan
    unit: Unit = Unit.MM
    title: str = ""
    drawing: str = ""
    sheet: SheetLine | None = None
    sheet_line: int = 0
    givens: tuple[GivenEntry, ...] = ()
    entries: tuple[Entry, ...] = ()
    figure: Figure = field(default_factory=Figure)
    errors: tuple[PlanError, ...] = ()
    quantities: Mapping[str, Quantity] = field(default_factory=dict)


def solve(plan: Plan) -> Solution:
    """Solve a plan: every statement that can be constructed is, whatever is wrong with the others.

    Parameters
    ----------
    plan : Plan

    Returns
    -------
    Solution
    """
    run = _Run(plan)
    for number, line in enumerate(plan.lines, 1):
        run.read(number, line.content)
    return run.finish()


class _Run:
    """The one pass over the lines."""

    def __init__(self, plan: Plan) -> None:
        self.head = Solution(plan)
        self.quantities: dict[str, Quantity] = {}
        self.items: dict[str, Item] = {}
        self.failed: set[str] = set()
        self.figure = Figure(self.items, self.failed)
        self.givens: list[GivenEntry] = []
        self.entries: list[Entry] = []
        self.errors: list[PlanError] = []
        self.projected = False
        self.named: dict[str, int] = {}
        self.uses: dict[str, list[int]] = {}
        self.asked: dict[int, int] = {}
        self.total = self.looked_at = 0
        self.refused = False

    def read(self, number: int, content: object) -> None:
        match content:
            case Title(text):
                self.head = replace(self.head, title=text)
            case DrawingNumber(text):
                self.head = replace(self.head, drawing=text)
            case Units(text):
                self._units(number, text)
            case SheetLine():
                self.head = replace(self.head, sheet=content, sheet_line=number)
                self.projected = is_projected(content)
            case Given():
                self._given(number, content)
            case Chain():
                self._chain(number, content)
            case Statement():
                self._statement(number, content)
            case Unread(text, error):
                self._unread(number, text, error)

    def _unread(self, number: int, text: str, error: PlanError) -> None:
        """Keep a line that cannot be read where it stands, and know its name if it has one."""
        self.errors.append(error)
        given = UNREAD_GIVEN.fullmatch(text) if len(text) <= LONGEST_LINE else None
        if given:
            kept = Given(given["name"], Num(given["value"].strip()), note=(given["note"] or "").strip().strip('"'))
            self.givens.append(GivenEntry(number, kept, None, error=error))
        self.failed.add(given["name"] if given else text.split("=")[0].strip())

    def _units(self, number: int, text: str) -> None:
        if text not in list(Unit):
            self.errors.append(PlanError(number, f"units are mm or in, not {text}", None, "units mm"))
        elif self.givens or self.entries:
            self.errors.append(PlanError(number, "the units line stands above the first given and statement"))
        else:
            self.head = replace(self.head, unit=Unit(text))

    def _given(self, number: int, given: Given) -> None:
        try:
            self._claim(number, given.name)
            clash = f"R{write(given.value)}".replace(" ", "")
            if given.mark == "R" and clash in self.named:
                raise ClauseError(
                    f"{clash} is also the name of a given; write ({clash}) for it", None, (clash, f"({clash})")
                )
            quantity = evaluate(given.value, self.quantities, self.head.unit)
            self._use(number, names(given.value))
            if given.mark:
                if quantity.dimension is Dimension.ANGLE:
                    raise ClauseError(f"{given.mark} stands before a length, not an angle")
                quantity = replace(quantity, dimension=Dimension.LENGTH, mark=given.mark)
        except ClauseError as error:
            failure = _placed(error, number, write_content(given))
            self.errors.append(failure)
            self.failed.add(given.name)
            self.givens.append(GivenEntry(number, given, None, error=failure))
            return
        self.quantities[given.name] = quantity
        self.givens.append(GivenEntry(number, given, quantity))

    def _chain(self, number: int, chain: Chain) -> None:
        try:
            self._claim(number, chain.name)
            links = chain_links(chain, self.quantities, self.head.unit)
        except ClauseError as error:
            failure = _placed(error, number, write_content(chain))
            self.errors.append(failure)
            self.failed.add(chain.name)
            self.givens.append(GivenEntry(number, chain, None, error=failure))
            return
        for item in (*chain.links, chain.overall):
            if item is not None:
                self._use(number, names(item))
        total = links[0]
        for link in links[1:]:
            total = _sum(total, link)
        self.quantities[chain.name] = replace(total, dimension=Dimension.LENGTH, mark="")
        for index, link in enumerate(links, 1):
            self.quantities[f"{chain.name}.{index}"] = link
        self.givens.append(GivenEntry(number, chain, total))

    def _claim(self, number: int, name: str) -> None:
        if "." in name:
            raise ClauseError(f"{name}: a name has no dots; dots refer to parts", None, (name, name.replace(".", "_")))
        if name == "pi":
            raise ClauseError(f"{name} has a meaning of its own; choose another name", None, (name, f"{name}1"))
        if name in self.named:
            raise ClauseError(f"{name} is already the name of line {self.named[name]}; choose another")
        self.named[name] = number

    def _use(self, number: int, used: frozenset[str]) -> None:
        for name in used & self.quantities.keys():
            self.uses.setdefault(name.split(".")[0], []).append(number)

    def _statement(self, number: int, statement: Statement) -> None:
        candidates: tuple[Candidate, ...] = ()
        self._use(number, _names_in(statement.clauses))
        try:
            self._claim(number, statement.name)
            if statement.kind not in kinds():
                raise _unknown_kind(statement.kind)
            if self.looked_at > 2 * MOST_PIECES:
                raise TooMuch(f"the plan asks for more than {MOST_PIECES} pieces; this is not worked out any more")
            matches = _matches(statement.kind, spoken(statement))
            said = tuple(_said(match, self.figure, self.quantities, self.head.unit) for match in matches)
            args = Args(statement.name, self.head.unit, said, self.projected, kinds()[statement.kind])
            made = self._within(number, *_construct_all(statement.kind, args))
        except Exception as error:
            if isinstance(error, Undecided):
                candidates = error.candidates
            if isinstance(error, ClauseError):
                failure = _placed(error, number, write_content(statement))
            else:
                failure = PlanError(number, fault.told(error, f"constructing line {number}, {statement.kind}"))
            self.errors.append(failure)
            self.failed.add(statement.name)
            self.entries.append(Entry(number, statement, None, failure, candidates))
            return
        if made.nothing:
            self.failed.discard(statement.name)
            self.entries.append(Entry(number, statement, made, None, ()))
            return
        self.items[statement.name] = Item(statement.name, made.shape, number, made.parts, made.centre_name)
        self.entries.append(Entry(number, statement, made, None, made.candidates))

    def _within(self, number: int, made: Made, asked: int) -> Made:
        """Keep account of the pieces a plan asks for."""
        self.looked_at += asked
        if self.total + asked > MOST_PIECES:
            self.refused = True
            raise refuse("this, with what stands above it,", self.total + asked, MOST_PIECES)
        self.asked[number] = asked
        self.total += asked
        return made

    def _tell_costliest(self) -> None:
        """Where something had to be refused, say so at the statement that takes most as well."""
        if not (self.refused and self.asked):
            return
        number = max(self.asked, key=lambda line: self.asked[line])
        told = (
            f"this takes {self.asked[number]} of the {MOST_PIECES} pieces a plan may have; with less, all is worked out"
        )
        index = next(i for i, entry in enumerate(self.entries) if entry.line == number)
        error = PlanError(number, told)
        self.errors.append(error)
        self.entries[index] = replace(self.entries[index], error=error)

    def finish(self) -> Solution:
        self._tell_costliest()
        givens = tuple(replace(g, used_by=tuple(dict.fromkeys(self.uses.get(g.given.name, ())))) for g in self.givens)
        return replace(
            self.head,
            givens=givens,
            entries=tuple(self.entries),
            figure=Figure(MappingProxyType(self.items), frozenset(self.failed)),
            errors=tuple(self.errors),
            quantities=MappingProxyType(self.quantities),
        )


def is_projected(sheet: SheetLine | None) -> bool:
    """Tell whether the sheet line chooses the projection school for isometric work."""
    return sheet is not None and any(str(clause) == "isometric projection" for clause in sheet.clauses)


def chain_links(chain: Chain, givens: Mapping[str, Quantity], unit: Unit) -> tuple[Quantity, ...]:
    """Work out every link of a chain; a missing one is the overall size less the others.

    Raises
    ------
    ClauseError
        When the links do not come to the overall size, or what is missing cannot be told.
    """
    missing = [index for index, link in enumerate(chain.links) if link is None]
    known = [evaluate(link, givens, unit) for link in chain.links if link is not None]
    for link, quantity in zip([link for link in chain.links if link is not None], known, strict=True):
        if quantity.dimension not in (Dimension.LENGTH, Dimension.PLAIN) or quantity.value <= 0:
            raise ClauseError(f"{write(link)} is no link of a chain: links are lengths above nought")
    total = sum((quantity.value for quantity in known), start=known[0].value * 0) if known else 0
    overall = evaluate(chain.overall, givens, unit).value if chain.overall is not None else None
    if not missing:
        if overall is not None and abs(float(overall - total)) > same(float(overall)):
            told = f"the links come to {spell(total, unit)}, the overall size is {spell(overall, unit)}: "
            if overall > total:
                raise ClauseError(f"{told}{spell(overall - total, unit)} is missing", None, _add_link(chain))
            raise ClauseError(f"{told}{spell(total - overall, unit)} too much")
        return tuple(known)
    if len(missing) > 1:
        raise ClauseError("one link can be found from the overall size, not several")
    if overall is None:
        raise ClauseError("a missing link is the overall size less the others: say  overall  and the size")
    if overall <= total:
        raise ClauseError(
            f"the other links come to {spell(total, unit)} already, and the overall size is {spell(overall, unit)}"
        )
    known.insert(missing[0], Quantity(overall - total, Dimension.LENGTH))
    return tuple(known)


def _add_link(chain: Chain) -> tuple[str, str]:
    last = write(chain.links[-1]) if chain.links[-1] is not None else "?"
    return f"{last}, overall", f"{last} ?, overall"


def _sum(first: Quantity, second: Quantity) -> Quantity:
    return replace(first, value=first.value + second.value)


def spoken(statement: Statement) -> tuple[Clause, ...]:
    """Return the clauses of a statement; text in quotes at its end is a note, unless its last clause wants it."""
    kind = kinds().get(statement.kind)
    if not (statement.note and statement.clauses and kind):
        return statement.clauses
    whole = Clause((*statement.clauses[-1].items, Text(statement.note)))
    wanted = match_clause(whole, kind.forms) and not match_clause(statement.clauses[-1], kind.forms)
    return (*statement.clauses[:-1], whole) if wanted else statement.clauses


# Changing one given leaves most statements as they were: what was matched and constructed before is kept.
@lru_cache(maxsize=4096)
def _matches(kind: str, clauses: tuple[Clause, ...]) -> tuple[Match, ...]:
    return match_clauses(clauses, kinds()[kind].forms, kind)


@lru_cache(maxsize=4096)
def _names_in(clauses: tuple[Clause, ...]) -> frozenset[str]:
    return frozenset(name for clause in clauses for item in clause.items for name in names(item))


def _construct(kind: str, args: Args) -> tuple[Made, int]:
    return _construct_once(kind, args, tuple(_exactness(value) for said in args.said for _, value in said.values))


def _weigh(found: tuple[Made, int]) -> int:
    return 20 + found[1]


@kept_by_weight(KEPT_PIECES, _weigh)
def _construct_once(kind: str, args: Args, _: tuple[type | None, ...]) -> tuple[Made, int]:
    made = kinds()[kind].construct(args)
    asked = _asked(made)
    if asked > MOST_PIECES:
        raise refuse("this", asked, MOST_PIECES)
    return made, asked


def _asked(made: Made) -> int:
    """Count the pieces a statement asks for: what it makes, its parts, what is drawn for it."""
    drawn = sum(pieces(stroke.shape for stroke in step.strokes) for step in made.steps)
    return pieces(made.shapes) + pieces(made.parts.values()) + drawn + len(made.notes)


def _exactness(value: Value) -> type | None:
    """Tell 7/2 from 3.5, which Python holds equal: one is written as a fraction, the other was worked out."""
    if isinstance(value, Length):
        return type(value.value)
    if isinstance(value, Ref) and isinstance(value.shape, Circle | Arc):
        return type(value.shape.exact)
    return None


def _construct_all(kind: str, args: Args) -> tuple[Made, int]:
    """Construct a statement and count what it asks for; given a family, it makes a family, member by member."""
    refs = [value for said in args.said for _, value in said.values if isinstance(value, Ref)]
    counts = {len(ref.shape.members) for ref in refs if isinstance(ref.shape, Family)}
    if not counts:
        return _construct(kind, args)
    if len(counts) > 1:
        raise ClauseError(f"families of {' and '.join(map(str, sorted(counts)))} members cannot be paired")
    made: list[Made] = []
    asked = 0
    for index in range(counts.pop()):
        one, more = _construct(kind, _member(args, index))
        made.append(one)
        asked += more
        if asked > MOST_PIECES:
            raise refuse("this, for every member,", asked, MOST_PIECES)
    if any(isinstance(one.shape, Family) for one in made):
        raise ClauseError("a family of families is not kept: name one member, such as .1")
    parts: dict[str, Shape | Loop] = {}
    for index, one in enumerate(made, 1):
        if not isinstance(one.shape, Family):
            parts[str(index)] = one.shape
        parts |= {f"{index}.{key}": shape for key, shape in one.parts.items()}
    members = tuple(shape for one in made for shape in one.shapes)
    told = made[0].sentence
    for name in (args.name, *(ref.text for ref in refs)):
        told = told.replace(f"{name}.1", name)
    steps = tuple(step for one in made for step in one.steps)
    notes = tuple(note for one in made for note in one.notes)
    sentence = f"{len(made)} times: {told}"
    family = Made(Family(members), sentence, made[0].working, steps, parts, lined=made[0].lined, notes=notes,
                  nothing=made[0].nothing, cut=made[0].cut)  # fmt: skip
    return family, asked


def _member(args: Args, index: int) -> Args:
    """Return the arguments of one member of a family."""

    def one(slot: str, value: Value) -> Value:
        if not (isinstance(value, Ref) and isinstance(value.shape, Family)):
            return value
        shape, text = value.shape.members[index], f"{value.text}.{index + 1}"
        if slot == "walk":
            assert not isinstance(shape, Point)
            return (Stop(shape.pieces[0].curve, text, run=shape) if isinstance(shape, Loop) else Stop(shape, text),)
        return Ref(text, shape, f"{text}.centre")

    said = tuple(replace(s, values=tuple((slot, one(slot, value)) for slot, value in s.values)) for s in args.said)
    return replace(args, name=f"{args.name}.{index + 1}", said=said)


def _placed(error: ClauseError, number: int, text: str) -> PlanError:
    """Give an error its line, and its mend as a whole line where the mend is a word for a word."""
    mend = None
    if error.instead:
        wrong, right = error.instead
        head, clauses = _split(text)
        if ", " in wrong:
            clauses = [text.partition("=")[2].replace(wrong, right, 1)]
        elif error.clause is not None and error.clause + 1 < len(clauses):
            clauses[error.clause + 1] = _swap(clauses[error.clause + 1], wrong, right)
        else:
            clauses = [_swap(clause, wrong, right) for clause in clauses]
        mend = head + ", ".join(clauses)
    return PlanError(number, error.message, error.clause, mend if mend != text else None)


def _split(text: str) -> tuple[str, list[str]]:
    head, equals, rest = text.partition("=")
    return (head + equals, rest.split(", ")) if equals else ("", [text])


def _swap(text: str, wrong: str, right: str) -> str:
    words = text.split(" ")
    if wrong in words:
        words[words.index(wrong)] = right
        return " ".join(words)
    return text.replace(wrong, right, 1)


def _unknown_kind(name: str) -> ClauseError:
    run_on = next((kind for kind in kinds() if name.startswith(f"{kind} ")), None)
    if run_on:
        return ClauseError(
            f"a comma parts {run_on} from its clauses", None, (name, name.replace(run_on, f"{run_on},", 1))
        )
    close = get_close_matches(name, list(kinds()), 1, 0.5)
    hint = f"; did you mean {close[0]}?" if close else f"; there are {', '.join(kinds())}"
    return ClauseError(
        f"there is no kind of construction called {name}{hint}", None, (name, close[0]) if close else None
    )


def _said(match: Match, figure: Figure, quantities: Mapping[str, Quantity], unit: Unit) -> Said:
    values: list[tuple[str, Value]] = []
    for slot in match.form.slots:
        if slot.name not in match.slots:
            continue
        items = match.slots[slot.name]
        try:
            values.append((slot.name, _value(slot, items, figure, quantities, unit)))
        except ClauseError as error:
            broken = [n for item in items for n in names(item) if n in figure.failed and n not in figure.items]
            message = f"{broken[0]} above has a mistake of its own; mend that first" if broken else error.message
            raise ClauseError(message, match.clause, None if broken else error.instead) from error
    return Said(match.form.key, match.clause, tuple(values))


def _value(
    slot: Slot, items: Sequence[ClauseItem], figure: Figure, quantities: Mapping[str, Quantity], unit: Unit
) -> Value:
    first = items[0]
    match slot.type:
        case "walk":
            if len(items) == 1:
                alone = figure.refer(write(first), "walkable")
                if isinstance(alone.shape, Family):
                    return alone
            return tuple(_stops(items, figure))
        case "line" if len(items) == 3:
            return _line_between(items, figure)
        case "point" | "line" | "circle" | "curve" | "shape" | "run":
            return figure.refer(write(first), slot.type)
        case "several":
            return tuple(figure.refer(write(item), "shape") for item in items)
        case "lengths":
            found: list[Length] = []
            for item in items:
                linked = [key for key in quantities if key.startswith(f"{write(item)}.")]
                for key in linked or [write(item)]:
                    quantity = quantities[key] if linked else evaluate(item, quantities, unit)  # type: ignore[arg-type]
                    found.append(_number("length", key, quantity))
            return tuple(found)
        case "text":
            return first.text if isinstance(first, Text) else ""
        case "length" | "radius" | "diameter" | "angle" | "count":
            quantity = evaluate(first, quantities, unit)  # type: ignore[arg-type]
            return _number(slot.type, write(first), quantity)
    return write(first)


def _number(wanted: str, text: str, quantity: Quantity) -> Length:
    dimension = quantity.dimension
    if dimension is Dimension.AREA or (
        (dimension is Dimension.ANGLE) != (wanted == "angle") and dimension is not Dimension.PLAIN
    ):
        raise ClauseError(f"{text} is {'an' if dimension[0] == 'a' else 'a'} {dimension}; the clause wants a {wanted}")
    if wanted == "count" and not (quantity.value == int(quantity.value) and 1 <= quantity.value <= MOST_COPIES):
        raise ClauseError(f"{text} is not a whole number from 1 to {MOST_COPIES}")
    if wanted == "radius" and quantity.mark == "Ø":
        raise ClauseError(
            f"{text} is given as a diameter: say  diameter {text}  or halve it", None, ("radius", "diameter")
        )
    if wanted == "diameter" and quantity.mark == "R":
        raise ClauseError(
            f"{text} is given as a radius: say  radius {text}  or double it", None, ("diameter", "radius")
        )
    if wanted in ("radius", "diameter") and quantity.value <= 0:
        raise ClauseError(f"a {wanted} must be more than nought; {text} is {float(quantity.value):g}")
    return Length(quantity.value, text)


def _line_between(items: Sequence[ClauseItem], figure: Figure) -> Ref:
    first, second = (figure.refer(write(item), "point") for item in items[1:])
    a, b = first.shape, second.shape
    for ref in (first, second):
        if isinstance(ref.shape, Family):
            told = f"{ref.text} is a family of several; a line goes through one of them, such as {ref.text}.1"
            raise ClauseError(told, None, (ref.text, f"{ref.text}.1"))
    assert isinstance(a, Point)
    assert isinstance(b, Point)
    if abs(b - a) <= same(max(abs(a), abs(b))):
        raise ClauseError(f"{first.text} and {second.text} are the same place: they give no line")
    return Ref(" ".join(write(item) for item in items), Line.between(a, b))


_WAYS = frozenset({"cw", "ccw", "long", "short"})


def _stops(items: Sequence[ClauseItem], figure: Figure) -> list[Stop]:
    """Read the pieces of a walk with the words that go with each."""
    groups: list[list[ClauseItem]] = [[]]
    for item in items:
        if isinstance(item, Arrow):
            groups.append([])
        else:
            groups[-1].append(item)
    stops = []
    for group in groups:
        if not group or not all(isinstance(item, Name) for item in group):
            told = " ".join(write(item) for item in group)
            raise ClauseError(f"a walk is pieces by name with > between them{f'; {told} is none' if told else ''}")
        stops.append(_stop([write(item) for item in group], figure))
    return stops


def _stop(words: list[str], figure: Figure) -> Stop:
    curve = figure.refer(words[0], "walkable").shape
    if isinstance(curve, Family):
        raise ClauseError(f"{words[0]} is a family of several; name one of them, such as {words[0]}.1")
    assert not isinstance(curve, Point)
    stop = Stop(curve.pieces[0].curve, words[0], run=curve) if isinstance(curve, Loop) else Stop(curve, words[0])
    rest = iter(words[1:])
    for word in rest:
        if word in _WAYS:
            stop = replace(stop, way=word)
        elif word in SIDES:
            stop = replace(stop, side=(*stop.side, word))
        elif word in ("via", "at", "near"):
            target = next(rest, None)
            if target is None:
                raise ClauseError(f"{word} is followed by a point")
            point = figure.refer(target, "point").shape
            if not isinstance(point, Point):
                raise ClauseError(f"{target} is a family of several; name one of them, such as {target}.1")
            stop = replace(stop, via=point) if word == "via" else replace(stop, at=point)
        else:
            raise ClauseError(
                f"{word} after {words[0]} is not understood; a piece may be followed by cw, ccw, long, short, "
                "via or at a point, or a word of place"
            )
    return stop
