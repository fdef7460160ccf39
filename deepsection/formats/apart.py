"""Files of others read in a process of their own: what one of them does to the libraries that read it, or how much it
takes, ends that process, not ours.

A helper is started when it is first needed, and stays; for each question it forks a child that works within bounds of
time and memory. What is asked comes pickled by its standard input, progress and answer go by its standard output, each
behind its length. Run as a module this is that helper.
"""

from __future__ import annotations

import atexit
import logging
import os
import pickle
import resource
import struct
import subprocess
import sys
import threading
import traceback
from collections.abc import Callable, Collection
from typing import Any, BinaryIO, NamedTuple

import numpy as np
from numpy.typing import NDArray

from deepsection.core.errors import BadInput
from deepsection.core.progress import Told, silent
from deepsection.core.reading import Drawn, ReadPlan, read_plan
from deepsection.core.reading.modelled import Model

from .dxf_drawn import read_drawn
from .ifc_model import read_ifc, rest_of

log = logging.getLogger("deepsection")

SECONDS = 30
"""A file is read within so much time of a processor."""
BYTES = 2**30
"""And within so much memory of its own."""
_MORE = f"took more than {SECONDS} s or {BYTES / 2**30:.0f} GiB; export it anew, without what is not needed"
DAMAGED = f"this model is damaged: it broke off what reads it, or {_MORE}"
TOO_MUCH = f"this drawing {_MORE}"
ODD = "this file holds something that breaks off its reading; export it anew, or as another version of its format"
_LENGTH = struct.Struct("<Q")


def model_in(data: bytes, told: Told = silent) -> Model:
    """What stands in a model, as `read_ifc` has it. Raises: BadInput, for what breaks the reader too."""
    model: Model = _HELPER.asked(DAMAGED, told, read_ifc, data)
    return model


def rest_in(data: bytes, without: Collection[str]) -> tuple[NDArray[np.float64], NDArray[np.int64]]:
    """What of a model is not taken over, as `rest_of` has it. Raises: BadInput, for what breaks the reader too."""
    rest: tuple[NDArray[np.float64], NDArray[np.int64]] = _HELPER.asked(DAMAGED, None, rest_of, data, tuple(without))
    return rest


def drawn_in(data: bytes, told: Told = silent) -> Drawn:
    """What a DXF file shows, as `read_drawn` has it. Raises: BadInput, for what takes too much too."""
    drawn: Drawn = _HELPER.asked(TOO_MUCH, told, read_drawn, data)
    return drawn


def plan_in(drawn: Drawn, told: Told = silent, **chosen: Any) -> ReadPlan:
    """The plan in a drawing, as `read_plan` has it. Raises: BadInput, for what takes too much too."""
    plan: ReadPlan = _HELPER.asked(TOO_MUCH, told, read_plan, drawn, **chosen)
    return plan


class _Question(NamedTuple):
    """Which reader reads what, whether it tells how far it is, and its bounds: seconds and bytes."""

    reader: Callable[..., Any]
    args: tuple[Any, ...]
    named: dict[str, Any]
    tells: bool
    seconds: int
    size: int


class _Helper:
    """The process beside ours, one question at a time."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None

    def asked(self, broken: str, told: Told | None, reader: Callable[..., Any], *args: Any, **named: Any) -> Any:
        """What a reader answers, which tells how far it is where somebody hears that; where it breaks off, `broken`."""
        question = _Question(reader, args, named, told is not None, SECONDS, BYTES)
        with self._lock:
            process = self._running()
            assert process.stdin and process.stdout
            try:
                _send(process.stdin, question)
                while True:
                    kind, said = _received(process.stdout)
                    if kind == "told" and told is not None:
                        told(*said)
                    elif kind == "done":
                        return said
                    elif kind == "failed":
                        log.error("a file could not be read\n%s", said)
                        raise BadInput(ODD, field="file")
                    else:
                        raise said if kind == "refused" else BadInput(broken, field="file")
            except (EOFError, BrokenPipeError) as error:
                self.end()
                raise BadInput(broken, field="file") from error

    def _running(self) -> subprocess.Popen[bytes]:
        if self._process is None or self._process.poll() is not None:
            paths = os.pathsep.join(path for path in sys.path if path)
            self._process = subprocess.Popen(
                [sys.executable, "-m", __name__],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
                env={**os.environ, "PYTHONPATH": paths},
            )
        return self._process

    def end(self) -> None:
        """Ends the process, if there is one."""
        if self._process is not None:
            self._process.kill()
            self._process.wait()
            self._process = None


_HELPER = _Helper()
atexit.register(_HELPER.end)


def _send(stream: BinaryIO | Any, message: Any) -> None:
    body = pickle.dumps(message)
    stream.write(_LENGTH.pack(len(body)) + body)
    stream.flush()


def _received(stream: BinaryIO | Any) -> Any:
    """The next message. Raises: EOFError where the stream ends before it."""
    head = stream.read(_LENGTH.size)
    if len(head) < _LENGTH.size:
        raise EOFError
    (length,) = _LENGTH.unpack(head)
    body = stream.read(length)
    if len(body) < length:
        raise EOFError
    return pickle.loads(body)


def _answered(question: _Question, out: BinaryIO) -> None:
    """In the child: the answer to one question, within its bounds."""
    resource.setrlimit(resource.RLIMIT_CPU, (question.seconds, question.seconds))
    resource.setrlimit(resource.RLIMIT_DATA, (question.size, question.size))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    telling = {"told": lambda *step: _send(out, ("told", step))} if question.tells else {}
    try:
        answer = question.reader(*question.args, **question.named, **telling)
    except BadInput as error:
        _send(out, ("refused", error))
    except MemoryError:
        raise
    except Exception:
        _send(out, ("failed", traceback.format_exc()))
    else:
        _send(out, ("done", answer))


def _help() -> None:
    out = sys.stdout.buffer
    while True:
        try:
            question = _received(sys.stdin.buffer)
        except EOFError:
            return
        child = os.fork()
        if not child:
            try:
                _answered(question, out)
            except BaseException:
                os._exit(1)
            os._exit(0)
        _, status = os.waitpid(child, 0)
        if status:
            _send(out, ("broken", None))


if __name__ == "__main__":
    _help()
