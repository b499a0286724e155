"""Colours: camera transforms, grades, tables, looks, scopes."""
