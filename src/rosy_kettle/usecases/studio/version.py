"""The version of the application, as it is told and as kept figures are marked with it."""

__all__ = ["VERSION"]

VERSION = "0.1.0"
