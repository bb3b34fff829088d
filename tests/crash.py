"""Kill a served desk in the middle of saving, again and again: ``python tests/crash.py --kills 200``.

Several clients save without pause and note every revision that was acknowledged. The desk and its hands are killed at a
random moment. Started again, the register must be sound and hold every acknowledged revision, letter for letter, and no
revision that is only half there. With ``--server`` the register stands on a PostgreSQL server, which goes on.
"""

from __future__ import annotations

import argparse
import http.client
import json
import os
import random
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path

from entrick.store import Folder, add_job, backup, export_register, list_jobs, open_store, revisions
from entrick.store.soundness import examine
from older_register import older_register
from postgres import Postgres

CLIENTS = 4
HEAD = 'plan "Saved again and again"\nunits mm\nO = datum\n'


def post(port: int, path: str, body: object) -> dict[str, object]:
    """Send something and return the answer; `OSError` where the desk is gone."""
    link = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
    try:
        link.request("POST", path, json.dumps(body), {"Content-Type": "application/json"})
        answer = link.getresponse()
        told = json.loads(answer.read())
        if answer.status != 201:
            raise OSError(f"{answer.status}: {told}")
        return told
    except (http.client.HTTPException, ValueError) as error:
        raise OSError(str(error)) from error
    finally:
        link.close()


class Saver(threading.Thread):
    """A client that saves one job without pause and notes what was acknowledged."""

    def __init__(self, port: int, kept: dict[int, dict[int, str]]) -> None:
        super().__init__(daemon=True)
        self.port, self.kept = port, kept

    def run(self) -> None:
        """Save until the desk is gone."""
        try:
            text = HEAD
            job = int(str(post(self.port, "/api/jobs", {"text": text})["id"]))
            mine = self.kept.setdefault(job, {})
            mine[1] = text
            while True:
                text = HEAD + f"# {random.random()} {'x' * random.randrange(1, 6000)}\n"
                number = int(
                    str(
                        post(
                            self.port,
                            f"/api/jobs/{job}/revisions",
                            {"text": text, "based_on": max(mine)},
                        )["number"]
                    )
                )
                mine[number] = text
        except OSError:
            return


def start(port: int, register: Path | str) -> subprocess.Popen[bytes]:
    """Start a desk, in a group of its own so that its hands can be killed with it, and wait until it answers."""
    command = [
        sys.executable,
        "-m",
        "entrick.cli",
        "serve",
        "--port",
        str(port),
        "--database",
        str(register),
    ]
    process = subprocess.Popen(command, stdout=subprocess.DEVNULL, start_new_session=True)
    ends = time.monotonic() + 120
    while True:
        try:
            socket.create_connection(("127.0.0.1", port), timeout=1).close()
            return process
        except OSError:
            if time.monotonic() > ends or process.poll() is not None:
                raise
            time.sleep(0.02)


def lost(register: Path | str, kept: dict[int, dict[int, str]]) -> list[str]:
    """Return what was acknowledged and is not there."""
    store = open_store(register)
    missing = []
    with store.reading() as session:
        for job, texts in kept.items():
            there = {revision.number: revision.text for revision in revisions(session, job)}
            missing += [f"job {job}, revision {n} is gone" for n in texts if n not in there]
            missing += [
                f"job {job}, revision {n} is {there[n][-40:]!r}, not {text[-40:]!r}"
                for n, text in texts.items()
                if there.get(n, text) != text
            ]
        assert list_jobs(session, size=1).total >= len(kept)
    store.engine.dispose()
    return missing


WORK = {
    "restore": "import sys; from pathlib import Path; from entrick.store import restore; "
    "restore(Path(sys.argv[2]), Path(sys.argv[1]))",
    "migration": "import sys; from pathlib import Path; from entrick.store import open_store; open_store(Path(sys.argv[1]))",
    "snapshot": "import sys, datetime; from pathlib import Path; from entrick.store import snapshot; "
    "snapshot(Path(sys.argv[1]), datetime.date(2026, 1, 1))",
    "import": "import sys; from pathlib import Path; from entrick.store import Folder, import_register, open_store; "
    "import_register(open_store(Path(sys.argv[1])), Folder(Path(sys.argv[3])))",
}
"""What is killed in the middle besides saving: a register, a backup and open files are its arguments."""


def texts_of(register: Path) -> list[tuple[int, int, str]]:
    """Return every revision of a register, as the file has it."""
    with sqlite3.connect(register) as connection:
        return sorted(connection.execute("SELECT job_id, number, text FROM revision"))


def kill_in_the_middle_of(what: str, register: Path, folder: Path) -> str:
    """Kill some work on a copy of a register; return what is wrong afterwards: it must be as it was, or as it would be."""
    copy, other, files = folder / "copy.db", folder / "other.db", folder / "files"
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir()
    backup(register, copy)
    store = open_store(other)
    with store.writing() as session:
        for number in range(40):
            add_job(session, f"# other {number}\n" * 300)
    export_register(store, Folder(files))
    store.close()
    if what == "migration":
        copy.unlink()
        older_register(copy, "0005", 3000)
    before = texts_of(copy)
    after = {
        "restore": texts_of(other),
        "import": sorted(before + [(0, 0, "")] * 40),
    }.get(what, before)
    work = subprocess.Popen([sys.executable, "-c", WORK[what], str(copy), str(other), str(files)])
    time.sleep(random.uniform(0.3, 1.6))
    work.kill()
    work.wait()
    open_store(copy).close()
    now = texts_of(copy)
    whole = now in (before, after) or (what == "import" and len(now) == len(after))
    return "" if whole else f"{what}: {len(before)} revisions before, {len(now)} now"


def on_a_server(kills: int, kept: dict[int, dict[int, str]]) -> int:
    """Return 0 when nothing was lost of what was acknowledged by desks on a server."""
    server = Postgres()
    try:
        register = server.register()
        for kill in range(1, kills + 1):
            _kill_while_saving(register, kept)
            if missing := lost(register, kept):
                print(f"kill {kill}: lost: {missing}")
                return 1
    finally:
        server.stop()
    count = sum(map(len, kept.values()))
    print(f"{kills} kills, {len(kept)} jobs on a server, {count} acknowledged revisions, none lost")
    return 0


def _kill_while_saving(register: Path | str, kept: dict[int, dict[int, str]]) -> None:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    desk = start(port, register)
    savers = [Saver(port, kept) for _ in range(CLIENTS)]
    for saver in savers:
        saver.start()
    before = len(kept)
    ends = time.monotonic() + 60
    while len(kept) < before + CLIENTS and time.monotonic() < ends:
        time.sleep(0.01)
    time.sleep(random.uniform(0.0, 0.5))
    os.killpg(desk.pid, signal.SIGKILL)
    desk.wait()
    for saver in savers:
        saver.join()


def main() -> int:
    """Return 0 when nothing was lost."""
    asked = argparse.ArgumentParser()
    asked.add_argument("--kills", type=int, default=10)
    asked.add_argument("--seed", type=int, default=int.from_bytes(os.urandom(4)))
    asked.add_argument("--server", action="store_true")
    args = asked.parse_args()
    random.seed(args.seed)
    print(f"seed {args.seed}", flush=True)
    kept: dict[int, dict[int, str]] = {}
    if args.server:
        return on_a_server(args.kills, kept)
    with tempfile.TemporaryDirectory() as folder:
        register = Path(folder) / "register.db"
        for kill in range(1, args.kills + 1):
            _kill_while_saving(register, kept)
            examine(register)
            with sqlite3.connect(register) as connection:
                wrong = connection.execute("PRAGMA integrity_check").fetchone()[0]
            missing = lost(register, kept)
            what = list(WORK)[kill % len(WORK)]
            if told := kill_in_the_middle_of(what, register, Path(folder) / "elsewhere"):
                missing.append(told)
            if missing or wrong != "ok":
                print(f"kill {kill}: {wrong}; lost: {missing}")
                return 1
    count = sum(map(len, kept.values()))
    print(f"{args.kills} kills, {len(kept)} jobs, {count} acknowledged revisions, none lost")
    return 0


if __name__ == "__main__":
    sys.exit(main())
