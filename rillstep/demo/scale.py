"""A kitchen scale that is not there: it has noise, drifts a little, can be tared, and its battery can be flat."""

import random
import socketserver
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

# The resolution in g, the noise of a reading, and how far it drifts in a minute.
STEP_G, NOISE_G, DRIFT_G = 0.1, 0.05, 0.2
EACH_S = 0.12


@dataclass
class SimulatedScale:
    """What lies on it, in g, and what is wrong with it. It comes to rest a moment after something was put down."""

    load_g: float = 0.0
    tare_g: float = 0.0
    flat: bool = False
    silent: bool = False
    shaken: bool = False
    put_down: float = field(default_factory=time.monotonic)
    begun: float = field(default_factory=time.monotonic)
    chance: random.Random = field(default_factory=lambda: random.Random(7))

    def put(self, grams: float) -> None:
        """Lays something on it."""
        self.load_g, self.put_down = grams, time.monotonic()

    def tare(self) -> None:
        """Counts what lies on it as nothing."""
        self.tare_g = self.load_g

    def line(self) -> str:
        """What it says next."""
        if self.flat:
            return "LO"
        now = time.monotonic()
        moving = self.shaken or now - self.put_down < 0.3
        drift = DRIFT_G * min(1.0, (now - self.begun) / 60)
        noise = self.chance.gauss(0, 8.0 if moving else NOISE_G)
        shown = round((self.load_g - self.tare_g + drift + noise) / STEP_G) * STEP_G
        return f"{'US' if moving else 'ST'}  {shown:+.1f} g"


class _Talks(socketserver.BaseRequestHandler):
    def handle(self) -> None:
        scale = self.server.scale  # type: ignore[attr-defined]
        try:
            while True:
                if not scale.silent:
                    self.request.sendall(scale.line().encode() + b"\r\n")
                time.sleep(EACH_S)
        except OSError:
            return  # whoever listened has gone


class _Server(socketserver.ThreadingTCPServer):
    allow_reuse_address = True
    daemon_threads = True


@contextmanager
def on_socket(scale: SimulatedScale, port: int = 0) -> Iterator[str]:
    """The scale on a local socket; its address, "host:port"."""
    with _Server(("127.0.0.1", port), _Talks) as server:
        server.scale = scale  # type: ignore[attr-defined]
        threading.Thread(target=server.serve_forever, daemon=True).start()
        try:
            yield f"127.0.0.1:{server.server_address[1]}"
        finally:
            server.shutdown()
