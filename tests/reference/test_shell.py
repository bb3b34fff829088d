"""The shell never falls over: whatever it is given, it says what is wrong in a line, and ends."""

import json
from pathlib import Path

import pytest
from click import ClickException
from click.testing import CliRunner, Result
from hypothesis import given
from hypothesis import strategies as st

from entrick.cli import COMMANDS, main, net
from entrick.core.board.kits import STARTERS, write_kit
from entrick.core.classroom.set_file import write_set
from entrick.core.classroom.sets import make
from entrick.core.readback import read_profile
from examples import examples

PLAN = "units mm\nO = datum\nc = circle, centre O, radius 20\nrim = line in, c\n"

NUMBERS = ["-1", "0", "nan", "inf", "-inf", "1e400", "1e-400", "x", "", "9" * 400, "²", "1/0"]
TEXTS = [
    "",
    "\0",
    "=1+1",
    "\ud800".encode("utf-16", "surrogatepass").decode("utf-16", "replace"),
    "x" * 5000,
    "../x",
]

FILES: dict[str, bytes] = {
    "empty": b"",
    "zeros": bytes(300),
    "latin": "Größe".encode("latin-1"),
    "deep": b"[" * 100_000,
    "deep object": b'{"entrick_set":' + b"[" * 50_000,
    "number": b"9" * 5000,
    "constant": b'{"entrick_set": 1, "title": NaN, "seed": Infinity, "briefs": [], "papers": []}',
    "set": b'{"entrick_set": 1, "title": "t", "seed": 1e999, "briefs": [], "papers": []}',
    "kit": b'{"entrick_kit": 1, "unit": "mm", "compass": "1e4000000"}',
    "plan": PLAN.encode(),
    "long line": b"O = datum" + b", x" * 40_000,
    "huge arc": b"G21\nG90\nM3\nF100\nG2 X1 Y0 I1e300 J0\nM2\n",
    "huger arc": b"G21\nG90\nM3\nF100\nG2 X0 Y0 I99999999999999999999 J0\nM2\n",
    "far": b"(TOOL 1.2.3)\nG21\nG90\nM3\nF100\nG1 X900000 Y-900000\nG2 X0 Y0 R1\nM2\n",
    "svg": b'<svg viewBox="0 0 1 1"><g id="a"><use href="#a"/></g></svg>',
    "path": b'<svg viewBox="0 0 1 1"><path d="M0 0 L1e400 nan Z"/></svg>',
    "dxf": b"0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n10\n1e400\n40\nnan\n0\nENDSEC\n0\nEOF\n",
    "csv": "x,y\n1,²\n=1+1,3\n\r\r".encode(),
    "answers": "student,1,²\r1,5\r".encode(),
}


def given_to_the_shell(*arguments: str) -> Result:
    """Give a command to the shell; what falls through would be a traceback."""
    told = CliRunner().invoke(main, list(arguments))
    assert told.exception is None or isinstance(told.exception, SystemExit), (
        arguments,
        told.exception,
    )
    assert told.exit_code in (0, 1, 2), arguments
    assert "a fault of the desk" not in told.output, (arguments, told.output)
    return told


@pytest.fixture(scope="module")
def files(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Path]:
    """Files that are no good, and some that are, by name."""
    folder = tmp_path_factory.mktemp("hostile")
    good = {
        "good set": write_set(make("t", [PLAN_ASKED], 2, 3, 1)).encode(),
        "good kit": write_kit(STARTERS["school-mm"]).encode(),
    }
    found = {}
    for number, (name, data) in enumerate((FILES | good).items()):
        for ending in ("", ".svg", ".dxf", ".csv", ".nc", ".entrick"):
            found[name + ending] = folder / f"f{number}{ending}"
            found[name + ending].write_bytes(data)
    found["folder"], found["none"] = folder, folder / "none.entrick"
    return found


PLAN_ASKED = (
    "units mm\nsheet A3 landscape, scale 1:2, border 10\nO = datum\ngiven r = 44\n"
    "c = circle, centre O, radius r\nd = circle, centre O, radius 25\nrim = line in, c\nhole = line in, d\n"
)

OPTIONS = [
    "--tool",
    "--feed",
    "--within",
    "--seed",
    "--hands",
    "--at",
    "--students",
    "--questions",
    "--kit",
    "--layer",
    "--units",
    "--fault",
    "--rule",
    "--title",
    "--paper",
    "--json",
    "--clean",
    "--insist",
    "--against",
    "-o",
]
"""Of all commands: those a command does not know are told so."""


@given(st.data())
@examples(30)
def test_no_argument_and_no_file_brings_the_shell_down(
    files: dict[str, Path], tmp_path_factory: pytest.TempPathFactory, data: st.DataObject
) -> None:
    out = tmp_path_factory.mktemp("out")
    names = [*sorted(COMMANDS.keys() - {"serve"}), "set make", "set paper", "set key"]
    command = data.draw(st.sampled_from(names)).split()
    file = st.sampled_from(sorted(files)).map(lambda name: str(files[name]))
    target = st.sampled_from(
        [str(out / f"o{e}") for e in (".svg", ".pdf", ".dxf", ".nc", ".csv", "")]
        + [str(out / "none" / "o.pdf"), str(out)]
    )
    arguments = [data.draw(file) for _ in range(data.draw(st.integers(1, 2)))]
    for option in data.draw(st.lists(st.sampled_from(OPTIONS), max_size=3, unique=True)):
        arguments.append(option)
        if option == "-o":
            arguments.append(data.draw(target))
        elif option == "--against":
            arguments.append(data.draw(file))
        elif option not in ("--json", "--clean", "--insist"):
            arguments.append(
                data.draw(
                    st.sampled_from([*NUMBERS, *TEXTS, "1", "mm", "lost step", "A4", "locus"])
                )
            )
    if command[0] in ("backup", "restore", "export", "import"):
        arguments += ["--database", data.draw(st.one_of(file, st.just(str(out / "r.db"))))]
    given_to_the_shell(*command, *(each.replace("\0", "") for each in arguments))


@pytest.mark.parametrize(
    "command",
    [
        "solve",
        "draw",
        "check",
        "carry-out",
        "rehearse",
        "read-back",
        "cut",
        "mark",
        "restore",
        "import",
    ],
)
def test_every_command_says_what_is_wrong_with_every_file(
    files: dict[str, Path], tmp_path: Path, command: str
) -> None:
    plan = files["plan.entrick"]
    more: dict[str, list[str]] = {
        "draw": ["-o", str(tmp_path / "o.svg")],
        "read-back": ["-o", str(tmp_path / "o.entrick")],
        "cut": ["--against", str(plan), "--tool", "1"],
        "mark": [str(files["answers"]), "-o", str(tmp_path / "m.csv")],
        "restore": ["--database", str(tmp_path / "r.db")],
        "import": ["--database", str(tmp_path / "i.db")],
    }
    for file in files.values():
        given_to_the_shell(command, str(file), *more.get(command, []))
    if command == "mark":
        for file in files.values():
            given_to_the_shell(
                "mark", str(files["good set"]), str(file), "-o", str(tmp_path / "m.csv")
            )


def without_end() -> None:
    while True:
        pass


def test_work_without_end_is_stopped_by_the_clock() -> None:
    def bounded() -> None:
        with net.told(), net.bounded(0.3):
            without_end()

    with pytest.raises(ClickException, match="more than 60 seconds"):
        bounded()


def test_things_that_stand_for_others_without_end_are_refused() -> None:
    """Ten to the thirtieth circles in three kilobytes; and a picture used within itself."""
    rows = ['<g id="g0"><circle r="1"/></g>']
    rows += [f'<g id="g{n}">' + f'<use href="#g{n - 1}"/>' * 10 + "</g>" for n in range(1, 31)]
    picture = '<svg viewBox="0 0 9 9">' + "".join(rows) + '<use href="#g30"/></svg>'
    with pytest.raises(ValueError, match="at most"):
        read_profile(picture.encode(), "x.svg", None, ())
    with pytest.raises(ValueError, match="within itself"):
        read_profile(FILES["svg"], "x.svg", None, ())


@given(st.data())
@examples(15)
def test_a_set_tampered_with_is_read_or_refused_in_words(
    files: dict[str, Path], data: st.DataObject
) -> None:
    """Any value anywhere in a set is put in the place of another, or taken out."""
    said = json.loads(files["good set"].read_text())
    at: object = said
    while True:
        keys = list(at) if isinstance(at, dict) else list(range(len(at)))  # type: ignore[arg-type, call-overload]
        key = data.draw(st.sampled_from(keys))
        inner = at[key]  # type: ignore[index]
        if not isinstance(inner, dict | list) or not inner or data.draw(st.integers(0, 3)) == 0:
            break
        at = inner
    worse = data.draw(
        st.sampled_from([None, -1, 1e300, "x" * 5000, [], {}, [[1]], True, 2**70, "²"])
    )
    if worse is None and isinstance(at, dict):
        del at[key]
    else:
        at[key] = worse  # type: ignore[index]
    file = files["good set"].with_name("tampered.json")
    file.write_text(json.dumps(said))
    answers = file.with_name("answers.csv")
    answers.write_text("student,1,2,3\n1,5,1e400,9999999999999999999999\n2,=1,,a\n")
    given_to_the_shell("mark", str(file), str(answers), "-o", str(file.with_name("marks.csv")))
    given_to_the_shell("set", "key", str(file), "-o", str(file.with_name("key.pdf")))
