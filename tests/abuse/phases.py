"""Single hardships: a PDF wanted by many, a thousand long texts, a database that hangs."""

import os
import signal
import threading
import time
from concurrent.futures import ThreadPoolExecutor

from rillstep.document import Design
from tests.abuse.heavy_texts import gradable_text, large_design, long_text
from tests.abuse.load import Seen
from tests.abuse.site import Site, Visitor


def pdf_at_many(site: Site, clients: int = 16, times: int = 6) -> Seen:
    """The PDF of a large design: once by a first client while another saves, then by many at once."""
    seen, email = Seen(), "pdf@observing-night.example"
    first = Visitor(site.port, "127.0.0.20")
    first.sign_up(email)
    body = {"document": large_design(1)}
    made = first("POST", "/api/designs", body).json
    stop = threading.Event()

    def save() -> None:
        saver, base, turn = Visitor(site.port, "127.0.0.20"), made["revision"], 0
        saver.cookies, saver.csrf = dict(first.cookies), first.csrf
        while not stop.wait(0.1):
            turn += 1
            document = {**body["document"], "hook_mm": 2 + turn / 100}
            answer = saver("PUT", f"/api/designs/{made['id']}", {"base": base, "document": document})
            seen.note("save beside the first PDF", answer.status, answer.seconds)
            base = answer.json.get("revision", base)
        saver.close()

    def ask(number: int) -> None:
        one = Visitor(site.port, f"127.0.0.{30 + number}")
        one.cookies, one.csrf = dict(first.cookies), first.csrf
        for _ in range(times):
            answer = one("POST", "/api/export/pdf", body)
            seen.note("PDF, warm", answer.status, answer.seconds)
        one.close()

    with ThreadPoolExecutor(clients) as threads:
        saving = threads.submit(save)
        answer = first("POST", "/api/export/pdf", body)
        seen.note("PDF, the first", answer.status, answer.seconds)
        stop.set()
        saving.result()
        list(threads.map(ask, range(clients)))
    first.close()
    return seen


def long_texts(site: Site, many: int = 1000) -> Seen:
    """So many long texts, each another: checked, worked and graded by four accounts."""
    seen = Seen()
    kinds = (
        ("/api/check", lambda n: {"text": long_text(n, 120 + n % 200)}),
        ("/api/work", lambda n: {"document": large_design(n)}),
        ("/api/check", lambda n: {"text": long_text(n, 60 + n % 100)}),
        ("/api/grading", lambda n: {"document": Design(text=gradable_text(n)).model_dump(mode="json")}),
    )

    def account(number: int) -> None:
        visitor = Visitor(site.port, f"127.0.0.{50 + number}")
        visitor.sign_up(f"long-{number}@observing-night.example")
        for turn in range(many // 4):
            path, body = kinds[(turn + number) % len(kinds)]
            answer = visitor("POST", path, body(4 * turn + number))
            seen.note(f"long {path}", answer.status, answer.seconds)
            if turn % 5 == 0:
                for _, kind, size in site.processes():
                    seen.most_memory[kind] = max(seen.most_memory.get(kind, 0), size)
        visitor.close()

    with ThreadPoolExecutor(4) as threads:
        list(threads.map(account, range(4)))
    return seen


def hung_database(site: Site, seconds: float = 12.0) -> Seen:
    """The database stops answering for so long: what is asked for meanwhile, and after it."""
    seen = Seen()
    visitor, page = Visitor(site.port, "127.0.0.60"), Visitor(site.port, "127.0.0.61")
    visitor.sign_up(f"hung-{time.time_ns()}@observing-night.example")
    assert site.own.process is not None
    pid = site.own.process.pid
    os.kill(pid, signal.SIGSTOP)
    try:
        until = time.monotonic() + seconds
        with ThreadPoolExecutor(8) as threads:

            def ask(number: int) -> None:
                one = Visitor(site.port, "127.0.0.60")
                one.cookies, one.csrf = dict(visitor.cookies), visitor.csrf
                while time.monotonic() < until:
                    answer = one("GET", "/api/health" if number % 2 else "/api/designs")
                    seen.note("database hangs", answer.status, answer.seconds)
                    time.sleep(0.2)
                one.close()

            asking = [threads.submit(ask, number) for number in range(8)]
            while time.monotonic() < until:
                answer = page("GET", "/favicon.svg")
                seen.note("page while it hangs", answer.status, answer.seconds)
                time.sleep(0.2)
            for one in asking:
                one.result()
    finally:
        os.kill(pid, signal.SIGCONT)
    time.sleep(3)
    for _ in range(10):
        answer = visitor("GET", "/api/designs")
        seen.note("after it", answer.status, answer.seconds)
    visitor.close()
    page.close()
    return seen
