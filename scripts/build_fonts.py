"""Lettering for printed sheets: TTF files made from the open fonts that the front end ships, licence included."""

from __future__ import annotations

import shutil
from pathlib import Path

from fontTools.ttLib import TTFont

ROOT = Path(__file__).resolve().parent.parent
SOURCE = ROOT / "web" / "node_modules" / "@ibm"
TARGET = ROOT / "deepsection" / "fonts"
FACES = {
    "sans.ttf": SOURCE / "plex-sans/fonts/complete/woff2/IBMPlexSans-Regular.woff2",
    "bold.ttf": SOURCE / "plex-sans/fonts/complete/woff2/IBMPlexSans-SemiBold.woff2",
    "mono.ttf": SOURCE / "plex-mono/fonts/complete/woff2/IBMPlexMono-Regular.woff2",
}


def main() -> None:
    """Write the three faces that are missing."""
    TARGET.mkdir(exist_ok=True)
    shutil.copyfile(SOURCE / "plex-sans/LICENSE.txt", TARGET / "LICENSE-IBM-Plex.txt")
    for name, source in FACES.items():
        target = TARGET / name
        if not target.exists():
            font = TTFont(source)
            font.flavor = None
            font.save(target)


if __name__ == "__main__":
    main()
