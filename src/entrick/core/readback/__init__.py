"""A bare profile read back into a plan: what somebody would have written who knew how it was laid out."""

from .profile import Profile, ProfileError
from .read import read_profile
from .write import ReadBack, Ways, read_back

__all__ = ["Profile", "ProfileError", "ReadBack", "Ways", "read_back", "read_profile"]
