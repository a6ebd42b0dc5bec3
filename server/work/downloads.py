"""Files that are handed over, whole or piece by piece; what is made piece by piece is made for one at a time, and gives way."""

from collections.abc import Iterator
from contextlib import ExitStack
from io import StringIO
from time import monotonic, sleep

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase

from shop.gate import Line
from shop.roles import person_of

SENT_AT_ONCE = 64_000  # letters; every sending wakes the server in front
GIVES_WAY = 2.0  # times as long as a piece took: entries made meanwhile have the processor for most of the time
HANDING_OUT = Line("Records are being handed to others")


class _InTurn:
    """Pieces of a file, and the turn at making them: given back when all are made, or nobody wants them any more."""

    def __init__(self, pieces: Iterator[str], to: str) -> None:
        self._pieces, self._turn = pieces, ExitStack()
        self._turn.enter_context(HANDING_OUT.passed(to))

    def __iter__(self) -> Iterator[str]:
        return self

    def __next__(self) -> str:
        gathered = StringIO()
        try:
            while gathered.tell() < SENT_AT_ONCE:
                begun = monotonic()
                gathered.write(next(self._pieces))
                sleep(GIVES_WAY * (monotonic() - begun))
        except StopIteration:
            self.close()
        except BaseException:
            self.close()
            raise
        if not gathered.tell():
            raise StopIteration
        return gathered.getvalue()

    def close(self) -> None:
        """Let the next come."""
        self._turn.close()


def download(request: HttpRequest, content: bytes | Iterator[str], media_type: str, name: str) -> HttpResponseBase:
    """Return a file under its name. Raises TooBusy while others are handed theirs, where it is made piece by piece."""
    headers = {"Content-Disposition": f'inline; filename="{name}"'}
    if isinstance(content, bytes):
        return HttpResponse(content, content_type=media_type, headers=headers)
    return StreamingHttpResponse(_InTurn(content, person_of(request).username), content_type=media_type, headers=headers)
