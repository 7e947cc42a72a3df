"""The API's contract for tools."""

from uuid import UUID

from pydantic import BaseModel

from server.common.schemas import SeenIn


class LimitOut(BaseModel):
    """What can be said of a kind of tool: its ``kind`` is length, angle, flag, choice or words."""

    name: str
    heading: str
    kind: str
    help: str
    choices: list[str]


class ToolKindOut(BaseModel):
    kind: str
    limits: list[LimitOut]


class OwnedToolOut(BaseModel):
    """A tool: its limits as typed, by name."""

    id: UUID
    kind: str
    name: str
    limits: dict[str, str]


class ToolboxOut(BaseModel):
    """All tools; ``can`` says what plans may ask of them together."""

    version: int
    tools: list[OwnedToolOut]
    kinds: list[ToolKindOut]
    can: list[str]
    undo: str | None
    redo: str | None
    change: str


class ToolIn(SeenIn):
    """What changes of a tool, or what a new one is: ``limits`` are taken over those there are."""

    kind: str | None = None
    name: str | None = None
    limits: dict[str, str] | None = None


class RemoveToolsIn(SeenIn):
    tools: list[UUID]
