"""The API of tools: what a workshop has, and what each can do."""

import uuid
from typing import Any

from django.http import HttpRequest
from ninja import Router

from carpentry.language import CarpentryError
from carpentry.shop import MOST_TOOLS, tools_document
from server.common.schemas import ConflictOut, ErrorOut, SeenIn
from server.tools.models import OwnedTool, Toolbox
from server.tools.schemas import RemoveToolsIn, ToolboxOut, ToolIn
from server.tools.showing import show_toolbox

router = Router(tags=["tools"])
CHANGE = {200: ToolboxOut, 404: ErrorOut, 409: ConflictOut[ToolboxOut], 422: ErrorOut}


@router.get("/tools", response=ToolboxOut)
def get_tools(request: HttpRequest) -> ToolboxOut:
    """The builder's tools."""
    return show_toolbox(Toolbox.of(request.user))


@router.get("/tools/file", response=dict[str, Any])
def get_tools_file(request: HttpRequest) -> dict[str, Any]:
    """The tools as a file for the terminal."""
    return tools_document(Toolbox.of(request.user).owned)


@router.put("/tools/{uuid:tool_id}", response=CHANGE)
def write_tool(request: HttpRequest, tool_id: uuid.UUID, told: ToolIn) -> ToolboxOut:
    """Changes what is told of a tool, or adds one of a kind under this id."""
    toolbox = Toolbox.of(request.user)

    def make(toolbox: Toolbox) -> str:
        row = toolbox.tools.filter(id=tool_id).first()
        added = row is None
        if row is None:
            if toolbox.tools.count() >= MOST_TOOLS:
                raise CarpentryError(f"a workshop has {MOST_TOOLS} tools at the most")
            last = toolbox.tools.last()
            position = last.position + 1 if last else 1
            row = OwnedTool(id=tool_id, toolbox=toolbox, position=position, kind=told.kind or "")
        if told.name is not None:
            row.name = told.name.strip()
        limits = {name: text.strip() for name, text in (told.limits or {}).items()}
        row.limits = {name: text for name, text in (row.limits | limits).items() if text}
        row.full_clean()
        row.save()
        if added:
            return f"{row} added"
        said = [f"{name} {text or 'taken away'}" for name, text in limits.items()]
        return f"{row}: {', '.join(said) or 'name'}"

    toolbox.change(told.version, told.change_id, "tool", make)
    return show_toolbox(Toolbox.of(request.user))


@router.post("/tools/remove", response=CHANGE)
def remove_tools(request: HttpRequest, removal: RemoveToolsIn) -> ToolboxOut:
    """Takes tools away that are not owned any more."""
    toolbox = Toolbox.of(request.user)

    def make(toolbox: Toolbox) -> str:
        gone = list(toolbox.tools.filter(id__in=removal.tools))
        toolbox.tools.filter(id__in=[tool.id for tool in gone]).delete()
        return f"{', '.join(str(tool) for tool in gone)} taken away"

    toolbox.change(removal.version, removal.change_id, "tools taken away", make)
    return show_toolbox(Toolbox.of(request.user))


@router.post("/tools/undo", response=CHANGE)
def undo_tools(request: HttpRequest, seen: SeenIn) -> ToolboxOut:
    """Takes the newest change of the tools back."""
    Toolbox.of(request.user).undo(seen.version, seen.change_id)
    return show_toolbox(Toolbox.of(request.user))


@router.post("/tools/redo", response=CHANGE)
def redo_tools(request: HttpRequest, seen: SeenIn) -> ToolboxOut:
    """Takes the last undo back."""
    Toolbox.of(request.user).redo(seen.version, seen.change_id)
    return show_toolbox(Toolbox.of(request.user))
