"""From the core's results to what crosses the API, a file for each subject."""
