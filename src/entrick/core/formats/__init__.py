"""Open formats out of the display list and the steps. What is imported is the plan itself."""

from .csv import settings_csv
from .dxf import write_dxf
from .json import solution_data
from .pdf import write_pdf
from .svg import write_svg

__all__ = ["settings_csv", "solution_data", "write_dxf", "write_pdf", "write_svg"]
