"""Files brought to the screen: chosen, or dropped on the bench."""

from __future__ import annotations

import base64
from typing import Any

from playwright.sync_api import Page


def upload(name: str, data: bytes) -> dict[str, Any]:
    return {"name": name, "mimeType": "application/octet-stream", "buffer": data}


def drop(page: Page, name: str, data: bytes, on: str = "plan") -> None:
    """Drops a file on a pane of the bench."""
    page.evaluate(
        """([name, letters, pane]) => {
            const held = new DataTransfer();
            held.items.add(new File([Uint8Array.from(atob(letters), (c) => c.charCodeAt(0))], name));
            const bench = document.querySelector('[data-bench]');
            const box = bench.getBoundingClientRect();
            const clientY = pane === 'view' ? box.bottom - 20 : box.top + 20;
            const mark = document.querySelector(`[data-testid="${pane}"]`);
            mark.dispatchEvent(new DragEvent('drop', {dataTransfer: held, bubbles: true, cancelable: true, clientY}));
        }""",
        [name, base64.b64encode(data).decode(), on],
    )
