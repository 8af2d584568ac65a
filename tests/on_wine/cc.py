"""A C compiler, as programs in wine call one: zig, which no wine of today can run, works beside it.

`scripts/windows.py` listens at the port in FENDRA_ZIG; it compiles, and answers with zig's exit code
and words.
"""

import json
import os
import socket
import sys

with socket.create_connection(("127.0.0.1", int(os.environ["FENDRA_ZIG"]))) as there:
    asked = {"words": sys.argv[1:], "source": sys.stdin.read() if "-" in sys.argv else ""}
    there.sendall(json.dumps(asked).encode())
    there.shutdown(socket.SHUT_WR)
    answer = json.loads(b"".join(iter(lambda: there.recv(65_536), b"")))
sys.stderr.write(answer["said"])
sys.exit(answer["code"])
