"""One account and one stranger do their worst, while others work; what each was answered, and after how long."""

import os
import random
import secrets
import socket
import ssl
import threading
import time
from collections import Counter
from collections.abc import Callable, Sequence
from concurrent.futures import FIRST_EXCEPTION, ProcessPoolExecutor, ThreadPoolExecutor, wait
from dataclasses import dataclass, field
from multiprocessing import get_context
from typing import Any

from rillstep.document import Design
from tests.abuse.heavy_texts import gradable_text, large_design, long_text
from tests.abuse.site import Site, Visitor

STRANGER, ABUSER = "127.0.0.66", "127.0.0.67"
# Each is a path, and what makes its body from a number.
HEAVY: tuple[tuple[str, Callable[[int], dict[str, Any]]], ...] = (
    ("/api/work", lambda n: {"document": large_design(n)}),
    ("/api/check", lambda n: {"text": long_text(n)}),
    ("/api/booklet", lambda n: {"document": large_design(n)}),
    ("/api/grading", lambda n: {"document": Design(text=gradable_text(n)).model_dump(mode="json")}),
    ("/api/export/pdf", lambda n: {"document": large_design(n, 10, 600.0)}),
    ("/api/parts", lambda n: {"document": large_design(n)}),
    ("/api/designs/from-text", lambda n: {"text": long_text(n, 300)}),
)


@dataclass
class Seen:
    """Answers by what was asked for."""

    seconds: dict[str, list[float]] = field(default_factory=dict)
    statuses: dict[str, Counter[int]] = field(default_factory=dict)
    most_memory: dict[str, int] = field(default_factory=dict)

    def note(self, what: str, status: int, seconds: float) -> None:
        self.seconds.setdefault(what, []).append(seconds)
        self.statuses.setdefault(what, Counter())[status] += 1

    def p95_ms(self, what: str) -> float:
        """The 95th percentile of its times."""
        times = sorted(self.seconds.get(what, []))
        return 1000 * times[int(0.95 * (len(times) - 1))] if times else 0.0


def _account(seen: Seen, port: int, cookies: dict[str, str], csrf: str, stop: threading.Event, seed: int) -> None:
    """One of many tabs of one account that asks for all that is heavy, without a pause."""
    chosen = random.Random(seed)
    visitor = Visitor(port, ABUSER)
    visitor.cookies, visitor.csrf = dict(cookies), csrf
    while not stop.is_set():
        path, body = chosen.choice(HEAVY)
        try:
            answer = visitor("POST", path, body(chosen.randrange(100_000)))
            seen.note(f"account {path}", answer.status, answer.seconds)
        except OSError:
            seen.note(f"account {path}", 0, 0.0)
    visitor.close()


def _stranger(seen: Seen, port: int, stop: threading.Event, seed: int) -> None:
    """Somebody without an account: sign-ins, bodies that are large or deep, and routes that are not hers."""
    chosen = random.Random(seed)
    visitor = Visitor(port, STRANGER)
    bodies = (
        ("/api/sign-in", b'{"email":"%d@x.example","password":"wrong wrong"}' % chosen.randrange(10**6)),
        ("/api/sign-up", b"[" * 500_000),
        ("/api/check", b'{"text":"' + b"x" * 2_900_000 + b'"}'),
        ("/api/sign-in", b'{"email":' + b"9" * 200_000 + b"}"),
        ("/api/t/" + "a" * 3000, b"{}"),
    )
    while not stop.is_set():
        path, raw = chosen.choice(bodies)
        try:
            visitor.csrf = visitor("GET", "/api/me").json["csrf"]
            answer = visitor("POST", path, raw=raw)
            seen.note("stranger", answer.status, answer.seconds)
        except (OSError, ValueError, KeyError):
            seen.note("stranger", 0, 0.0)
            stop.wait(0.05)
    visitor.close()


def _half_open(port: int, stop: threading.Event) -> None:
    """Sockets that send half a header, a byte at a time, and never end it."""
    held: list[ssl.SSLSocket | socket.socket] = []
    while not stop.is_set():
        while len(held) < 60:
            try:
                one = socket.create_connection(("127.0.0.1", port), 5, source_address=(STRANGER, 0))
                if len(held) % 2:
                    one = ssl._create_unverified_context().wrap_socket(one)
                    one.sendall(b"GET / HTTP/1.1\r\nHost: lo")
            except OSError:
                break
            held.append(one)
        for one in list(held):
            try:
                one.sendall(b"c")
            except OSError:
                held.remove(one)
        stop.wait(1)
    for one in held:
        one.close()


def _designer(seen: Seen, port: int, number: int, stop: threading.Event) -> None:
    """A designer at work: she saves, types, and now and then signs in again."""
    address, email = f"127.0.0.{7 + number}", f"other-{number}-{secrets.token_hex(4)}@observing-night.example"
    visitor = Visitor(port, address)
    visitor.sign_up(email)
    document = large_design(number, 2, 300.0)
    made = visitor("POST", "/api/designs", {"document": document}).json
    base, turn, signed_in = made["revision"], 0, time.monotonic() - 2.7 * number  # not all at the same moment
    while not stop.is_set():
        turn += 1
        answer = visitor("GET", "/api/health")
        seen.note("health", answer.status, answer.seconds)
        document["hook_mm"] = round(2 + turn % 100 / 20, 2)
        answer = visitor("PUT", f"/api/designs/{made['id']}", {"base": base, "document": document})
        seen.note("save", answer.status, answer.seconds)
        base = answer.json.get("revision", base)
        answer = visitor("POST", "/api/work", {"document": document})
        seen.note("work of a designer", answer.status, answer.seconds)
        if time.monotonic() - signed_in > 8:
            signed_in = time.monotonic()
            visitor.cookies.clear()
            answer = visitor.sign_in(email)
            seen.note("sign-in", answer.status, answer.seconds)
        stop.wait(0.3)
    visitor.close()


def _memory(seen: Seen, site: Site, stop: threading.Event) -> None:
    while not stop.wait(0.5):
        for _, kind, size in site.processes():
            seen.most_memory[kind] = max(seen.most_memory.get(kind, 0), size)


def attack(port: int, cookies: dict[str, str], csrf: str, seconds: float, tabs: int) -> Seen:
    """What an account with so many tabs and a stranger were answered. They are elsewhere in the world, so their
    process takes only what is left of this machine."""
    os.nice(15)
    seen, stop = Seen(), threading.Event()
    _all_at_once(stop, seconds, [
        *((_account, (seen, port, cookies, csrf, stop, seed)) for seed in range(tabs)),
        *((_stranger, (seen, port, stop, seed)) for seed in range(6)),
        (_half_open, (port, stop)),
    ])  # fmt: skip
    return seen


def worst(site: Site, seconds: float, tabs: int = 16) -> Seen:
    """What happened to three designers while an account and a stranger did their worst for so long, and to those."""
    seen, stop = Seen(), threading.Event()
    abuser = Visitor(site.port, ABUSER)
    abuser.sign_up(f"abuser-{secrets.token_hex(4)}@observing-night.example")
    abuser.close()
    with ProcessPoolExecutor(1, get_context("spawn")) as elsewhere:
        attacking = elsewhere.submit(attack, site.port, abuser.cookies, abuser.csrf, seconds, tabs)
        _all_at_once(stop, seconds, [
            *((_designer, (seen, site.port, number, stop)) for number in range(3)),
            (_memory, (seen, site, stop)),
        ])  # fmt: skip
        of_them = attacking.result(180)
    seen.seconds |= of_them.seconds
    seen.statuses |= of_them.statuses
    return seen


def _all_at_once(
    stop: threading.Event, seconds: float, work: Sequence[tuple[Callable[..., None], tuple[Any, ...]]]
) -> None:
    """Does all of it for so long, each in its thread; what one raises is raised."""
    with ThreadPoolExecutor(len(work)) as threads:
        running = [threads.submit(what, *args) for what, args in work]
        wait(running, seconds, FIRST_EXCEPTION)
        stop.set()
    for one in running:
        one.result()
