"""Open formats out of the display list and the steps. What is imported is the plan itself."""

from .data import solution_data
from .dxf import Ovals, write_cutter_dxf, write_dxf
from .pdf import write_pdf
from .rehearsed import carried_data, rehearsal_data
from .rows import settings_csv
from .run_sheet import write_run_sheet
from .svg import outline_paths, thumbnail_svg, write_svg

__all__ = [
    "Ovals",
    "carried_data",
    "outline_paths",
    "rehearsal_data",
    "settings_csv",
    "solution_data",
    "thumbnail_svg",
    "write_cutter_dxf",
    "write_dxf",
    "write_pdf",
    "write_run_sheet",
    "write_svg",
]
