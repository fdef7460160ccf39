"""Write the OpenAPI schema that the front end's types are generated from."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from deepsection.service.app import create_app


def main() -> None:
    """Write to the path given."""
    text = json.dumps(create_app().openapi(), indent=1, ensure_ascii=False, sort_keys=True)
    Path(sys.argv[1]).write_text(text + "\n", "utf-8")


if __name__ == "__main__":
    main()
