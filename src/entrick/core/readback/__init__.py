"""A bare profile read back into a plan: what somebody would have written who knew how it was laid
out."""

from .others import WAYS, others
from .profile import Profile, ProfileError, as_drawn, box_of, closed_outlines
from .read import read_profile
from .write import ReadBack, Ways, read_back

__all__ = [
    "WAYS",
    "Profile",
    "ProfileError",
    "ReadBack",
    "Ways",
    "as_drawn",
    "box_of",
    "closed_outlines",
    "others",
    "read_back",
    "read_profile",
]
