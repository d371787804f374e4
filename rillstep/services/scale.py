"""The kitchen scale beside the designer: a stream of readings, one a line, over a local socket.

A line is "ST  +23.4 g" (stable) or "US  +23.1 g" (still moving); "LO" says that its battery is flat. A real scale
behind a serial port can stand in its place with any program that passes its lines on.
"""

import re
import socket
import time

# So long the scale is listened to, and so long it may say nothing, in seconds.
LISTENED_S, SILENT_S = 4.0, 1.5
# So many readings in a row that say the same, within so many grams, are a weight.
ALIKE, WITHIN_G = 3, 0.3
# Less than this is what a scale shows with nothing on it.
LEAST_G = 0.5
_READING = re.compile(rb"^(ST|US)\s+([+-]?\d+(?:\.\d+)?)\s*g\s*$")


class NoReading(Exception):
    """No weight; says why, and what to do."""


def read_scale(address: str) -> float:
    """What lies on the scale at "host:port", in g. Raises NoReading."""
    host, _, port = address.rpartition(":")
    try:
        connection = socket.create_connection((host, int(port)), timeout=SILENT_S)
    except (OSError, ValueError):
        raise NoReading(
            "The scale is not there: switch it on, and see that it is connected. Or type the weight."
        ) from None
    with connection:
        return _steady(connection)


def _steady(connection: socket.socket) -> float:
    """The mean of the first readings that stay the same, to the tenth."""
    ends = time.monotonic() + LISTENED_S
    said, last = b"", list[float]()
    while time.monotonic() < ends:
        try:
            more = connection.recv(1024)
        except OSError:
            more = b""
        if not more:
            raise NoReading("The scale has stopped talking: switch it off and on and weigh again, or type the weight.")
        *lines, said = (said + more).split(b"\n")
        for line in lines:
            if line.strip() == b"LO":
                raise NoReading("The battery of the scale is flat. Change it, or type the weight.")
            match = _READING.match(line.strip())
            if match is None:
                continue
            last = [*last, float(match[2])][-ALIKE:] if match[1] == b"ST" else []
            if len(last) == ALIKE and max(last) - min(last) <= WITHIN_G:
                grams = round(sum(last) / ALIKE, 1)
                if grams < LEAST_G:
                    raise NoReading("There is nothing on the scale, or it was tared with the work on it.")
                return grams
    raise NoReading("The scale does not come to rest: put it on something firm, and let go of the work.")
