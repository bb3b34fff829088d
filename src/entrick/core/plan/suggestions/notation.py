"""How drawings and other offices write a whole clause or line, and what that is here: a table of
patterns, each with what may be meant. Nothing here is certain: what is offered is what solves.

In a pattern ``<n>`` is a number or the name of a given, ``<t>`` the name of a thing and ``<a>`` an
angle; ``{1}`` in what is meant is the first of them. What stands
behind a ``|`` goes into the note; ``{O}`` is the datum of the plan."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

_NUMBER = r"(?:\d+(?:\s+|-)\d+/\d+|\d+/\d+|\d*\.?\d+)(?:\s?(?:mm|in)\b|\")?"
_PLACES = {
    "<n>": rf"({_NUMBER}|[^\W\d][\w.]*)",
    "<d>": rf"({_NUMBER})",
    "<t>": r"([^\W\d][\w.]*)",
    "<a>": r"(-?\d+(?:\.\d+)?)\s*(?:°|deg\w*\.?)?",
    "<c>": r"(\d+)\s*(?:×|x|X|\*|-|off|no|No)?\.?",
    "<x>": r"\s*(?:×|x|X|\*|by)\s*",
    "<o>": r"\s*(?:Ø|⌀|ø|dia(?:m(?:eter)?)?\.?)\s*",
    "<r>": r"\s*(?:R|r|rad(?:ius)?\.?)\s*",
    "<about>": r"\s*(?:at|about|on|@|centre|center|from|round|around)\s+",
}


def _pattern(text: str) -> re.Pattern[str]:
    for place, written in _PLACES.items():
        text = text.replace(place, written)
    return re.compile(text)


@dataclass(frozen=True)
class Clauses:
    """How a clause of some kinds is written elsewhere; of any kind where none is named."""

    written: str
    meant: tuple[str, ...]
    kinds: frozenset[str] = frozenset()
    pattern: re.Pattern[str] = field(init=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "pattern", _pattern(self.written))


def _of(kinds: str, written: str, *meant: str) -> Clauses:
    return Clauses(written, meant, frozenset(kinds.split(", ")) if kinds else frozenset())


_CENTRED = ("centre {2}", "centred on {2}", "about {2}", "from {2}", "at {2}")

CLAUSES = (
    _of("", r"<c>\s*<o><n>", "{1} times, diameter {2}", 'diameter {2} | {1}×'),
    _of("", r"<c>\s*<r><d>", "{1} times, radius {2}", 'radius {2} | {1}×'),
    _of("", r"<o><n><about><t>", *(f"{each}, diameter {{1}}" for each in _CENTRED)),
    _of("", r"<r><n><about><t>", *(f"{each}, radius {{1}}" for each in _CENTRED)),
    _of("", r"(?:centre\s+|center\s+|at\s+)?<t>\s+<o><d>", "centre {1}, diameter {2}"),
    _of("", r"(?:centre\s+|center\s+|at\s+)?<t>\s+<r><d>", "centre {1}, radius {2}"),
    _of("", r"<d>\s*(?:Ø|⌀|ø|DIA\.?|dia\.?|diam\.?)", "diameter {1}"),
    _of("", r"<d>\s*(?:R|RAD\.?|rad\.?)", "radius {1}"),
    _of("", r"(?:DIA\.?|Dia\.?|OD|ID|O\.D\.|I\.D\.)\s*<d>", "diameter {1}"),
    _of("", r"(?:RAD\.?|Rad\.?)\s*<d>", "radius {1}"),
    _of("", r"(.*?)\s*<d>\s*(?:deg\w*\.?|°|d)\s*(\d+)\s*(?:min\w*\.?|'|′|m)?", "{1} {2}° {3}'"),
    _of("", r"(?:@|angle|angle of|inclined|inclined at|sloping)\s*<a>", "at {1}°"),
    _of("", r"(TYP|typ|Typ|REF|ref|THRU|Thru|thru|THRO|thro)\.?'?", '| {1}'),
    _of("", r"(.+?)\s+(TYP|typ|Typ|REF|ref|THRU|thru|THRO|thro)\.?'?", '{1} | {2}'),
    _of("circle", r"(through|drill|drilled|reamed|all)", "| {1}"),
    _of("circle, arc, fillet", r"(?:with|of|having)\s+(radius|diameter)\s+<n>", "{1} {2}"),
    _of("circle", r"through <t>,? (?:and )?<t>,? (?:and )?<t>", "through {1}, through {2}, through {3}"),
    _of("circle, arc", r"tangent(?:ial)?\s+(?:to\s+)?<t>,?\s+(?:and\s+)?<t>,?\s+(?:and\s+)?<t>",
        "touching {1}, touching {2}, touching {3}"),
    _of("line, arc", r"(?:tangent(?:ial)?|touching|touches)\s+(?:to\s+)?<t>\s*(?:and|,|&)\s*<t>",
        "touching {1}, touching {2}"),
    _of("arc", r"(?:outside|external to|externally tangent to|clear of)\s+<t>", "beside {1}"),
    _of("arc", r"(?:enclosing|enclosing circle|internally tangent to|containing)\s+<t>", "around {1}"),
    _of("slot", r"<d><x><d>", "length {1}, width {2}"),
    _of("slot", r"<n>\s*(?:over ?all|o/?a|OA|long|in length)", "length {1}"),
    _of("slot", r"(?:over ?all|overall length|length over all)\s+<n>", "length {1}"),
    _of("slot", r"<n>\s*(?:centres|centers|c/?c|between centers)", "{1} between centres"),
    _of("slot", r"(?:centres|centers|c/?c)\s+<n>", "{1} between centres"),
    _of("slot", r"<d>\s*wide", "width {1}"),
    _of("keyway", r"<d><x><d>", "width {1}, depth {2}"),
    _of("keyway", r"<d>\s*(?:wide|w)", "width {1}"),
    _of("keyway", r"<d>\s*(?:deep|d)", "depth {1}"),
    _of("keyway", r"<d>\s*wide\s*(?:x|×|by|,|and)?\s*<d>\s*deep", "width {1}, depth {2}"),
    _of("tapped hole", r"(?:thread|tapped|tap|size|tapping)?\s*\"?([MG]\s?\d[\d./]*(?:\s*[x×]\s*[\d.]+)?|"
        r"\d+(?:/\d+)?(?: \d+/\d+)?\s*-\s*\d+\s*UN\w*|\d+/\d+\s+BS\w*)\"?", 'thread "{1}"', 'thread "{1}", special'),
    _of("tapped hole", r"\"?([MG]\d[\d./]*(?:\s*[x×]\s*[\d.]+)?)\"?<about><t>", 'thread "{1}", at {2}'),
    _of("tapped hole", r"(?:centre|center|centred on|about|on) <t>", "at {1}"),
    _of("tapped hole", r"<d> deep", "depth {1}"),
    _of("box", r"<d><x><d>", "{1} by {2}"),
    _of("line, arc, circle", r"(?:tangent(?:ial)?|touches|touch)\s+(?:to\s+)?<t>", "touching {1}"),
    _of("box", r"(?:width|wide)\s*<n>,?\s*(?:height|high|depth)\s*<n>", "{1} by {2}"),
    _of("box", r"<d>\s*wide\s*(?:x|×|by|,|and)?\s*<d>\s*(?:high|deep|tall)", "{1} by {2}"),
    _of("box", r"<d>\s*(?:sq\.?|square)", "{1} by {1}"),
    _of("box, ellipse, polygon, slot, grid", r"(?:at|about|centre|center|round)\s+<t>", "centred on {1}"),
    _of("box", r"(?:lower[ _]left|bottom[ _]left|corner)\s+(?:at\s+)?<t>", "from {1}"),
    _of("box, ellipse, polygon, slot", r"<d><x><d><about><t>", "{1} by {2}, centred on {3}"),
    _of("ellipse", r"major (?:axis )?<n>,?\s*(?:and )?minor (?:axis )?<n>", "axes {1} and {2}"),
    _of("polygon", r"<d>\s*(?:AF|A/F|A\.F\.|across the flats|flats)", "{1} across flats"),
    _of("polygon", r"<d>\s*(?:AC|A/C|across the corners|corners)", "{1} across corners"),
    _of("polygon", r"(?:AF|A/F|across flats|flats)\s+<d>", "{1} across flats"),
    _of("polygon", r"(?:AC|A/C|across corners|corners)\s+<d>", "{1} across corners"),
    _of("chamfer", r"<d><x>(\d+(?:\.\d+)?)\s*(?:°|deg\w*)", "{1} at {2}°"),
    _of("chamfer", r"<d><x><d>", "{1} by {2}"),
    _of("chamfer", r"(?:C|c)\s*<d>", "{1} each way"),
    _of("chamfer, fillet", r"<t>\s*(?:/|&|,)\s*<t>", "between {1} and {2}"),
    _of("chamfer, fillet", r"<t> (?:and|to) <t>\s+<r><d>", "between {1} and {2}, radius {3}"),
    _of("fillet", r"(?:at|in|the|of)?\s*(?:corner|vertex)\s+(?:at |of )?<t>", "corner {1}"),
    _of("fillet", r"(?:at|in|of)\s+<t>", "corner {1}"),
    _of("fillet", r"<r><d>\s+(?:between|at|in)\s+<t>\s*(?:and|,|/)\s*<t>", "between {2} and {3}, radius {1}"),
    _of("fillet", r"<r><d>\s+(?:at|in)\s+(?:corner\s+)?<t>", "corner {2}, radius {1}"),
    _of("line", r"<n>\s*long\s*(?:@|at)\s*<a>", "at {2}°, for {1}"),
    _of("line", r"<n>\s*(?:long|in length)", "for {1}"),
    _of("line", r"(?:length|of length|long)\s+<n>", "for {1}"),
    _of("line", r"(?:normal|perpendicular|square|at right angles|perp\.?)\s+(?:to\s+)?<t>", "square to {1}"),
    _of("line", r"(?:parallel|par\.?|//|∥)\s*(?:to\s+)?<t>", "parallel to {1}"),
    _of("line", r"<t>\s*(?:-|–|—|→)\s*<t>", "from {1} to {2}"),
    _of("line", r"(?:joining|between)\s+<t>\s*(?:and|,|to)\s*<t>", "from {1} to {2}"),
    _of("line", r"<t>\s*-\s*<t>", "from {1} to {2}"),
    _of("dimension", r"<t>\s*(?:-|–|—|→)\s*<t>", "from {1} to {2}"),
    _of("dimension", r"<o><t>", "diameter {1}"),
    _of("dimension", r"<r><t>", "radius {1}"),
    _of("dimension", r"(?:horizontal|horizontally|across)", "level"),
    _of("dimension", r"(?:distance|length)\s+(?:from\s+)?<t>\s+(?:to|and)\s+<t>", "from {1} to {2}"),
    _of("crossing", r"<t>\s*(?:x|×|∩|,|with|&)\s*<t>", "of {1} and {2}"),
    _of("midpoint", r"<t>\s*(?:-|–|&|,)\s*<t>", "between {1} and {2}"),
    _of("parallel", r"(?:offset\s+|distance\s+|at\s+|by\s+)?<d>\s*(above|below|left|right|up|down)(?:\s+(?:of\s+)?<t>)?",
        "at {1}, {2}", "to {3}, at {1}, {2}"),
    _of("parallel", r"(?:offset|distance|by|away)\s+<n>", "at {1}"),
    _of("parallel", r"<n>\s+(?:from|off|away from)\s+<t>", "to {2}, at {1}"),
    _of("point", r"<d>\s*(right|left|above|below|up|down)\s*(?:and|,)?\s*<d>\s*(right|left|above|below|up|down)"
        r"(?:\s+(?:of|from)?\s*<t>)?", "{1} {2} of {5}, {3} {4}", "{1} {2} of {O}, {3} {4}"),
    _of("point", r"(.+?) (?:of |from )?<t> and (.+?) (?:of |from )?<t>", "{1} of {2}, {3} of {4}"),
    _of("point", r"<d>\s*(?:to the\s+)?(right|left|above|below|up|down)\s*(?:of|from|off)?\s*<t>", "{1} {2} of {3}"),
    _of("point", r"<d>\s*(right|left|above|below|up|down)", "{1} {2} of {O}"),
    _of("point", r"<d>\s*(?:@|at|∠)\s*<a>\s*(?:from\s+<t>)?", "{1} from {3}, at {2}°", "{1} from {O}, at {2}°"),
    _of("spaced, turn, holes", r"(\d+)\s*(?:off|no\.?|holes|equally spaced|equispaced|eq\.? ?sp\.?|EQ SP|EQUI-SPACED|times|copies)"
        r"\s*(?:on|about|round|around)\s+<t>", "{1} about {2}", "{1} on {2}"),
    _of("spaced", r"(?:on|round)\s+<t>", "on {1}"),
    _of("turn", r"(\d+)\s*(?:off|copies|times|places)", "{1} about {O}"),
    _of("turn", r"(?:every|each)\s*<a>", "{1}° apart"),
    _of("holes", r"(?:PCD|BCD|P\.C\.D\.?|pitch circle)\s*(?:diameter\s*)?<o>?<d>", "on diameter {1}"),
    _of("holes", r"<o>?<d>\s*(?:PCD|BCD|P\.C\.D\.?)", "on diameter {1}"),
    _of("holes", r"(?:on\s+)(?:PCD|BCD|P\.C\.D\.?)\s*<o>?<d>", "on diameter {1}"),
    _of("holes", r"(?:on\s+)<o>?<d>\s*(?:PCD|BCD|P\.C\.D\.?)", "on diameter {1}"),
    _of("holes", r"(\d+)\s*(?:off|holes|no\.?|equally spaced|equispaced|EQ SP)", "{1} times"),
    _of("holes", r"(\d+)\s*(?:rows?|across)\s*(?:of|by|x|×)\s*(\d+)", "{1} by {2}"),
    _of("hatch", r"<a>", "at {1}°"),
    _of("label", r"(\"[^\"]*\")\s+(?:at|beside)\s+<t>", "saying {1}, at {2}"),
    _of("label", r"(\"[^\"]*\")\s+(?:pointing to|to)\s+<t>", "saying {1}, pointing to {2}"),
    _of("mirror", r"<t>\s*(?:about|in|across|over)\s+<t>", "of {1}, about {2}"),
    _of("mirror", r"(?:in|across|over|axis|along)\s+(?:the\s+)?<t>", "about {1}"),
    _of("gear", r"(?:PCD|P\.C\.D\.?|pitch circle diameter)\s*<d>", "pitch diameter {1}"),
    _of("gear", r"(?:MOD|Mod|mod|m)\s*<d>", "module {1}"),
    _of("gear", r"(?:DP)\s*<d>|<d>\s*DP", "diametral pitch {1}"),
    _of("gear", r"(\d+)\s*(?:T|t)", "{1} teeth"),
    _of("gear, internal gear, rack", r"(?:pressure angle|PA|p\.a\.)\s*<a>", "pressure {1}°"),
    _of("gear, internal gear, rack", r"<a>\s*(?:pressure angle|PA|p\.a\.)", "pressure {1}°"),
)
"""Clauses."""

_SIDES = r"(above|below|left|right)"

LINES = tuple(
    (_pattern(written), meant)
    for written, meant in (
        (r"^<t> = point,? (?:at )?\(?\s*(?:[xX]\s*=?\s*)?<d>\s*[,; ]\s*(?:[yY]\s*=?\s*)?<d>\s*\)?(?: from <t>)?$",
         ("{1} = point, {2} right of {4}, {3} above", "{1} = point, {2} right of {O}, {3} above")),
        (r"^<t> = point,? (?:at )?\(?\s*(?:[xX]\s*=?\s*)?[-−]\s*<d>\s*[,; ]\s*(?:[yY]\s*=?\s*)?<d>\s*\)?(?: from <t>)?$",
         ("{1} = point, {2} left of {4}, {3} above", "{1} = point, {2} left of {O}, {3} above")),
        (r"^<t> = point,? (?:at )?\(?\s*(?:[xX]\s*=?\s*)?<d>\s*[,; ]\s*(?:[yY]\s*=?\s*)?[-−]\s*<d>\s*\)?(?: from <t>)?$",
         ("{1} = point, {2} right of {4}, {3} below", "{1} = point, {2} right of {O}, {3} below")),
        (r"^<t> = point,? (?:at )?\(?\s*(?:[xX]\s*=?\s*)?[-−]\s*<d>\s*[,; ]\s*(?:[yY]\s*=?\s*)?[-−]\s*<d>\s*\)?(?: from <t>)?$",
         ("{1} = point, {2} left of {4}, {3} below", "{1} = point, {2} left of {O}, {3} below")),
        (rf"^<t> = line, parallel to <t>, (?:at |distance |offset )?<d>,? {_SIDES}(?: (?:of )?<t>)?$",
         ("{1} = parallel, to {2}, at {3}, {4}",)),
        (rf"^<t> = (?:line|parallel), (?:offset )?<d> {_SIDES}(?: of)? <t>$",
         ("{1} = parallel, to {4}, at {2}, {3}",)),
        (r"^<t> = arc, (?:centre|center|about|centred on) <t>, (?:radius |R ?)<n>, (?:from |between )?<a>\s*(?:to|and)\s*<a>$",
         ("{1} = swing, from {2}, radius {3}, between {4}° and {5}°",)),
        (r"^<t> = arc, (?:centre|center|about|centred on) <t>, (?:from |between )?<a>\s*(?:to|and)\s*<a>, (?:radius |R ?)<n>$",
         ("{1} = swing, from {2}, radius {5}, between {3}° and {4}°",)),
        (r"^<t> = (?:arc|circle), (?:radius |R ?)<n>, (?:centre|center|about) <t>, (?:from |between )?<a>\s*(?:to|and)\s*<a>$",
         ("{1} = swing, from {3}, radius {2}, between {4}° and {5}°",)),
        (r"^<t> = line, from <t>, (?:tangent|touching)(?: to)? <t>(.*)$", ("{1} = line, from {2}, touching {3}{4}",)),
        (r"^<t> = tangent, (?:to|of) <t>, from <t>(.*)$", ("{1} = line, from {3}, touching {2}{4}",)),
        (r"^<t> = tangent, from <t>, (?:to )?<t>(.*)$", ("{1} = line, from {2}, touching {3}{4}",)),
        (r"^<t> = tangent, (?:to |of )?<t> (?:and|to) <t>(.*)$", ("{1} = line, touching {2}, touching {3}{4}",)),
        (r"^<t> = (?:hexagon|hex|nut)\b,? ?(.*)$", ("{1} = polygon, 6 sides, {2}",)),
        (r"^<t> = (?:triangle|equilateral triangle)\b,? ?(.*)$", ("{1} = polygon, 3 sides, {2}",)),
        (r"^<t> = pentagon\b,? ?(.*)$", ("{1} = polygon, 5 sides, {2}",)),
        (r"^<t> = octagon\b,? ?(.*)$", ("{1} = polygon, 8 sides, {2}",)),
        (r"^<t> = square\b,? (?:side )?<d>(?: square)?(.*)$", ("{1} = box, {2} by {2}{3}",)),
        (r"^<t> = (?:bolt circle|pitch circle|hole circle|spaced|circle|holes|bolt holes),? "
         r"(\d+)\s*(?:×|x|\*|off|no\.?|-)?\s*(?:<o>)<d>\s*(?:holes?)?,?\s*(?:equally spaced,?|EQ SP,?)?\s*(?:on\s+)?(?:a\s+)?"
         r"(?:(?:PCD|BCD|P\.C\.D\.?)\s*(?:<o>)?<d>|(?:<o>)?<d>\s*(?:PCD|BCD|P\.C\.D\.?))(?:\s*(?:about|centre|at)?\s*<t>)?$",
         ("{1} = holes, {2} on diameter {4}, about {6}, diameter {3}", "{1} = holes, {2} on diameter {5}, about {6}, diameter {3}",
          "{1} = holes, {2} on diameter {4}, about {O}, diameter {3}", "{1} = holes, {2} on diameter {5}, about {O}, diameter {3}")),
        (r"^<t> = arm,? (?:between|joining|from) <t> (?:and|to) <t>,? (?:<d> wide|width <d>)$",
         ("{1} = arm, from {2} to {3}, width {4}", "{1} = arm, from {2} to {3}, width {5}")),
        (
            r"^(\w+ = (?:(?:line in|seen edge|tapped hole|centre lines|scale bar|internal gear|"
            r"isometric box|isometric circle|isometric block|tangent line)(?!\s*,)|"
            r"(?!(?:line in|seen|tapped|centre|scale|internal|isometric|tangent line)\b)[a-z]+)) ([^,].*)$",
            ("{1}, {2}",),
        ),
        (r"^([^\";]*);\s*([^\"]+)$", ("{1}, {2}",)),
        (r"^([^\"@]*?)\s*@\s*([^\"]+)$", ("{1} at {2}",)),
        (r"^<t> = tangent line,? (?:to )?<t>,? (?:and )?<t>(.*)$", ("{1} = line, touching {2}, touching {3}{4}",)),
        (r"^(\w+ = box, .*?)(?:width|wide) <n>, (?:height|high|depth) <n>(.*)$", ("{1}{2} by {3}{4}",)),
        (r"^(\w+ = ellipse, .*?)major (?:axis )?<n>, minor (?:axis )?<n>(.*)$", ("{1}axes {2} and {3}{4}",)),
        (r"^(\w+ = holes, (?:.*, )?at [\w. ]+), <t>(?=,|$)(.*)$", ("{1} {2}{3}",)),
        (r"^<t> = circle,? <t> radius <t>$", ("{1} = circle, centre {2}, radius {3}",)),
    )
)
"""Whole lines."""


def notations(text: str, datum: str = "O") -> Iterator[tuple[str, ...]]:
    """Yield what a line may be, written as this product writes it: for each way of writing that is
    known, what it may mean, the likeliest first."""
    for pattern, ways in LINES:
        found = pattern.match(text)
        if found:
            yield tuple(row.strip().rstrip(",") for row in _filled(ways, found, datum))
    head, equals, rest = text.partition(" = ")
    if not equals:
        return
    kind, *clauses = rest.split(", ")
    for at, clause in enumerate(clauses):
        for notation in CLAUSES:
            if notation.kinds and kind not in notation.kinds:
                continue
            found = notation.pattern.fullmatch(clause.strip())
            if found:
                filled = _filled(notation.meant, found, datum)
                yield tuple(_with(head, kind, clauses, at, said) for said in filled)


def _filled(ways: Sequence[str], found: re.Match[str], datum: str) -> Iterator[str]:
    """Yield what is meant with what was found in its places; what is measured from the datum only
    where nothing else was said."""
    known = [
        way for way in ways if all(found[int(place)] for place in re.findall(r"\{(\d+)\}", way))
    ]
    said = [way for way in known if "{O}" not in way] or known
    groups = [UPRIGHT.get(each or "", each or "").strip() for each in found.groups()]
    for way in said:
        row = way.replace("{O}", datum).format("", *groups)
        yield re.sub(r"\b(above|below) of ", r"\1 ", row).strip()


UPRIGHT = {"up": "above", "down": "below"}
"""Ways that are places here."""


def _with(head: str, kind: str, clauses: list[str], at: int, said: str) -> str:
    """Return a line with a clause said otherwise, what is noted of it in quotes at its end."""
    own, _, note = (part.strip() for part in said.partition("|"))
    kept = (*clauses[:at], *((own,) if own else ()), *clauses[at + 1 :])
    row = f"{head} = {', '.join((kind, *kept))}"
    is_noted = row.endswith('"') and not re.search(r'(thread|saying|titled) "[^"]*"$', row)
    return f'{row} "{note}"' if note and not is_noted else row
