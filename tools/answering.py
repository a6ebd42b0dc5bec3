"""The server of a shop: ends with whoever started it, however that one ended. Run by ``tools.serving`` with a pipe as its input."""

import os
import signal
import sys
import threading
import time
from pathlib import Path

from waitress import runner

from tools.locks import held

GRACE_S = 10.0  # for what is being answered


def _end_with_starter() -> None:
    """Wait until the other end of the pipe is gone, then stop: what is being answered is finished first."""
    sys.stdin.buffer.read()
    main_thread = threading.main_thread().ident
    assert main_thread is not None
    signal.pthread_kill(main_thread, signal.SIGINT)
    time.sleep(GRACE_S)
    os._exit(1)


def main() -> None:
    """Answer until told to stop."""
    signal.signal(signal.SIGINT, signal.default_int_handler)  # a shell that starts it behind itself has it ignored
    threading.Thread(target=_end_with_starter, daemon=True).start()
    with held(Path(os.environ["GURVO_DB"]), "a restore is at work; start again when it is done.", shared=True):
        runner.run(["waitress", *sys.argv[1:]])


if __name__ == "__main__":
    main()
