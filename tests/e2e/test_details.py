"""Junctions are listed and lit up, their details drawn with one action, looked at, cut elsewhere, and printed."""

from __future__ import annotations

from playwright.sync_api import expect

from .conftest import Bench


def test_the_details_of_a_house_are_drawn_with_one_action(bench: Bench) -> None:
    bench.open("fernacre")
    bench.step("Details")
    bench.button("Junctions").click()
    panel = bench.page.get_by_label("Junctions of the house")
    expect(panel.get_by_role("heading", name="eaves")).to_be_visible()
    panel.get_by_label("eaves").get_by_role("listitem").first.hover()
    panel.get_by_role("button", name="Draw a detail of sill 1").click()
    bench.saved()
    (sill,) = bench.document()["details"]  # type: ignore[misc]
    assert sill["kind"] == "sill" and sill["along"] is None

    panel.get_by_role("button", name="Draw the details of this house").click()
    bench.saved()
    details = bench.document()["details"]
    assert len(details) > 15  # type: ignore[arg-type]
    expect(panel.get_by_role("button", name="Draw the details of this house")).to_have_count(0)
    panel.get_by_label("feet of outer walls").get_by_role("button").first.click()
    bench.ready()
    foot = next(held for held in details if held["kind"] == "wall_foot")  # type: ignore[union-attr,index,call-overload]
    bench.shows(f"Detail {foot['name']}")
    expect(bench.page.get_by_test_id("view").get_by_text("150 concrete slab")).to_be_visible()

    # It is cut elsewhere, and further out; what cannot be is said.
    bench.enter("Shows below it", "300")
    bench.enter("Along its run", "99m")
    expect(bench.page.get_by_text("past the end of its foot of an outer wall")).to_be_visible()
    bench.button("Undo").click()
    bench.saved()
    bench.enter("Shows above it", "-20")
    expect(bench.page.get_by_text("must be more than")).to_be_visible()
    bench.page.keyboard.press("Escape")
    bench.page.get_by_role("button", name="The next detail").click()
    bench.ready()
    assert bench.page.get_by_role("heading", name=f"Detail {foot['name']}", exact=True).count() == 0

    # One step of history took all of them.
    for _ in range(2):
        bench.button("Undo").click()
        bench.saved()
    assert [held["kind"] for held in bench.document()["details"]] == ["sill"]  # type: ignore[index,union-attr]
    assert bench.errors == []
