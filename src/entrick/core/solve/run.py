"""The one pass over the lines of a plan. Pure: same plan in, same solution out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from functools import cache, cached_property, partial
from itertools import chain
from types import MappingProxyType
from typing import TypeVar, cast

from .. import fault
from ..allowance import MOST_PIECES, refuse
from ..geometry import Arc, Circle, Loop
from ..kind import Args, Candidate, Undecided
from ..kind.figure import Family, Figure, Item
from ..measure import Dimension, Quantity, Unit
from ..memo import MEMO, Memo, number_of
from ..moves import kinds, words_of_kinds
from ..plan.document import (
    LONGEST_LINE,
    UNREAD_GIVEN,
    Chain,
    Content,
    DrawingNumber,
    Given,
    Plan,
    SheetLine,
    Statement,
    Title,
    Units,
    Unread,
)
from ..plan.errors import Astray, ClauseError, PlanError, TooMuch, Unknown
from ..plan.evaluate import evaluate
from ..plan.reader import read_line
from ..plan.suggestions import Suits
from ..plan.terms import Num, names, write
from ..plan.writer import write_content
from .chains import added, chain_links
from .families import construct_all
from .fixes import example_near, unknown_kind, without_comma
from .meant import Desk, Outcome, told
from .remembered import (
    Key,
    Remembered,
    names_used,
    note,
    owners,
    recall,
    remember,
    the_same,
)
from .solution import Entry, GivenEntry, Solution, is_projected
from .values import matches_of, said_in, spoken

T = TypeVar("T")

MOST_MENDED = 10
"""Mistakes of a plan of which it is looked what was meant: each takes as long as many
statements."""


def solve(plan: Plan) -> Solution:
    """Solve a plan: every statement that can be constructed is, whatever is wrong with the others.

    Where it is the last plan with one line changed, only what depends on that line is gone through.

    Parameters
    ----------
    plan : Plan

    Returns
    -------
    Solution
    """
    solution = _with_one_changed(plan)
    if solution is None:
        run = _Solver(plan)
        for number, line in enumerate(plan.lines, 1):
            run.read(number, line.content)
        solution = run.finish()
    if not solution.errors:
        LAST.put((solve, len(plan.lines)), solution)
    return solution


LAST = cast(Memo[Solution], MEMO)
"""The plan of so many lines that was solved last, of those without a mistake."""


def _with_one_changed(plan: Plan) -> Solution | None:
    """Solve the last plan with one line changed; None where more has changed, or anything is
    wrong."""
    base = LAST.get((solve, len(plan.lines)))
    if base is None:
        return None
    pairs = enumerate(zip(base.plan.lines, plan.lines, strict=True), 1)
    changed = [
        (number, was.content, line.content)
        for number, (was, line) in pairs
        if was is not line and was.content is not line.content
    ]
    if len(changed) != 1:
        return None
    ((number, before, after),) = changed
    if not _says_as_much(before, after):
        return None
    found = solve_changed(base, number, after)
    return None if found.errors else replace(found, plan=plan)


def _says_as_much(before: Content, after: Content) -> bool:
    """Tell whether two lines give the same name, and use the same ones."""
    match before, after:
        # Of R and a size it depends on all names whether it may stand there.
        case Given(mark="" | "Ø"), Given(mark="" | "Ø"):
            alike = before.name == after.name and before.mark == after.mark
            return alike and names(before.value) == names(after.value)
        case Statement(), Statement():
            return before.name == after.name and names_used(before) == names_used(after)
    return False


def solve_changed(base: Solution, line: int, content: Content) -> Solution:
    """Solve a plan in which one given or statement says something else: only what depends on it is
    gone through.

    Parameters
    ----------
    base : Solution
        Of the plan as it was.
    line : int
        Where the change is.
    content : Content
        What stands there now, under the same name, using the same ones.

    Returns
    -------
    Solution
        That of the changed plan (property test against `solve`).
    """
    lines = base.plan.lines
    plan = Plan((*lines[: line - 1], replace(lines[line - 1], content=content), *lines[line:]))
    if base.errors:
        return solve(plan)
    run = _Solver(plan)
    run.head = replace(base, plan=plan)
    run.projected = is_projected(base.sheet)
    run.quantities.update(base.quantities)
    run.items.update(base.figure.items)
    run.failed.update(base.figure.failed)
    run.asked.update(base.asked)
    run.total = run.looked_at = sum(base.asked.values())
    for given in base.givens:
        if isinstance(given.given, Chain):
            run.link(given.given.name, len(given.given.links))
    changed: set[str] = set()
    for number, row in enumerate(plan.lines[line - 1 :], line):
        said = row.content
        if isinstance(said, Given | Chain | Statement) and (
            number == line or not changed.isdisjoint(owners(said))
        ):
            worth, item = run.quantities.pop(said.name, None), run.items.pop(said.name, None)
            run.sizes.pop(said.name, None)
            for link in [name for name in run.quantities if name.startswith(f"{said.name}.")]:
                del run.quantities[link]
            asked = run.asked.pop(number, 0)
            run.total -= asked
            run.looked_at -= asked
            run.read(number, said)
            after = run.quantities.get(said.name)
            alike = after == worth and (after is None or type(after.value) is type(worth.value))  # type: ignore[union-attr]
            if not alike or run.items.get(said.name) is not item or isinstance(said, Chain):
                changed.add(said.name)
    return run.finish_changed(base)


def _referred(name: str, item: Item) -> int:
    """Return the number of what a name refers to: one for all that are equal, so that what stands
    on the centre of a circle does not notice when its radius changes. Runs and families are told
    apart by the thing they belong to."""
    shape = item.part(name[len(item.name) + 1 :]) if len(name) > len(item.name) else item.shape
    if shape is None or isinstance(shape, Loop | Family):
        return item.serial
    # 7/2 and 3.5 are equal, and spelt differently.
    exact = type(shape.exact) if isinstance(shape, Circle | Arc) else None
    return number_of((shape, exact))


@cache
def by_corners() -> frozenset[str]:
    """Return the kinds to which a corner says what meets in it."""
    slots = ((kind.name, slot) for kind in kinds().values() for f in kind.forms for slot in f.slots)
    return frozenset(name for name, slot in slots if slot.type == "corner")


class _Solver:
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
        self.sizes: dict[str, int] = {}
        self.linked: dict[str, int] = {}

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
        mended = ClauseError(error.message, error.clause, (text, error.mend or text))
        error = self._told(number, text, mended)
        example = example_near(text)
        is_led_on = any(words in error.message for words in ("as in", "did you mean"))
        if example and not is_led_on:
            error = replace(error, message=f"{error.message}; as in  {example}")
        self.errors.append(error)
        given = UNREAD_GIVEN.fullmatch(text) if len(text) <= LONGEST_LINE else None
        if given:
            kept = Given(
                given["name"],
                Num(given["value"].strip()),
                note=(given["note"] or "").strip().strip('"'),
            )
            self.givens.append(GivenEntry(number, kept, None, error=error))
        self.failed.add(given["name"] if given else text.split("=")[0].strip())

    def _units(self, number: int, text: str) -> None:
        if text not in list(Unit):
            wrong = ClauseError(f"units are mm or in, not {text}")
            self.errors.append(self._told(number, f"units {text}", wrong))
        elif self.givens or self.entries:
            self.errors.append(
                PlanError(number, "the units line stands above the first given and statement")
            )
        else:
            self.head = replace(self.head, unit=Unit(text))

    def _given(self, number: int, given: Given) -> None:
        try:
            self._claim(number, given.name)
            clash = f"R{write(given.value)}".replace(" ", "")
            if given.mark == "R" and clash in self.named:
                raise ClauseError(
                    f"{clash} is also the name of a given; write ({clash}) for it",
                    None,
                    (clash, f"({clash})"),
                )
            quantity = evaluate(given.value, self.quantities, self.head.unit)
            self._use(number, names(given.value))
            if given.mark:
                if quantity.dimension is Dimension.ANGLE:
                    raise ClauseError(f"{given.mark} stands before a length, not an angle")
                quantity = replace(quantity, dimension=Dimension.LENGTH, mark=given.mark)
        except ClauseError as error:
            failure = self._told(number, write_content(given), error)
            self.errors.append(failure)
            self.failed.add(given.name)
            self.givens.append(GivenEntry(number, given, None, error=failure))
            return
        self._worth(given.name, quantity)
        self.givens.append(GivenEntry(number, given, quantity))

    def _chain(self, number: int, chain: Chain) -> None:
        try:
            self._claim(number, chain.name)
            links = chain_links(chain, self.quantities, self.head.unit)
        except ClauseError as error:
            failure = self._told(number, write_content(chain), error)
            self.errors.append(failure)
            self.failed.add(chain.name)
            self.givens.append(GivenEntry(number, chain, None, error=failure))
            return
        for item in (*chain.links, chain.overall):
            if item is not None:
                self._use(number, names(item))
        total = links[0]
        for link in links[1:]:
            total = added(total, link)
        self._worth(chain.name, replace(total, dimension=Dimension.LENGTH, mark=""))
        for index, link in enumerate(links, 1):
            self._worth(f"{chain.name}.{index}", link)
        self.link(chain.name, len(links))
        self.givens.append(GivenEntry(number, chain, total))

    def link(self, name: str, count: int) -> None:
        """Note what the links of a chain are worth."""
        sizes = tuple(self._size(f"{name}.{index}") for index in range(1, count + 1))
        self.linked[name] = number_of(sizes)

    def _claim(self, number: int, name: str) -> None:
        if "." in name:
            raise ClauseError(
                f"{name}: a name has no dots; dots refer to parts",
                None,
                (name, name.replace(".", "_")),
            )
        if name == "pi":
            raise ClauseError(
                f"{name} has a meaning of its own; choose another name", None, (name, f"{name}1")
            )
        if name in self.named:
            raise ClauseError(
                f"{name} is already the name of {self._row(self.named[name])}; choose another"
            )
        self.named[name] = number

    def _row(self, number: int) -> str:
        """Return what a line is called: as the order of work numbers it."""
        lines = self.head.plan.lines
        content = lines[number - 1].content
        if isinstance(content, Statement):
            before = sum(isinstance(line.content, Statement | Unread) for line in lines[:number])
            return f"{before}, {content.kind.capitalize()} {content.name}"
        return "a given" if isinstance(content, Given) else "a chain"

    def _use(self, number: int, used: frozenset[str]) -> None:
        for name in used & self.quantities.keys():
            self.uses.setdefault(name.split(".")[0], []).append(number)

    def _statement(self, number: int, statement: Statement) -> None:
        candidates: tuple[Candidate, ...] = ()
        key = self._key(number, statement)
        try:
            self._claim(number, statement.name)
            if self.looked_at > 2 * MOST_PIECES:
                raise TooMuch(
                    f"the plan asks for more than {MOST_PIECES} pieces; this is not worked out "
                    "any more"
                )
            found = recall(key)
            if found is None:
                found = self._construct(number, statement)
                remember(key, found)
            self._within(number, found.asked)
        except Exception as error:
            if isinstance(error, Undecided):
                candidates = error.candidates
            if isinstance(error, ClauseError):
                failure = self._told(number, write_content(statement), error)
            else:
                failure = PlanError(
                    number, fault.report(error, f"constructing line {number}, {statement.kind}")
                )
            self.errors.append(failure)
            self.failed.add(statement.name)
            self.entries.append(Entry(number, statement, None, failure, candidates))
            return
        self.entries.append(found.entry)
        if found.item is None:
            self.failed.discard(statement.name)
        else:
            self.items[statement.name] = found.item

    def _told(self, number: int, text: str, error: ClauseError) -> PlanError:
        """Give a mistake its line and, as long as there are few, what was meant."""
        if len(self.errors) >= MOST_MENDED:
            cause = error.cause if isinstance(error, Astray) else ""
            return PlanError(number, error.message, error.clause, cause=cause)
        desk = Desk(partial(self._tried, number), self._has, words_of_kinds(), self._datum())
        result = told(number, text, error, desk)
        if isinstance(error, Unknown) and not result.mend:
            result = self._moved(number, error, result)
        return result

    def _has(self, name: str) -> bool:
        """Tell whether something above has a name."""
        return name in self.items or name in self.quantities

    def _datum(self) -> str:
        """Return the point the view is measured from, by name."""
        stated = (entry.statement for entry in self.entries)
        return next((each.name for each in stated if each.kind == "datum"), "O")

    def _moved(self, number: int, error: Unknown, found: PlanError) -> PlanError:
        """Where what is not known yet stands lower down, say which line is to stand elsewhere."""
        at = self.defined.get(error.name, 0)
        if at <= number:
            return found
        content = self.head.plan.lines[at - 1].content
        assert isinstance(content, Given | Chain | Statement)
        known = self.items.keys() | self.quantities.keys()
        is_free = not any(name in self.defined and name not in known for name in owners(content))
        moved = (at, number) if is_free else (number, at)
        goes = "it goes above this" if is_free else "this goes below it"
        words = f"{error.name} stands lower down, and a line uses what stands above it: {goes}"
        return replace(found, message=words, meant=(), moved=moved)

    @cached_property
    def defined(self) -> Mapping[str, int]:
        """Where in the plan each name is given, the first place."""
        rows = reversed(list(enumerate(self.head.plan.lines, 1)))
        named = ((number, line.content) for number, line in rows)
        return {
            content.name: number
            for number, content in named
            if isinstance(content, Given | Chain | Statement)
        }

    def _tried(self, number: int, text: str) -> Outcome:
        """Tell what would come of a line in the place of another."""
        content = read_line(text).content
        if isinstance(content, Unread):
            mend = (text, content.error.mend) if content.error.mend else None
            return Outcome(ClauseError(content.error.message, content.error.clause, mend))
        if isinstance(content, Units) and content.text not in list(Unit):
            return Outcome(ClauseError(f"units are mm or in, not {content.text}"))
        if not isinstance(content, Given | Chain | Statement):
            return Outcome()
        text = write_content(content)
        if self.named.get(content.name, number) != number:
            return Outcome(ClauseError(f"{content.name} is a name already"), text=text)
        understood, made = False, ""
        try:
            match content:
                case Given():
                    evaluate(content.value, self.quantities, self.head.unit)
                case Chain():
                    chain_links(content, self.quantities, self.head.unit)
                case Statement():
                    said = self._said(content, self.figure.suits)
                    understood = True
                    found = construct_all(content.kind, said)[0]
                    made = str((content.kind, found.shape, sorted(found.parts), found.notes))
        except ClauseError as error:
            return Outcome(error, understood, text)
        except Exception as error:
            refused = ClauseError(fault.report(error, f"trying what line {number} may mean"))
            return Outcome(refused, understood, text)
        return Outcome(None, True, text, made)

    def _key(self, number: int, statement: Statement) -> Key:
        """Return all that what a statement comes to depends on; note which givens it uses."""
        key: list[object] = [number, statement.serial, self.head.unit, self.projected]
        for name, owner in names_used(statement):
            item = self.items.get(owner)
            if item is not None:
                whole = statement.kind in by_corners()
                seen = item.serial if whole else _referred(name, item)
                key += (seen, item.lined, item.centre_name)
            elif name in self.quantities:
                self.uses.setdefault(owner, []).append(number)
                key += (self._size(name), self.linked.get(name))
            else:
                key.append(owner in self.failed)
        return tuple(key)

    def _size(self, name: str) -> int:
        known = self.sizes.get(name)
        if known is None:
            # 7/2 and 3.5 are equal, and spelt differently.
            quantity = self.quantities[name]
            known = self.sizes[name] = number_of((type(quantity.value), quantity))
        return known

    def _worth(self, name: str, quantity: Quantity) -> None:
        self.quantities[name] = quantity
        self.sizes.pop(name, None)

    def _construct(self, number: int, statement: Statement) -> Remembered:
        suits = self.figure.suits if len(self.errors) < MOST_MENDED else None
        args = self._said(statement, suits)
        made, asked = construct_all(statement.kind, args)
        known = the_same(number, statement, made)
        if known is not None:
            return known
        item = None
        if not made.nothing:
            item = Item(
                statement.name, made.shape, number, made.parts, made.centre_name, made.lined
            )
        entry = Entry(number, statement, made, None, () if made.nothing else made.candidates)
        return note(Remembered(entry, item, asked))

    def _said(self, statement: Statement, suits: Suits | None) -> Args:
        """Return a statement with its values worked out.

        Raises
        ------
        ClauseError
            Where it cannot be understood.
        """
        if statement.kind not in kinds():
            raise unknown_kind(statement.kind)
        kind = kinds()[statement.kind]
        givens = frozenset(name for name, _ in names_used(statement) if name in self.quantities)
        matches = matches_of(statement, givens, suits)
        try:
            said = tuple(
                said_in(match, self.figure, self.quantities, self.head.unit) for match in matches
            )
        except ClauseError as error:
            clauses = spoken(statement)
            raise without_comma(error, clauses, kind.forms, givens, self.figure.suits) from error
        return Args(statement.name, self.head.unit, said, self.projected, kind)

    def _within(self, number: int, asked: int) -> None:
        """Keep account of the pieces a plan asks for."""
        self.looked_at += asked
        if self.total + asked > MOST_PIECES:
            self.refused = True
            raise refuse("this, with what stands above it,", self.total + asked, MOST_PIECES)
        self.asked[number] = asked
        self.total += asked

    def _tell_costliest(self) -> None:
        """Where something had to be refused, say so at the statement that takes most as well."""
        if not (self.refused and self.asked):
            return
        number = max(self.asked, key=lambda line: self.asked[line])
        message = (
            f"this takes {self.asked[number]} of the {MOST_PIECES} pieces a plan may have; "
            "with less, all is worked out"
        )
        index = next(i for i, entry in enumerate(self.entries) if entry.line == number)
        error = PlanError(number, message)
        self.errors.append(error)
        self.entries[index] = replace(self.entries[index], error=error)

    def finish(self) -> Solution:
        self._tell_costliest()
        givens = tuple(
            replace(g, used_by=tuple(dict.fromkeys(self.uses.get(g.given.name, ()))))
            for g in self.givens
        )
        return replace(
            self.head,
            givens=givens,
            entries=tuple(self.entries),
            figure=Figure(MappingProxyType(self.items), frozenset(self.failed)),
            errors=tuple(self.errors),
            quantities=MappingProxyType(self.quantities),
            asked=MappingProxyType(self.asked),
        )

    def finish_changed(self, base: Solution) -> Solution:
        """Put what was gone through in the place of what a plan came to before."""
        givens = {entry.line: entry for entry in self.givens}
        entries = {entry.line: entry for entry in self.entries}
        return replace(
            self.head,
            givens=tuple(
                replace(givens[given.line], used_by=given.used_by)
                if given.line in givens
                else given
                for given in base.givens
            ),
            entries=tuple(entries.get(entry.line, entry) for entry in base.entries),
            figure=Figure(
                MappingProxyType(_as_before(base.figure.items, self.items)), frozenset(self.failed)
            ),
            errors=tuple(self.errors),
            quantities=MappingProxyType(_as_before(base.quantities, self.quantities)),
            asked=MappingProxyType(self.asked),
        )


def _as_before(base: Mapping[str, T], now: dict[str, T]) -> dict[str, T]:
    """Return things by name in the order they had before."""
    return {name: now[name] for name in chain(base, now) if name in now}
