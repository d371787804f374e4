"""Where each stitch of some traced rows is drawn: positions only, in widths of a stitch; ink comes later."""

from rillstep.core.chart.choose import rows_for, trace_of
from rillstep.core.chart.layout import MOST_OVALS, Chart, Drawn, Mark, Point, chart_of, positions, spread, width_of
from rillstep.core.chart.symbols import SYMBOLS, UNDER, symbol_of
from rillstep.core.craft.chart_symbol import Symbol

__all__ = [
    "MOST_OVALS", "SYMBOLS", "UNDER", "Chart", "Drawn", "Mark", "Point", "Symbol",
    "chart_of", "positions", "rows_for", "spread", "symbol_of", "trace_of", "width_of",
]  # fmt: skip
