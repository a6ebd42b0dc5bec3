"""What every answer carries and every request must have, whichever path it takes."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

Handler = Callable[[HttpRequest], HttpResponse]
LITTLE_OF_THE_MACHINE = ", ".join(
    [
        *(f"{feature}=()" for feature in ("camera", "display-capture", "geolocation", "midi", "payment", "serial", "usb")),
        "microphone=(self)",  # a plucked span of belt is listened to, when somebody asks for it
    ]
)


def doors(get_response: Handler) -> Handler:
    """Refuse a foreign Host on every path, files included; nothing of the API is kept by a browser but pictures."""

    def answer(request: HttpRequest) -> HttpResponse:
        request.get_host()  # raises what Django answers with 400
        response = get_response(request)
        response["Permissions-Policy"] = LITTLE_OF_THE_MACHINE
        if request.path.startswith("/api/pictures/"):
            response["Cache-Control"] = "private, no-cache"  # asked for again each time, sent once: its name is its digest
        elif request.path.startswith("/api/"):
            response["Cache-Control"] = "no-store"
        return response

    return answer
