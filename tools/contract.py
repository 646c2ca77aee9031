"""Write the published contracts into docs/: the API's OpenAPI and the ring file's JSON Schema."""

import json
from pathlib import Path

from pliant_coil.core.recipe import ring_schema
from pliant_coil.web_api.app import create_app

DOCS = Path(__file__).parents[1] / "docs"


def main() -> None:
    """Write both files."""
    DOCS.mkdir(exist_ok=True)
    for name, document in (("openapi.json", create_app().openapi()), ("ring.schema.json", ring_schema())):
        (DOCS / name).write_text(json.dumps(document, indent=1, ensure_ascii=False) + "\n", "utf-8")


if __name__ == "__main__":
    main()
