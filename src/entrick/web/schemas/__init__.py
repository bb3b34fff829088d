"""What crosses the API, a file for each subject."""
