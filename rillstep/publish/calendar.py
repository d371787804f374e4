"""The dates of a crochet-along as a calendar file (iCalendar, RFC 5545)."""

from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event


def part_dates(start: date, every_days: int, count: int) -> list[date]:
    """The day on which each part comes out."""
    return [start + timedelta(days=every_days * index) for index in range(count)]


def calendar_of(title: str, dates: list[date], summaries: list[str], made: datetime | None = None) -> bytes:
    """One all-day event a part."""
    calendar = Calendar()
    calendar.add("prodid", "-//Rillstep//Crochet-along//EN")
    calendar.add("version", "2.0")
    for number, (day, summary) in enumerate(zip(dates, summaries, strict=True), start=1):
        event = Event()
        event.add("uid", f"part-{number}-{day.isoformat()}-{abs(hash_of(title))}@rillstep.invalid")
        event.add("dtstamp", made or datetime.now(UTC))
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
        event.add("summary", f"{title}: part {number} of {len(dates)}")
        event.add("description", summary)
        calendar.add_component(event)
    return bytes(calendar.to_ical())


def hash_of(title: str) -> int:
    """A number that stays the same for a title from run to run, so that a calendar updates its events."""
    value = 0
    for character in title:
        value = (value * 131 + ord(character)) % 1_000_000_007
    return value
