"""A report as a PDF, from the server's side: the first after a start (which loads the printing
library), those after it, one for each visit of the demo, and the same ones asked for again. Goal
2 s."""

import os
import statistics
import time

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from documents.models import Printed
from documents.printing import report_pdf
from visits.models import Visit


def printed(visit: Visit) -> float:
    """Seconds for one report."""
    begin = time.perf_counter()
    report_pdf(visit, "us")
    return time.perf_counter() - begin


def main() -> None:
    """Prints the first and the others."""
    visits = list(Visit.objects.select_related("system__site", "opened_by"))
    Printed.objects.all().delete()
    first, *others = (printed(visit) for visit in visits)
    again = statistics.median(printed(visit) for visit in visits)
    print(
        f"first report {first:.2f} s, then {statistics.median(others):.2f} s, at most"
        f" {max(others):.2f} s (goal 2 s); asked for again {again * 1e3:.0f} ms"
    )


if __name__ == "__main__":
    main()
