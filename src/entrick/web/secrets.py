"""PINs and passphrases: kept as a hash (Argon2id, RFC 9106) that tells nobody what they are."""

from __future__ import annotations

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError

from .answer import Refused

FIGURES = 6
"""Of a PIN."""

SHORTEST = 10
"""Signs of a passphrase."""

_HASHER = PasswordHasher()


def hashed(secret: str) -> str:
    """Return the hash of a PIN of six figures or of a passphrase.

    Raises
    ------
    Refused
        Where it is neither.
    """
    is_pin = len(secret) == FIGURES and secret.isdecimal()
    if not is_pin and len(secret.strip()) < SHORTEST:
        message = f"a PIN has {FIGURES} figures, a passphrase at least {SHORTEST} signs"
        raise Refused(409, "Too short", message, {"secret": message})
    return _HASHER.hash(secret)


def is_right(kept: str, said: str) -> bool:
    """Tell whether what is said is what was hashed."""
    try:
        return _HASHER.verify(kept, said)
    except (VerifyMismatchError, InvalidHashError):
        return False
