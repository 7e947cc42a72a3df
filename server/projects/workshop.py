"""What a workshop holds, counted: the words beneath its places."""

from django.http import HttpRequest
from ninja import Router
from pydantic import BaseModel

from server.projects.models import Project
from server.rack.models import RackBoard
from server.stocks.models import OwnMaterial
from server.tools.models import Toolbox
from server.yards.models import Yard

router = Router(tags=["workshop"])


class WorkshopOut(BaseModel):
    """How many projects, yards, boards on the rack, materials and tools of one's own there are."""

    projects: int
    yards: int
    boards: int
    materials: int
    tools: int


@router.get("/workshop", response=WorkshopOut)
def get_workshop(request: HttpRequest) -> WorkshopOut:
    """The counts of the signed-in builder's workshop."""
    own = OwnMaterial.objects.filter(materials__owner=request.user, put_away=False)
    return WorkshopOut(
        projects=Project.objects.of(request.user).count(),
        yards=Yard.objects.of(request.user).count(),
        boards=RackBoard.objects.filter(rack__owner=request.user).count(),
        materials=own.count(),
        tools=len(Toolbox.of(request.user).rows()),
    )
