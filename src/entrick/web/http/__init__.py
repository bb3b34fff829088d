"""The desk over HTTP: who may use it, its pages, how it answers what goes wrong, and how it is
served."""
