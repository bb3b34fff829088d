"""A bare profile read back into a plan: what somebody would have written who knew how it was laid out."""

from .profile import Profile, ProfileError, read_profile
from .write import ReadBack, read_back

__all__ = ["Profile", "ProfileError", "ReadBack", "read_back", "read_profile"]
