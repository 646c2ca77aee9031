"""Write the published contracts into docs/: the API's OpenAPI and the ring file's JSON Schema; and plans for the front end's tests.

With `--check`, only say whether docs/ holds the newest; exit code 1 when it doesn't.
"""

import json
import sys
from pathlib import Path

from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring, ring_schema
from pliant_coil.web_api.app import create_app

ROOT = Path(__file__).parents[1]
DOCS, TESTING = ROOT / "docs", ROOT / "web" / "src" / "testing"
RINGS = {
    "turned": {"finger": {"size": "US 7"}, "band": {"style": "turned"}, "head": {"style": "bead-lock"}},
    "woven": {"finger": {"size": "US 7"}, "band": {"style": "woven"}, "head": {"style": "none"}},
}
"""What the parts of the page are tested with: plans as they are, so that no test is made for one that can't be."""


def main() -> int:
    """Write both files, or check them."""
    plans = {name: {"ring": ring, "plan": plan(read_ring(ring)).document()} for name, ring in RINGS.items()}
    documents = {
        DOCS / "openapi.json": create_app().openapi(),
        DOCS / "ring.schema.json": ring_schema(),
        TESTING / "plans.generated.json": plans,
    }
    texts = {path: json.dumps(document, indent=1, ensure_ascii=False) + "\n" for path, document in documents.items()}
    if "--check" in sys.argv:
        old = [path.name for path, text in texts.items() if not path.is_file() or path.read_text("utf-8") != text]
        if old:
            print(f"what is published is behind the code ({', '.join(old)}): run python -m tools.contract, then npm run api in web/")
        return 1 if old else 0
    DOCS.mkdir(exist_ok=True)
    for path, text in texts.items():
        path.write_text(text, "utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
