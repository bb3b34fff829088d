"""The OpenAPI document, made of what every operation says of itself: the types of the front end are
generated from it.

``python -m entrick.web.openapi FILE`` writes it; with ``--check`` it is compared with what the file
says."""

from __future__ import annotations

import argparse
import json
import re
import sys
from collections.abc import Iterable, Mapping
from http import HTTPStatus
from pathlib import Path
from typing import Any, Literal

from pydantic.json_schema import models_json_schema

from . import operations, register
from .http.problems import Problem
from .operation import Operation

Mode = Literal["validation", "serialization"]
Schemas = Mapping[tuple[Any, Mode], dict[str, Any]]

REFUSALS = (400, 401, 403, 404, 405, 409, 413, 415, 422, 500, 503, 507)
"""Every problem an address of the API may answer with."""

MEDIA = (
    "application/pdf",
    "application/zip",
    "image/svg+xml",
    "image/vnd.dxf",
    "text/csv",
    "text/plain",
)
FILE = {
    "content": {
        media: {"schema": {"type": "string", "format": "binary"}}
        for media in (*MEDIA, "application/json")
    }
}
"""Any of the files the desk writes; a set for a class and this document are JSON."""


def document() -> dict[str, Any]:
    """Return the OpenAPI document of the whole API."""
    every = (*operations.operations(), *register.operations())
    asked = {
        (model, "validation")
        for each in every
        for part, model in each.takes.items()
        if part == "body"
    }
    given = {(each.gives, "serialization") for each in every if each.gives is not None}
    wanted: Any = sorted(
        (*asked, *given, (Problem, "serialization")), key=lambda pair: (pair[0].__name__, pair[1])
    )
    schemas, components = models_json_schema(wanted, ref_template="#/components/schemas/{model}")
    paths: dict[str, dict[str, Any]] = {}
    for each in every:
        address = re.sub(r"<(\w+)>", r"{\1}", each.address)
        paths.setdefault(address, {})[each.method.lower()] = _described(each, schemas)
    return {
        "openapi": "3.1.0",
        "info": {"title": "Entrick", "version": "1"},
        "paths": paths,
        "components": {"schemas": components["$defs"]},
    }


def _described(operation: Operation, schemas: Schemas) -> dict[str, Any]:
    refusal = {
        "content": {"application/problem+json": {"schema": schemas[Problem, "serialization"]}}
    }
    shown: Mapping[str, Any] = FILE
    if operation.gives is not None:
        shown = {
            "content": {"application/json": {"schema": schemas[operation.gives, "serialization"]}}
        }
    result: dict[str, Any] = {
        "operationId": operation.name,
        "summary": operation.summary,
        "responses": {
            str(operation.status): {"description": HTTPStatus(operation.status).phrase, **shown},
            **{
                str(status): {"description": HTTPStatus(status).phrase, **refusal}
                for status in REFUSALS
            },
        },
    }
    parameters = list(_parameters(operation))
    if parameters:
        result["parameters"] = parameters
    if operation.sends:
        binary = {"schema": {"type": "string", "format": "binary"}}
        result["requestBody"] = {"required": True, "content": {operation.sends: binary}}
    if "body" in operation.takes:
        body = schemas[operation.takes["body"], "validation"]
        result["requestBody"] = {
            "required": True,
            "content": {"application/json": {"schema": body}},
        }
    return result


def _parameters(operation: Operation) -> Iterable[dict[str, Any]]:
    for part in ("path", "query"):
        model = operation.takes.get(part)
        if model is None:
            continue
        schema = model.model_json_schema()
        for name, each in schema["properties"].items():
            needed = part == "path" or name in schema.get("required", ())
            yield {"name": name, "in": part, "required": needed, "schema": each}


def as_text() -> str:
    """Return the document as stable text."""
    return json.dumps(document(), indent=1, sort_keys=True) + "\n"


def main() -> int:
    """Write the document, or compare it."""
    asked = argparse.ArgumentParser(description="Write the OpenAPI document of the desk.")
    asked.add_argument("file", type=Path)
    asked.add_argument("--check", action="store_true", help="compare instead of writing")
    said = asked.parse_args()
    if not said.check:
        said.file.write_text(as_text(), "utf-8")
        return 0
    if said.file.read_text("utf-8") == as_text():
        return 0
    print(f"{said.file} is not what the application serves: run make types", file=sys.stderr)
    return 1


if __name__ == "__main__":
    sys.exit(main())
