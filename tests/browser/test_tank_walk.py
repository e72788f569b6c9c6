"""A new user in the Tank: a slow rise with the slugs at hand, other hooks, trial weights, four clear
coats; by mouse and by keyboard.
"""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.demo_rows import FERRY_RUNNER, LITTLE_GLIDER, WEED_TADPOLE

pytestmark = pytest.mark.browser


def settled(page: Page) -> None:
    expect(page.locator("#saved")).to_have_text(re.compile("^(Saved|Trying, not saved)$"))


def figure(page: Page, row: int, column: int) -> str:
    return page.locator("#trying tbody tr").nth(row).locator("td").nth(column).inner_text()


def test_a_bait_is_brought_to_a_slow_rise_hooked_tubbed_and_cleared(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{LITTLE_GLIDER}")
    page.wait_for_load_state("networkidle")
    page.get_by_label("It should").select_option("slow rise")
    page.get_by_role("button", name="Level").click()
    settled(page)
    page.get_by_role("button", name="Find ballast").click()
    first = page.get_by_role("list", name="Ballast answers").locator("li").first
    expect(first).to_contain_text("of wall left")
    expect(first.locator("svg")).to_be_visible()
    first.get_by_role("button").click()
    expect(page.locator(".verdict")).to_contain_text("Hangs level and rises slowly")
    expect(page.locator(".refit")).to_contain_text("That is what you want of it.")
    settled(page)

    page.get_by_role("tab", name="What changes it").click()
    expect(page.locator("[data-each='effects'] li").first).to_contain_text(re.compile("g"))
    page.get_by_role("button", name="Start trying").click()
    page.get_by_label("All hooks").select_option("tre-4")
    expect(page.locator(".verdict")).to_contain_text("sinks")
    assert figure(page, 0, 1) == "slow rise" and "sink" in figure(page, 1, 1)
    page.get_by_role("tab", name="Ballast").click()
    expect(page.locator(".refit")).to_contain_text("too heavy")
    page.get_by_role("button", name="Throw it away").click()
    expect(page.locator(".verdict")).to_contain_text("rises slowly")

    page.get_by_role("tab", name="What changes it").click()
    page.get_by_role("button", name="Start trying").click()
    page.get_by_label("Clear coats").select_option("4")
    expect(page.locator("#trying tbody tr").nth(1).locator("td").nth(4)).not_to_have_text(figure(page, 0, 4))
    page.get_by_role("button", name="Keep it").click()
    settled(page)
    page.reload()
    page.wait_for_load_state("networkidle")
    page.get_by_role("link", name="Revisions").click()
    expect(page.locator("#main ol > li").first).to_contain_text("clear coats: 1 → 4")


def test_trial_weights_by_keyboard_become_inside_ballast(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{FERRY_RUNNER}")
    page.wait_for_load_state("networkidle")
    page.get_by_role("tab", name="Ballast").focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("tab", name="In the tub")).to_be_focused()
    page.get_by_role("button", name="Hang a weight").press("Enter")
    weight = page.get_by_label("Trial weight taped to the belly, grams")
    weight.fill("-2 g")
    weight.press("Enter")
    expect(page.get_by_text("allowed is 0 to 500", exact=False)).to_be_visible()
    weight.fill("1.5 g")
    weight.press("Enter")
    place = page.get_by_label("Trial weight on the belly, distance from the nose")
    place.fill("52 mm")
    place.press("Enter")
    expect(page.get_by_text("With 1.50 g hung outside")).to_be_visible()
    page.get_by_role("button", name="Find the same inside").press("Enter")
    inside = page.get_by_role("list", name="Inside ballast that does the same")
    expect(inside.locator("li").first).to_contain_text("mm deep")
    expect(page.locator("#differences li")).to_have_count(3)
    inside.locator("li").first.get_by_role("button").press("Enter")
    expect(page.get_by_text("Float the bait in the tub")).to_be_visible()
    expect(page.locator("#saved")).to_have_text("Saved")
    page.get_by_label("Way").fill("50 cm")
    page.get_by_label("Time").fill("8.5 s")
    page.get_by_label("Time").press("Enter")
    expect(
        page.get_by_text(re.compile("Net is .* from 1 run at 6 cm/s, with C_d 0.90 \\(assumed\\)"))
    ).to_be_visible()


def test_dragging_draws_where_g_goes_and_looking_changes_nothing(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{WEED_TADPOLE}")
    page.wait_for_load_state("networkidle")
    handle = page.get_by_role("slider").first
    box = handle.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    for step in range(1, 9):
        page.mouse.move(box["x"] + box["width"] / 2 + 2 * step, box["y"] + box["height"] / 2)
        page.wait_for_timeout(60)
    expect(page.locator("#picture .trail")).to_have_count(1)
    page.mouse.up()
    expect(page.locator("#saved")).to_have_text("Saved")
    verdict = page.locator(".verdict").inner_text()
    for name in ("Held at its tie", "Head-on", "Under water", "From the side"):
        page.get_by_role("button", name=name).click()
        expect(page.get_by_role("button", name=name)).to_have_attribute("aria-pressed", "true")
        assert page.locator(".verdict").inner_text() == verdict


def test_an_arrow_key_held_down_loses_no_step_however_slow_the_answers(demo_page: Page):
    page = demo_page
    page.goto(f"/tank/{FERRY_RUNNER}")
    page.route("**/live", lambda route: (page.wait_for_timeout(120), route.continue_()))
    handle = page.get_by_role("slider").first
    began = float(handle.get_attribute("aria-valuenow"))
    for _ in range(40):
        handle.press("ArrowRight", delay=15)
    settled(page)
    page.unroute_all(behavior="wait")
    expect(handle).to_have_attribute("aria-valuenow", f"{began + 20:g}")


def held_back(page: Page, most: int) -> list:
    """Requests for what follows a verdict, held until a test lets them go; not more than so many."""
    held = []
    page.route(
        "**/live",
        lambda route: (
            held.append(route)
            if len(held) < most and '"mode":"late"' in route.request.post_data
            else route.continue_()
        ),
    )
    return held


def test_the_verdict_waits_for_nothing_and_an_overtaken_answer_is_dropped(demo_page: Page):
    page, held = demo_page, held_back(demo_page, 2)
    page.goto(f"/tank/{FERRY_RUNNER}")
    main, refit = page.locator("#main"), page.locator(".refit")
    expect(page.locator(".verdict")).to_contain_text("rises slowly")
    expect(main).to_have_class(re.compile("later"))
    find = page.get_by_role("button", name="Find ballast")  # a button all the while, not yet the orange one
    expect(find).to_have_class(re.compile("btn-outline-secondary"))
    expect(find).not_to_have_class(re.compile("btn-primary"))
    page.get_by_role("tab", name="What changes it").click()
    page.get_by_role("button", name="Start trying").click()
    page.get_by_label("All hooks").select_option("tre-4")
    expect(page.locator(".verdict")).to_contain_text("sinks")
    page.get_by_role("tab", name="Ballast").click()
    expect(refit.locator("p").first).to_be_empty()
    while len(held) < 2:
        page.wait_for_timeout(20)
    held.pop().continue_()  # the newest first
    expect(refit).to_contain_text("too heavy")
    with page.expect_response("**/live"):
        held.pop().continue_()
    expect(main).not_to_have_class(re.compile("later"))
    expect(refit).to_contain_text("too heavy")
    expect(find).to_have_class(re.compile("btn-primary"))
    expect(find).not_to_have_class(re.compile("btn-outline-secondary"))
    expect(refit.get_by_role("button", name="Do that")).to_be_enabled()


def test_a_handle_dragged_there_and_back_leaves_nothing_undone(demo_page: Page):
    page = demo_page
    held_back(page, 1)
    page.goto(f"/tank/{FERRY_RUNNER}")
    main, handle = page.locator("#main"), page.locator("#picture .handle").first
    expect(page.locator(".verdict")).to_contain_text("rises slowly")
    place = handle.bounding_box()
    x, y = place["x"] + place["width"] / 2, place["y"] + place["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 25, y)
    page.mouse.move(x, y)
    page.mouse.up()
    expect(main).not_to_have_class(re.compile("later"))
    expect(page.locator(".refit")).to_contain_text("31 in 100")
    expect(handle).not_to_have_attribute("transform", re.compile("translate"))


def test_a_trial_begun_before_all_had_come_leaves_nothing_undone(demo_page: Page):
    page = demo_page
    held_back(page, 1)
    page.goto(f"/tank/{FERRY_RUNNER}")
    page.get_by_role("tab", name="What changes it").click()
    page.get_by_role("button", name="Start trying").click()
    page.get_by_label("All hooks").select_option("tre-4")
    expect(page.locator(".verdict")).to_contain_text("sinks")
    page.get_by_role("button", name="Throw it away").click()
    expect(page.locator(".verdict")).to_contain_text("rises slowly")
    page.get_by_role("tab", name="Ballast").click()
    expect(page.locator(".refit")).to_contain_text("That is what you want of it.")
    expect(page.locator("#main")).not_to_have_class(re.compile("later"))
