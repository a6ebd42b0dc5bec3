"""What is handed over with an engine: paper (``paper``), a table (``table``) and the open record (``open_record``)."""

__all__ = ["as_csv", "as_json", "as_pdf"]

from work.record.open_record import as_json
from work.record.paper import as_pdf
from work.record.table import as_csv
