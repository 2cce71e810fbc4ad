"""Hold in the running application: rails by mouse and by keyboard, and making a panel hold."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_demo, saved


def choose_rails(page: Page) -> None:
    page.get_by_role("button", name="Front port safe", exact=False).first.click()
    feet = page.get_by_role("radio", name="Feet on the frame", exact=False)
    feet.focus()
    page.keyboard.press("ArrowRight")
    saved(page)
    expect(page.get_by_role("radio", name="Rails over the members", exact=False)).to_be_checked()


def test_a_row_of_panels_goes_onto_rails_and_back_by_keyboard(page: Page) -> None:
    open_demo(page, "hold")
    choose_rails(page)
    expect(page.get_by_text("2 panels on Rails 1")).to_be_visible()
    expect(page.get_by_role("heading", name="Chain of foot r1m", exact=False)).to_be_visible()
    expect(page.get_by_role("img", name=re.compile(r"Rail r1: \d+ newton metres"))).to_be_visible()
    expect(page.get_by_role("button", name="Rails 1, rail r2")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Rails 1 foot r1m1, in member 1"))).to_be_visible()
    wall = page.get_by_label("Wall", exact=True)
    wall.fill("0.4 mm")
    wall.press("Enter")
    saved(page)
    expect(page.get_by_text(re.compile("of their strength is used"))).to_be_visible()
    refused = page.get_by_label("A clamp pulls, N")
    refused.fill("2")
    refused.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Not stored")
    refused.press("Escape")
    page.get_by_role("list", name="Links of the chain").first.get_by_role("button").first.click()
    expect(page.get_by_role("dialog")).to_contain_text("π · fy · t²")
    page.keyboard.press("Escape")
    page.get_by_role("heading", level=1, name="Hold").click()
    for _ in range(3):  # pressed quickly, and once more than there are steps
        page.keyboard.press("Control+z")
    expect(page.get_by_text("2 panels on Rails 1")).to_have_count(0)
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_role("button", name="Front port foot f1", exact=False)).to_be_visible()


def test_what_would_hold_is_tried_offered_and_done_by_one_click(page: Page) -> None:
    open_demo(page, "hold")
    stops = page.locator("[data-figure='stops']")
    expect(stops).to_contain_text("7 stops")
    page.get_by_role("button", name="What would hold?").click()
    do_it = page.get_by_role("button", name=re.compile("^Do it"))
    expect(do_it.first).to_be_visible()
    do_it.first.click()
    saved(page)
    expect(stops).not_to_contain_text("7 stops")
    expect(page.get_by_label("Also with a foot lost")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    saved(page)
    expect(stops).to_contain_text("7 stops")


def test_a_rack_on_factory_points_by_mouse_and_keyboard(page: Page) -> None:
    open_demo(page, "hold", job="Speiche")
    expect(page.get_by_role("radio", name="Rack on factory points", exact=False)).to_be_checked()
    expect(page.get_by_role("heading", name="Corners")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile(r"Bar a1: \d+ newton metres"))).to_be_visible()
    page.get_by_role("button", name="Rack 1, bar a2").click()
    wall = page.get_by_label("Angles, wall")
    wall.fill("2 mm")
    wall.press("Enter")
    saved(page)
    corner = page.get_by_role("button", name=re.compile("Corner r[12]a[1-4]: show the working")).first
    expect(corner).to_contain_text(re.compile(r"\d{3} %"))
    corner.click()
    expect(page.get_by_role("dialog")).to_contain_text("utilisation of a link")
    page.keyboard.press("Escape")
    page.get_by_role("radio", name="Rack on factory points", exact=False).focus()
    page.keyboard.press("ArrowRight")
    saved(page)
    expect(page.get_by_role("radio", name="Rack over the members", exact=False)).to_be_checked()
    page.get_by_role("button", name="Undo").click()
    saved(page)
    expect(page.get_by_text("2 panels on Rack 1")).to_be_visible()


def test_a_frame_on_crossbars_by_keyboard(page: Page) -> None:
    open_demo(page, "hold", job="Speiche")
    page.get_by_role("radio", name="Rack on factory points", exact=False).focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
        saved(page)
    expect(page.get_by_role("radio", name="Frame on crossbars", exact=False)).to_be_checked()
    expect(page.get_by_role("heading", name="Corners and crossings")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile(r"Crossbar k\d: \d+ newton metres")).first).to_be_visible()
    page.get_by_label("Crossbars", exact=True).select_option("1")
    saved(page)
    wall = page.get_by_label("Crossbar, wall")
    wall.fill("1.5 mm")
    wall.press("Enter")
    saved(page)
    crossing = page.get_by_role("button", name=re.compile(r"Corner r[12]k\d: show the working")).first
    crossing.click()
    expect(page.get_by_role("dialog")).to_contain_text("utilisation of a link")
    page.keyboard.press("Escape")
    page.get_by_label("Under the rail").fill("41 mm")
    page.keyboard.press("Enter")
    expect(page.get_by_text("left for their feet")).to_be_visible()


def test_ways_to_hold_side_by_side_and_the_choice_is_kept(page: Page) -> None:
    open_demo(page, "hold", job="Speiche")
    page.get_by_role("button", name="Work them out").click()
    table = page.get_by_role("region", name="Ways to hold, side by side")
    expect(table).to_be_visible()
    expect(table.get_by_text("Rack on factory points")).to_be_visible()
    page.get_by_role("button", name="Choose Rack on factory points").click()
    page.get_by_label("Why?").fill("no new hole")
    page.keyboard.press("Enter")
    saved(page)
    expect(page.get_by_text("no new hole").first).to_be_visible()


def test_tethers_and_the_foot_cut_through(page: Page) -> None:
    open_demo(page, "hold")
    page.get_by_role("button", name="Front port safe", exact=False).first.click()
    cut = page.get_by_role("group", name=re.compile(r"Section through foot \w+: frame 60 mm over the roof"))
    expect(cut).to_be_visible()
    toe = page.get_by_label("Toe", exact=True)
    toe.fill("34 mm")
    toe.press("Enter")
    saved(page)
    expect(page.get_by_role("group", name=re.compile("toe 34 mm"))).to_be_visible()
    number = page.get_by_role("button", name="1, panel frame", exact=False)
    number.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_contain_text("pull-over")
    page.keyboard.press("Escape")

    page.get_by_role("button", name="Add two tethers").press("Enter")
    saved(page)
    expect(page.get_by_text("remove Tether 2")).to_be_visible()
    expect(page.get_by_text("stop it up to")).to_be_visible()
    page.get_by_role("button", name="Tether 1, front").click()
    slack = page.get_by_label("Slack").first
    slack.fill("25 mm")
    slack.press("Enter")
    saved(page)
    expect(
        page.get_by_role("region", name="Snags").get_by_text("Slack tether catches with a jerk")
    ).to_be_visible()
    slack.fill("9 m")
    slack.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Not stored")
    slack.press("Escape")
    page.get_by_label("Line", exact=True).first.select_option("strap")
    saved(page)
    page.get_by_role("button", name="remove Tether 1").click()
    saved(page)
    expect(page.get_by_text("it would flip")).to_be_visible()


def test_panels_on_posts_by_mouse_and_keyboard(page: Page) -> None:
    open_demo(page, "hold")
    page.get_by_role("button", name="Front port safe", exact=False).first.click()
    page.get_by_role("radio", name="On posts", exact=False).click()
    saved(page)
    expect(page.get_by_text("2 panels on Posts 1")).to_be_visible()
    expect(page.get_by_role("heading", name="Base plates through the deck")).to_be_visible()
    foot = page.get_by_role("button", name=re.compile("Posts 1 foot r1s1, bolted through the deck"))
    expect(foot).to_be_visible()
    expect(page.get_by_role("img", name=re.compile(r"Post r1s1: \d+ newton metres"))).to_be_visible()
    expect(page.get_by_text("Somebody hanging on a corner uses")).to_be_visible()
    refused = page.get_by_label("Bolts per plate")
    refused.fill("5")
    refused.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Not stored")
    refused.press("Escape")
    core = page.get_by_label("Deck at the bolts")
    core.focus()
    core.select_option("foam")
    saved(page)
    snags = page.get_by_role("region", name="Snags")
    expect(snags.get_by_text("Tightening crushes the deck's core")).to_be_visible()
    page.get_by_role("radio", name="Feet on the frame", exact=False).click()
    saved(page)
    expect(page.get_by_role("heading", name="Base plates through the deck")).to_have_count(0)


def test_a_raised_panel_tells_the_gust_to_stow_at(page: Page) -> None:
    open_demo(page, "layout")
    page.locator("[data-panel='p1']").focus()
    page.keyboard.press("Enter")
    tilt = page.get_by_label("Raised when parked").first
    tilt.fill("50°")
    tilt.press("Enter")
    saved(page)
    page.get_by_role("navigation", name="Stations").get_by_role("button", name="Hold", exact=False).click()
    snags = page.get_by_role("region", name="Snags")
    expect(snags.get_by_text("Hinges and struts not known")).to_be_visible()
    page.get_by_role("button", name="Tell hinges and struts").press("Enter")
    saved(page)
    expect(page.get_by_text("a wind of 39 km/h").first).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("foot under a strut"))).to_be_visible()
    expect(snags.get_by_text("Not known what locks it for the road")).to_be_visible()
    latch = page.get_by_label("A latch bears, N")
    latch.fill("2000")
    latch.press("Enter")
    saved(page)
    expect(snags.get_by_text("Not known what locks it for the road")).to_have_count(0)
    struts = page.get_by_label("Struts", exact=True)
    struts.fill("40")
    struts.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Not stored")
    struts.press("Escape")
    page.get_by_role("button", name="Unit 1 in the wind: show the working").click()
    expect(page.get_by_role("dialog")).to_contain_text("Moments about the hinge")


def test_bars_under_feet_between_members(page: Page) -> None:
    open_demo(page, "hold")
    page.get_by_role("radio", name="Screws into members", exact=False).click()
    saved(page)
    page.get_by_role("button", name="Bars under them").press("Enter")
    saved(page)
    expect(page.get_by_text("2 feet stand on bars")).to_be_visible()
    expect(
        page.get_by_role("button", name=re.compile("Rear foot f2, on a bar from member to member"))
    ).to_be_visible()
    wall = page.get_by_label("Bar, wall")
    wall.fill("0 mm")
    wall.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("Not stored")
    wall.press("Escape")
    page.get_by_role("button", name="take the bars away").click()
    saved(page)
    expect(page.get_by_role("button", name="Bars under them")).to_be_visible()
