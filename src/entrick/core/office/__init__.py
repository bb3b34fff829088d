"""An office of several people: what each may see and do, and who signed what."""

from .may import DEEDS, EVERYBODY, NOBODY, Reach, Role, may
from .signing import NotToBeSigned, SignedAs, Standing, check_signing

__all__ = [
    "DEEDS",
    "EVERYBODY",
    "NOBODY",
    "NotToBeSigned",
    "Reach",
    "Role",
    "SignedAs",
    "Standing",
    "check_signing",
    "may",
]
