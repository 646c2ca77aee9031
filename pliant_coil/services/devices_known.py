"""What a browser keeps of who has signed in from it: a name of its own, signed by the server together with each of their names.

Nothing of it is kept on the server. It lets nobody in; it only tells browsers in which somebody has signed in before from those
in which they haven't, so that whoever tries their name elsewhere doesn't keep them out.
"""

import hmac
import secrets

MOST_NAMES = 8
"""Of one browser: a shared tablet at a bench."""
_LONGEST = 1000


def with_name(key: bytes, known: str | None, name_key: str) -> str:
    """What the browser keeps from now on: its name, and a signature for each of the last who have signed in from it."""
    device, signatures = _parts(known)
    device = device or secrets.token_hex(12)
    mine = _signature(key, device, name_key)
    others = [signature for signature in signatures if signature != mine]
    return ".".join([device, mine, *others[: MOST_NAMES - 1]])


def known_device(key: bytes, known: str | None, name_key: str) -> str:
    """The browser's own name where somebody of this name has signed in from it; else empty."""
    device, signatures = _parts(known)
    mine = _signature(key, device, name_key)
    return device if any(hmac.compare_digest(mine, signature) for signature in signatures) else ""


def _parts(known: str | None) -> tuple[str, list[str]]:
    if not known or len(known) > _LONGEST or not known.isascii():
        return "", []
    device, *signatures = known.split(".")
    return device, signatures


def _signature(key: bytes, device: str, name_key: str) -> str:
    return hmac.digest(key, f"{device}\n{name_key}".encode(), "sha256").hex()
