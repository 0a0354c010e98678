"""A block as it comes out: lengths, tips and crossings from the errors of every unit and every seam.

Source: docs/theory.md, section 14.
"""
