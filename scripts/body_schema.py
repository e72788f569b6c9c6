"""Write the JSON Schema of a body document anew, from the types it is made of."""

import json
from pathlib import Path

from lamsik.documents.body.document import schema_made

PUBLISHED = Path(__file__).parent.parent / "src/lamsik/documents/body/body.schema.json"

if __name__ == "__main__":
    PUBLISHED.write_text(f"{json.dumps(schema_made(), indent=1, ensure_ascii=False)}\n", encoding="utf-8")
