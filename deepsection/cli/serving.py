"""The service, started from the command line."""

from __future__ import annotations

import os
import socket
from typing import Annotated

import typer
import uvicorn

from deepsection.service.app import create_app

from .shared import app, out


@app.command()
def serve(
    host: Annotated[str, typer.Option(help="Address to listen on.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(help="Port; the next free one is taken when it is in use.")] = 8420,
) -> None:
    """Serve the application with the demo projects, and print its address.

    It answers to 127.0.0.1, localhost, the host given, and what DEEPSECTION_HOSTS names (with commas between).
    """
    port = _free_port(host, port)
    out.print(f"Deep Section is ready at [bold]http://{host}:{port}/[/bold]  (stop it with Ctrl+C)")
    uvicorn.run(
        create_app(demos=True, hosts=(host,)),
        host=host,
        port=port,
        log_level=os.environ.get("DEEPSECTION_LOG", "warning"),
    )


def _free_port(host: str, port: int) -> int:
    for candidate in range(port, port + 50):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((host, candidate))
            except OSError:
                continue
            return candidate
    return port
