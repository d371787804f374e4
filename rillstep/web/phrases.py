"""Phrases: taught to a text, and kept for all texts of the asker's studio."""

from typing import Annotated, Any

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field, RootModel

from rillstep.services import phrases, teaching, views
from rillstep.web.computing import computed
from rillstep.web.problems import answers
from rillstep.web.session import SIGNED_IN, studio_id, unit_of_work
from rillstep.web.work import TextBody

api = APIBlueprint(
    "phrases", __name__, url_prefix="/api", abp_responses=answers(401, 403, 404, 409), abp_security=SIGNED_IN
)


class NewPhrase(BaseModel):
    """meaning: what the words stand for in the language; "nothing" where they change nothing."""

    words: Annotated[str, Field(min_length=1, max_length=160)]
    meaning: Annotated[str, Field(min_length=1, max_length=240)]


class TeachBody(TextBody):
    """As `NewPhrase`; "vouched" where the designer vouches for the line, whose words may be many."""

    words: Annotated[str, Field(min_length=1, max_length=600)]
    meaning: Annotated[str, Field(min_length=1, max_length=240)]


class PhrasePath(BaseModel):
    phrase_id: int


class PhraseList(RootModel[list[views.PhraseView]]):
    pass


@api.get("/phrases", responses={200: PhraseList})
def list_phrases() -> Any:
    """The phrases that the studio keeps for all its texts."""
    with unit_of_work() as work:
        return [phrase.model_dump(mode="json") for phrase in phrases.list_phrases(work, studio_id())]


@api.post("/phrases", responses={200: views.PhraseView})
def keep_phrase(body: NewPhrase) -> Any:
    """Keep a phrase, or give one that is kept another meaning; 422 where it may not be taught."""
    with unit_of_work() as work:
        return phrases.keep_phrase(work, studio_id(), body.words, body.meaning).model_dump(mode="json")


@api.delete("/phrases/<int:phrase_id>", responses={204: None})
def forget_phrase(path: PhrasePath) -> Any:
    """Keep a phrase no longer."""
    with unit_of_work() as work:
        phrases.forget_phrase(work, studio_id(), path.phrase_id)
    return "", 204


@api.post("/teach", responses={200: views.TaughtView})
def teach(body: TeachBody) -> Any:
    """The edit that writes a phrase into the head of a text; 422 where it may not be taught. Nothing is kept."""
    made = computed(teaching.taught, body.text, body.terms, body.words, body.meaning)
    return Response(made, mimetype="application/json")
