"""Pictures of finished sheets: read, evenly lit, and straightened to millimetres by their border.

OpenCV does what has to do with pixels; what is on the sheet is looked at in the core, which is
given plain arrays."""
