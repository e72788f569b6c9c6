"""Two tabs, the Back button, a full day's backup: what a person does without thinking of it, in a real
browser.
"""

import re

import pytest
from playwright.sync_api import Page, Route, expect

from tests.demo_rows import FERRY_RUNNER, MUDLARK, STUBBY_FOUR_AT_ONCE, TENCH_ANTENNA_2_5_G

pytestmark = pytest.mark.browser


def test_what_comes_back_by_the_back_button_is_of_now_and_can_be_edited(demo_page: Page):
    page = demo_page
    page.goto(f"/shapes/{FERRY_RUNNER}")
    page.get_by_label("Width", exact=True).fill("16 mm")
    page.get_by_role("link", name="Tank", exact=True).last.click()  # without waiting for the save
    page.wait_for_url(f"**/tank/{FERRY_RUNNER}")
    expect(page.get_by_role("tab", name="Ballast")).to_be_visible()
    with page.expect_response(f"**/designs/{FERRY_RUNNER}/undo"):
        page.get_by_role("button", name="Undo").click()
    page.go_back()
    expect(page.get_by_label("Width", exact=True)).not_to_have_value(
        "16 mm"
    )  # as it was undone, not as it was left
    page.get_by_label("Width", exact=True).fill("17 mm")
    page.get_by_label("Width", exact=True).press("Enter")
    expect(page.locator("#saved")).to_have_text("Saved")
    page.go_forward()
    page.go_back()
    expect(page.get_by_label("Width", exact=True)).to_have_value("17 mm")
    page.get_by_label("Depth", exact=True).fill("20 mm")
    page.get_by_label("Depth", exact=True).press("Enter")
    expect(page.locator("#saved")).to_have_text("Saved")


def test_a_form_gone_back_to_and_sent_again_makes_nothing_twice(demo_page: Page):
    page = demo_page
    page.goto("/scale")
    page.get_by_label("What", exact=True).fill("Back and forth plug")
    page.get_by_label("In air", exact=True).fill("12.4 g")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("heading", name="Back and forth plug")).to_be_visible()
    page.go_back()
    expect(page.get_by_role("row").filter(has_text="Back and forth plug")).to_have_count(1)
    page.go_forward()
    expect(page.get_by_role("heading", name="Back and forth plug")).to_be_visible()
    page.reload()
    page.goto("/scale")
    expect(page.get_by_role("row").filter(has_text="Back and forth plug")).to_have_count(1)


def test_two_tabs_on_one_body_the_second_is_told_and_keeps_what_it_typed(demo_server, visit):
    first = visit()
    second = first.context.new_page()
    for tab in (first, second):
        tab.goto(f"/shapes/{FERRY_RUNNER}")
    first.get_by_label("Width", exact=True).fill("16 mm")
    with first.expect_response(f"**/designs/{FERRY_RUNNER}/live"):
        first.get_by_label("Width", exact=True).press("Enter")
    expect(first.locator("#saved")).to_have_text("Saved")
    second.get_by_label("Depth", exact=True).fill("21 mm")
    second.get_by_label("Depth", exact=True).press("Enter")
    expect(second.locator("#saved")).to_contain_text("Not saved. This was changed elsewhere meanwhile")
    second.reload()
    expect(second.get_by_label("Width", exact=True)).to_have_value("16 mm")


def test_a_backup_is_made_checked_and_put_back_by_page(demo_page: Page):
    page = demo_page
    page.goto("/stores")
    page.get_by_role("link", name="Backups").click()
    page.get_by_role("button", name="Make one now").click()
    expect(page.get_by_text("can be put back")).to_be_visible()
    page.goto("/scale")
    page.get_by_label("What", exact=True).fill("After the backup")
    page.get_by_label("In air", exact=True).fill("9 g")
    page.get_by_role("button", name="Keep it").click()
    page.goto("/stores/backups")
    row = page.get_by_role("row").nth(1)
    row.get_by_text("Put it back").first.click()
    row.get_by_label(re.compile(r"the shop\s+shall be as it was")).check()
    row.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("status").first).to_be_visible()
    page.goto("/scale")
    expect(page.get_by_role("row").filter(has_text="After the backup")).to_have_count(0)
    expect(page.get_by_role("row").filter(has_text="Stick 2")).to_have_count(1)


def test_what_the_page_says_of_saving_is_so_after_undo_and_redo_at_any_pace(demo_page: Page):
    page = demo_page
    drawn = (f"/{bench}/{MUDLARK}" for bench in ("tank", "shapes"))
    step, on_its_way = re.compile("/(undo|redo)$"), list[Route]()
    for url in (*drawn, f"/floats/{TENCH_ANTENNA_2_5_G}", f"/moulds/{STUBBY_FOUR_AT_ONCE}"):
        page.goto(url)
        name = page.locator("input[data-path='name']")
        expect(name).not_to_have_value("")
        before = name.input_value()
        for turn in range(2):
            name.fill(f"Another name {turn}")
            name.press("Enter")
            page.keyboard.press("Control+z")  # while it is being saved
            page.keyboard.press("Control+y")
            page.keyboard.press("Control+z")
        page.wait_for_load_state("networkidle")
        expect(name).to_have_value(before)
        expect(page.locator("#saved")).to_have_text("Saved")
        page.reload()
        expect(name).to_have_value(before)
        expect(page.locator("#main[inert]")).to_have_count(0)  # from now on it takes keys
        for key, says in (("y", "Redoing…"), ("z", "Undoing…")):
            page.route(step, lambda route: on_its_way.append(route), times=1)
            with page.expect_request(step):
                page.keyboard.press(f"Control+{key}")
            expect(page.locator("#saved")).to_have_text(says)
            on_its_way.pop().continue_()
            expect(page.locator("#saved")).to_have_text("Saved")
