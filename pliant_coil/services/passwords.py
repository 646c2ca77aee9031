"""Passwords and tokens: what is kept of them never gives them away."""

import hashlib
import re
import secrets
import unicodedata
from functools import cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from pliant_coil.core.words.refusal import refuse

SHORTEST, LONGEST, LONGEST_NAME = 12, 128, 60
_SAFE = 3
"""zxcvbn's score from which on a password isn't guessed by who has its slow hash (its own table)."""
_argon2 = PasswordHasher()


@cache
def _nobody() -> str:
    """A hash that no password has: made when it is first needed, for it takes its time."""
    return _argon2.hash(secrets.token_hex(16))


def name_key(name: str) -> str:
    """A name as it is looked for: `  Ann  Lee` and `ann lee` are one person."""
    return " ".join(unicodedata.normalize("NFKC", name).casefold().split())


def check_name(name: str) -> str:
    """The name as it is kept. Raises `Refusal` for none, or for one that nobody could read."""
    plain = " ".join(unicodedata.normalize("NFC", name).split())
    if not plain or len(plain) > LONGEST_NAME or any(unicodedata.category(c) in ("Cc", "Cf", "Co", "Cs") for c in plain):
        refuse("name", "this can't be a name", f"1 to {LONGEST_NAME} letters, as others call you")
    return plain


def check_password(password: str, *known: str) -> str:
    """The password's hash. Raises `Refusal` for one that is short or that would soon be guessed, by who knows these words too."""
    # Its lists of words take longer to load than a server to start.
    from zxcvbn import zxcvbn

    if not SHORTEST <= len(password) <= LONGEST:
        refuse("password", f"{len(password)} characters won't do", f"{SHORTEST} to {LONGEST} characters, a few words for instance")
    words = [re.escape(word) for text in known for word in re.split(r"\W+", text) if len(word) > 2]
    beside = re.sub("|".join(words), "", password, flags=re.IGNORECASE) if words else password
    # What it measures beyond 72 characters it measures no better, and takes long.
    if len(beside) < SHORTEST / 2 or zxcvbn(password[:72])["score"] < _SAFE:
        refuse("password", "this one would soon be guessed", "four words that have nothing to do with each other, for instance")
    return _argon2.hash(password)


def matches(password: str, password_hash: str | None) -> bool:
    """Whether it is the password; for nobody's hash it takes as long to say no."""
    try:
        return _argon2.verify(password_hash or _nobody(), password[: LONGEST + 1]) and password_hash is not None
    except (VerificationError, InvalidHashError):
        return False


def new_token() -> str:
    """A token that can't be guessed: 32 random bytes."""
    return secrets.token_urlsafe(32)


def hashed(token: str) -> bytes:
    """What is kept of a token. It is random already: a plain hash can't be turned round."""
    return hashlib.sha256(token.encode()).digest()
