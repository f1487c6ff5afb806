"""The HTTP API and the server: requests in, use cases out."""

from rosy_kettle.api.app import create_app, put_studio

__all__ = ["create_app", "put_studio"]
