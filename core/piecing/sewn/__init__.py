"""A block as it comes out: lengths, tips and crossings from the errors of every unit and every seam; what went wrong; what to do.

Its modules are imported by name. Source: docs/theory.md, section 14.
"""

__all__: list[str] = []
