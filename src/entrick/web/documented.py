"""Routes that say what they take and give. The OpenAPI document is made of that when it is asked for: at every start
it would take longer than all else that belongs to the desk itself."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any

from flask_openapi3 import APIBlueprint, OpenAPI
from flask_openapi3.types import ParametersTuple


class Routes(APIBlueprint):
    """A blueprint that describes itself later."""

    def __init__(self, *args: Any, **options: Any) -> None:
        self._undescribed: list[tuple[str, Callable[..., Any], dict[str, Any]]] = []
        super().__init__(*args, **options)

    def _collect_openapi_info(self, rule: str, func: Callable[..., Any], **told: Any) -> ParametersTuple:
        self._undescribed.append((rule, func, told))
        return super()._collect_openapi_info(rule, func, **{**told, "doc_ui": False})

    def describe(self) -> None:
        """Work out paths and schemas, once."""
        while self._undescribed:
            rule, func, told = self._undescribed[0]
            super()._collect_openapi_info(rule, func, **told)
            del self._undescribed[0]


class Documented(OpenAPI):
    """An application whose routes are described when the document is first asked for."""

    def __init__(self, *args: Any, **options: Any) -> None:
        self._routes: list[Routes] = []
        super().__init__(*args, **options)

    def register_routes(self, routes: Routes) -> None:
        """Register routes with what they say of themselves."""
        self._routes.append(routes)
        self.register_api(routes)

    def generate_spec_json(self) -> None:
        """Describe what is not described yet, and put the document together."""
        with _ONE_AT_A_TIME:
            for routes in self._routes:
                routes.describe()
                self.paths.update(routes.paths)
                self.components_schemas.update(routes.components_schemas)
            super().generate_spec_json()  # type: ignore[no-untyped-call]


_ONE_AT_A_TIME = threading.Lock()
