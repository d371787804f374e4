"""Long work of the asker's studio: how far it is, and stopping it."""

from typing import Annotated, Any

from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from rillstep.services import jobs
from rillstep.web.problems import answers
from rillstep.web.session import SIGNED_IN, studio_id, unit_of_work

api = APIBlueprint("jobs", __name__, url_prefix="/api/jobs", abp_responses=answers(401, 403), abp_security=SIGNED_IN)


class JobPath(BaseModel):
    """name: as it was given in X-Job with the request that began the work."""

    name: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")]


@api.get("/<name>", responses={200: jobs.JobView})
def state(path: JobPath) -> Any:
    """How far long work is; not under way where it is done, or was never begun."""
    with unit_of_work() as work:
        return jobs.state(work, studio_id(), path.name).model_dump(mode="json")


@api.delete("/<name>", responses={204: None, **answers(404)})
def stop(path: JobPath) -> Any:
    """Stop long work; its request is answered with a problem, and nothing is changed."""
    with unit_of_work() as work:
        jobs.stop(work, studio_id(), path.name)
    return "", 204
