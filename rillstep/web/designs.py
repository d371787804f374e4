"""Designs of the asker's studio."""

from typing import Annotated, Any

from flask import Response, request
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from rillstep.document import AnyDesign, Changes, Design, load
from rillstep.document.ready import READY_BAGS, ready_design
from rillstep.services import checking, design_views, designs, drawing_views, phrases, views, workbench
from rillstep.services.errors import NotFound
from rillstep.web.computing import computed, kept_for
from rillstep.web.limits import limited_by_account
from rillstep.web.problems import answers, file_of
from rillstep.web.session import SIGNED_IN, studio_id, unit_of_work
from rillstep.web.work import TextBody

api = APIBlueprint(
    "designs", __name__, url_prefix="/api/designs", abp_responses=answers(401, 403, 404, 409), abp_security=SIGNED_IN
)


# So many designs are made by a studio.
CREATED = "120 per hour; 30 per minute"


class DesignPath(BaseModel):
    design_id: int


class ReadyPath(BaseModel):
    key: Annotated[str, Field(max_length=40)]


class DeletedPath(BaseModel):
    deleted_id: int


class RevisionPath(DesignPath):
    number: int


class NewDesign(BaseModel):
    document: AnyDesign


class SaveDesign(BaseModel):
    """`base` is the revision that the editing began at."""

    base: int
    document: AnyDesign


class ChangeDesign(BaseModel):
    """What was changed since revision `base`."""

    base: int
    changes: Changes


class Restore(BaseModel):
    base: int


class PageQuery(BaseModel):
    """Pages are counted from 1."""

    page: Annotated[int, Field(ge=1, le=10_000)] = 1


class DesignsQuery(PageQuery):
    """search: what the names of the designs hold."""

    search: Annotated[str, Field(max_length=80)] = ""


class ForgetQuery(BaseModel):
    """before: the number of the oldest revision that stays."""

    before: Annotated[int, Field(ge=1, le=2_000_000_000)]


@api.get("", responses={200: design_views.DesignsView})
def list_designs(query: DesignsQuery) -> Any:
    """A page of the studio's designs, the last saved first."""
    with unit_of_work() as work:
        return designs.list_designs(work, studio_id(), query.page, query.search).model_dump(mode="json")


@api.post("", responses={200: design_views.DesignView})
@limited_by_account(CREATED)
def create(body: NewDesign) -> Any:
    """Keep a new design."""
    with unit_of_work() as work:
        return designs.create(work, studio_id(), body.document).model_dump(mode="json")


@api.post("/from-text", responses={200: design_views.DesignView})
@limited_by_account(CREATED)
def create_from_text(body: TextBody) -> Any:
    """Keep a checked text as a design."""
    design = Design.model_validate_json(computed(checking.design_of, body.whole()))
    with unit_of_work() as work:
        return designs.create(work, studio_id(), design, "From a pattern text").model_dump(mode="json")


@api.post("/import", responses={200: design_views.DesignView})
@limited_by_account(CREATED)
def read_file() -> Any:
    """Read a design file (the request's body) as a new design."""
    studio = studio_id()
    document = load(request.get_data())
    with unit_of_work() as work:
        return designs.create(work, studio, document, "Read from a file").model_dump(mode="json")


@api.get("/ready", responses={200: design_views.ReadyView})
def list_ready() -> Any:
    """The ready bags that a design can begin with."""
    bags = [design_views.ReadyItem(key=bag.key, title=bag.title, build=bag.build) for bag in READY_BAGS]
    return design_views.ReadyView(bags=bags).model_dump(mode="json")


@api.get("/ready/<key>/picture.svg", responses={200: file_of("image/svg+xml", "A ready bag as it lies, small.")})
def ready_picture(path: ReadyPath) -> Any:
    """A small picture of a ready bag."""
    studio = studio_id()
    design = ready_design(path.key)
    if design is None:
        raise NotFound("There is no such ready bag.")
    made = kept_for(studio, drawing_views.small_picture, design)
    return Response(made, mimetype="image/svg+xml", headers={"Cache-Control": "private, max-age=3600"})


@api.post("/ready/<key>", responses={200: design_views.DesignView})
@limited_by_account(CREATED)
def create_ready(path: ReadyPath) -> Any:
    """Keep a new design that begins with a ready bag."""
    design = ready_design(path.key)
    if design is None:
        raise NotFound("There is no such ready bag.")
    with unit_of_work() as work:
        return designs.create(work, studio_id(), design, "From a ready bag").model_dump(mode="json")


@api.get("/deleted", responses={200: design_views.DeletedView})
def list_deleted() -> Any:
    """The deleted designs that can be brought back."""
    with unit_of_work() as work:
        return designs.deleted_designs(work, studio_id()).model_dump(mode="json")


@api.post("/deleted/<int:deleted_id>/bring-back", responses={204: None})
def bring_back(path: DeletedPath) -> Any:
    """Bring a deleted design back, as it was."""
    with unit_of_work() as work:
        designs.bring_back(work, studio_id(), path.deleted_id)
    return "", 204


@api.delete("/deleted/<int:deleted_id>", responses={204: None})
def remove_for_good(path: DeletedPath) -> Any:
    """Forget a deleted design with its revisions and tests."""
    with unit_of_work() as work:
        designs.remove_for_good(work, studio_id(), path.deleted_id)
    return "", 204


@api.get("/<int:design_id>", responses={200: design_views.DesignView})
def read(path: DesignPath) -> Any:
    """A design as last saved."""
    with unit_of_work() as work:
        return designs.read(work, studio_id(), path.design_id).model_dump(mode="json")


@api.get("/<int:design_id>/picture.svg", responses={200: file_of("image/svg+xml", "The bag as it lies, small.")})
def picture(path: DesignPath) -> Any:
    """A small picture of a design as last saved; an empty one where it is not known how the bag lies."""
    with unit_of_work() as work:
        document = designs.read(work, studio_id(), path.design_id).document
    made = kept_for(studio_id(), drawing_views.small_picture, document)
    return Response(made, mimetype="image/svg+xml", headers={"Cache-Control": "private, max-age=60"})


@api.put("/<int:design_id>", responses={200: design_views.SavedView})
def save(path: DesignPath, body: SaveDesign) -> Any:
    """Save as a new revision; 409 when another save came first."""
    with unit_of_work() as work:
        saved = designs.save(work, studio_id(), path.design_id, body.base, body.document)
    return saved.model_dump(mode="json")


@api.patch("/<int:design_id>", responses={200: design_views.SavedView})
def save_changes(path: DesignPath, body: ChangeDesign) -> Any:
    """Save what was changed as a new revision; 409 when another save came first."""
    with unit_of_work() as work:
        document = designs.changed(work, studio_id(), path.design_id, body.base, body.changes)
        saved = designs.save(work, studio_id(), path.design_id, body.base, document)
    return saved.model_dump(mode="json")


@api.post("/<int:design_id>/work", responses={200: views.WorkView})
def work_changes(path: DesignPath, body: ChangeDesign) -> Any:
    """Prove and measure a design with what was changed and is not saved yet."""
    with unit_of_work() as work:
        document = designs.changed(work, studio_id(), path.design_id, body.base, body.changes)
        known = phrases.list_phrases(work, studio_id())
    return Response(computed(workbench.work, document, known), mimetype="application/json")


@api.delete("/<int:design_id>", responses={204: None})
def remove(path: DesignPath) -> Any:
    """Delete a design; it can be brought back for 30 days."""
    with unit_of_work() as work:
        designs.remove(work, studio_id(), path.design_id)
    return "", 204


@api.get("/<int:design_id>/revisions", responses={200: design_views.RevisionsView})
def list_revisions(path: DesignPath, query: PageQuery) -> Any:
    """A page of the revisions, the newest first."""
    with unit_of_work() as work:
        return designs.revisions(work, studio_id(), path.design_id, query.page).model_dump(mode="json")


@api.delete("/<int:design_id>/revisions", responses={200: design_views.ForgottenView})
def forget_revisions(path: DesignPath, query: ForgetQuery) -> Any:
    """Delete the revisions before one of them; the newest stays."""
    with unit_of_work() as work:
        many = designs.forget_revisions(work, studio_id(), path.design_id, query.before)
    return design_views.ForgottenView(many=many).model_dump(mode="json")


@api.get("/<int:design_id>/revisions/<int:number>", responses={200: design_views.RevisionView})
def read_revision(path: RevisionPath) -> Any:
    """One revision, compared with the newest."""
    with unit_of_work() as work:
        return designs.revision(work, studio_id(), path.design_id, path.number).model_dump(mode="json")


@api.post("/<int:design_id>/revisions/<int:number>/restore", responses={200: design_views.SavedView})
def restore(path: RevisionPath, body: Restore) -> Any:
    """Make an old revision the newest again, as a new revision."""
    with unit_of_work() as work:
        saved = designs.restore(work, studio_id(), path.design_id, path.number, body.base)
    return saved.model_dump(mode="json")
