"""An office of several people: what each may see and do, and who signed what."""

from .may import DEEDS, EVERYBODY, NOBODY, ROLES, Reach, Role, deeds_of, may
from .signing import NotToBeSigned, SignedAs, Standing, check_signing, next_signature

__all__ = [
    "DEEDS",
    "EVERYBODY",
    "NOBODY",
    "ROLES",
    "NotToBeSigned",
    "Reach",
    "Role",
    "SignedAs",
    "Standing",
    "check_signing",
    "deeds_of",
    "may",
    "next_signature",
]
