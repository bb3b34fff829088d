"""The acts of a plan carried out: exactly, to see that they end in its figure; by many hands, to
see how well."""
