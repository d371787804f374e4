"""Files of other programs, whose text is shown before it is taken."""

from typing import Any

from flask import request
from flask_openapi3 import APIBlueprint, FileStorage
from pydantic import BaseModel

from rillstep.intake.taking import MOST_BYTES
from rillstep.services.files import FileView, text_in
from rillstep.web.computing import computed_long
from rillstep.web.problems import answers
from rillstep.web.session import SIGNED_IN

api = APIBlueprint("intake", __name__, url_prefix="/api", abp_responses=answers(401, 403, 409), abp_security=SIGNED_IN)

# What a form with a file in it has besides the file.
_AROUND_FILE = 4_096


class FileForm(BaseModel):
    """A .txt, .md, .docx, .odt or .pdf file."""

    file: FileStorage


@api.before_request
def let_files_in() -> None:
    """A document may be larger than anything else that is sent."""
    request.max_content_length = MOST_BYTES + _AROUND_FILE


@api.post("/files", responses={200: FileView})
def take_file(form: FileForm) -> Any:
    """The text of a file, and what of it was left out or mended; nothing of it is kept."""
    name, data = form.file.filename or "", form.file.read()
    form.file.close()
    return computed_long(text_in, name, data), 200, {"Content-Type": "application/json"}
