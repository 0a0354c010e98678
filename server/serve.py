"""Serve the application on this computer with waitress: ``python server/serve.py --port 8321``.

The data folder is made ready first: looked over, copied before it is changed, brought up to this version; with ``--demo``
the demo data is put in where nothing is yet.
"""

from __future__ import annotations

import argparse
import json
import os
import shutil
import socket
import sys
import threading
from pathlib import Path

from waitress.utilities import Error

sys.path[:0] = [str(Path(__file__).resolve().parent), str(Path(__file__).resolve().parent.parent / "core")]

HOST = "127.0.0.1"
_DOORS = {"connection_limit": 2_000, "channel_timeout": 30, "cleanup_interval": 10, "asyncore_use_poll": True}
"""Connections that are opened and say nothing cost little and are closed after half a minute."""
_AT_ONCE = 3
"""Requests worked on at a time. They share one interpreter: with eight, each of the many small matrices of a diagnosis waits its turn behind
seven others (thirty clients for 45 s: median 0.45 s and p95 3.7 s, against 0.18 and 1.3 with three, 0.17 and 0.7 with one). One alone would
have everybody wait for a long arrangement or a large import."""
_LARGEST = 500_000_000
"""Bytes of a request: everything in one file, restored from Settings. All else is refused above 2 MB."""


def port_is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((HOST, port))
        except OSError:
            return False
    return True


def made_ready(*, demo: bool, reset: bool, yes: bool, anew: bool) -> None:
    """In this process, since each start of Python costs a second. Raises ``CommandError`` in the user's words."""
    from django.conf import settings
    from django.core.management import call_command

    call_command("prepare", anew=anew)
    if demo:
        call_command("lantern_deck", reset=reset, yes=yes)
    # The scripts of one build are packed once.
    packed, build = settings.STATIC_ROOT / "packed", settings.WEB / "index.html"
    now = str(build.stat().st_mtime_ns) if build.exists() else ""
    if not packed.exists() or packed.read_text() != now:
        shutil.rmtree(settings.STATIC_ROOT, ignore_errors=True)
        call_command("collectstatic", interactive=False, verbosity=0)
        packed.write_text(now)


def told_as_problem(error: Error, _ident: str | None = None) -> tuple[str, list[tuple[str, str]], bytes]:
    """What waitress refuses before the application sees it (no HTTP, a body beyond all bounds), told as all else is: status
    line, headers, body."""
    from api.problems import problem_body

    body = json.dumps(problem_body(error.code, "not_served", error.reason, str(error.body), [])).encode()
    return f"{error.code} {error.reason}", [("Content-Type", "application/problem+json")], body


def _arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(description="Serve Entretoile on this computer.")
    parser.add_argument("--port", type=int, default=8321)
    parser.add_argument("--demo", action="store_true", help="put the demo data in where there is none")
    parser.add_argument("--reset", action="store_true", help="empty the workroom first; asks, and keeps a copy")
    parser.add_argument("--yes", action="store_true", help="do not ask")
    parser.add_argument("--anew", action="store_true", help="begin with an empty database where one is missing")
    return parser.parse_args()


def _port_refused(port: int) -> str:
    """Why this port will not do; nothing when it will."""
    if not 1 <= port <= 65535:
        return f"Port {port} does not exist. Choose one from 1024 to 65535: make demo PORT=8400"
    if not port_is_free(port):
        return (
            f"Port {port} is taken, perhaps by Entretoile already running at http://{HOST}:{port}/.\n"
            f"Stop that program, or choose another port: make demo PORT={port + 1}"
        )
    return ""


def _begin_behind() -> None:
    """What need not be there for the first page."""
    from api.collector import collect_seldom
    from cutting import apart
    from exchange.history import keep_states
    from keeping.copies import keep_daily
    from piecing.solver import warm
    from records.forecasts import work_out_behind

    def load_heavy() -> None:
        warm()
        collect_seldom()

    apart.begin()
    for behind in (load_heavy, keep_daily, keep_states, work_out_behind):
        threading.Thread(target=behind, daemon=True).start()


def main() -> int:
    args = _arguments()
    port: int = args.port
    if refused := _port_refused(port):
        print(refused, file=sys.stderr)
        return 2
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    for threads in ("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS"):
        # Matrices are small here: more threads wait for each other more than they work, most of all beside a search for a plan.
        os.environ.setdefault(threads, "1")
    import django

    django.setup()
    from django.core.management.base import CommandError
    from waitress import serve

    from keeping.serving import AlreadyServed, hold_folder

    address = f"http://{HOST}:{port}/"
    try:
        held = hold_folder(address)
        made_ready(demo=args.demo, reset=args.reset, yes=args.yes, anew=args.anew)
    except AlreadyServed as other:
        print(
            f"Entretoile already runs on this data folder, at {other}.\n"
            "Open that page, or stop that program before starting another.",
            file=sys.stderr,
        )
        return 2
    except CommandError as problem:
        print(problem, file=sys.stderr)
        return 2

    # Not before the scripts are packed: the application looks once, as it is made, which of them there are.
    from config.wsgi import application

    _begin_behind()
    setattr(Error, "to_response", told_as_problem)  # noqa: B010  the package says nothing of its types
    print(f"Entretoile is at {address}   (Ctrl-C stops it; what you type is kept)", flush=True)
    serve(
        application,
        host=HOST,
        port=port,
        threads=_AT_ONCE,
        ident="Entretoile",
        max_request_body_size=_LARGEST,
        **_DOORS,
    )
    held.close()
    return 0


if __name__ == "__main__":
    sys.exit(main())
