"""The HTTP side: an application factory, one blueprint per resource, problem+json errors, the built
front end."""
