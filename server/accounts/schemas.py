"""The API's contract for accounts."""

from ninja import Schema
from pydantic import BaseModel


class SessionOut(BaseModel):
    """Who is signed in (nobody: empty), and whether the demo workshop can be entered."""

    username: str
    is_demo: bool
    demo_available: bool


class CredentialsIn(Schema):
    username: str
    password: str


class PasswordIn(Schema):
    old: str
    new: str


class ConfirmIn(Schema):
    password: str
