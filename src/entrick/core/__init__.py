"""The rules of the job: pure Python, no web, no database, no clock, no files."""
