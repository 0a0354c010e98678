"""Serve the application on this computer with waitress: ``python server/serve.py --port 8321``."""

from __future__ import annotations

import argparse
import socket
import sys
import threading
from pathlib import Path

sys.path[:0] = [str(Path(__file__).resolve().parent), str(Path(__file__).resolve().parent.parent / "core")]

HOST = "127.0.0.1"
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


def main() -> int:
    parser = argparse.ArgumentParser(description="Serve Entretoile on this computer.")
    parser.add_argument("--port", type=int, default=8321)
    parser.add_argument("--check", action="store_true", help="only say whether the port can be had")
    args = parser.parse_args()
    port: int = args.port
    if not 1 <= port <= 65535:
        print(f"Port {port} does not exist. Choose one from 1024 to 65535: make demo PORT=8400", file=sys.stderr)
        return 2
    if not port_is_free(port):
        print(
            f"Port {port} is taken, perhaps by Entretoile already running at http://{HOST}:{port}/.\n"
            f"Stop that program, or choose another port: make demo PORT={port + 1}",
            file=sys.stderr,
        )
        return 2
    if args.check:
        return 0
    from waitress import serve

    from config.wsgi import application
    from keeping.copies import keep_daily
    from keeping.serving import AlreadyServed, hold_folder
    from piecing.solver import warm

    address = f"http://{HOST}:{port}/"
    try:
        held = hold_folder(address)
    except AlreadyServed as other:
        print(
            f"Entretoile already runs on this data folder, at {other}.\n"
            "Open that page, or stop that program before starting another.",
            file=sys.stderr,
        )
        return 2

    for behind in (warm, keep_daily):
        threading.Thread(target=behind, daemon=True).start()

    print(f"Entretoile is at {address}   (Ctrl-C stops it; what you type is kept)", flush=True)
    serve(application, host=HOST, port=port, threads=8, ident="Entretoile", max_request_body_size=_LARGEST)
    held.close()
    return 0


if __name__ == "__main__":
    sys.exit(main())
