"""The finished sheet looked at: what is measured on it, against the plan, and the act whose slip
explains what is off."""
