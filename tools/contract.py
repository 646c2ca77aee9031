"""Write the published contracts into docs/: the API's OpenAPI and the ring file's JSON Schema.

With `--check`, only say whether docs/ holds the newest; exit code 1 when it doesn't.
"""

import json
import sys
from pathlib import Path

from pliant_coil.core.ring_file.document import ring_schema
from pliant_coil.web_api.app import create_app

DOCS = Path(__file__).parents[1] / "docs"


def main() -> int:
    """Write both files, or check them."""
    documents = {"openapi.json": create_app().openapi(), "ring.schema.json": ring_schema()}
    texts = {DOCS / name: json.dumps(document, indent=1, ensure_ascii=False) + "\n" for name, document in documents.items()}
    if "--check" in sys.argv:
        old = [path.name for path, text in texts.items() if not path.is_file() or path.read_text("utf-8") != text]
        if old:
            print(f"docs/ is behind the code ({', '.join(old)}): run python -m tools.contract, then npm run api in web/")
        return 1 if old else 0
    DOCS.mkdir(exist_ok=True)
    for path, text in texts.items():
        path.write_text(text, "utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
