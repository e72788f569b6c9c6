"""The order of colours: as few loads as trying every order finds, every piece in its own order and time."""

from functools import cache

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamsik.core.paints import loads
from lamsik.core.paints.loads import Task, planned

ROWS = st.lists(st.lists(st.sampled_from("abcde"), min_size=1, max_size=5), min_size=1, max_size=4)


def fewest(rows):
    """Loads by trying every next paint from everywhere: nothing is bounded, nothing guessed."""

    @cache
    def left(at):
        nexts = {row[n] for row, n in zip(rows, at, strict=True) if n < len(row)}
        on = [
            tuple(n + (n < len(row) and row[n] == paint) for row, n in zip(rows, at, strict=True))
            for paint in nexts
        ]
        return 1 + min(left(to) for to in on) if on else 0

    return left((0,) * len(rows))


def tasks(rows, **more):
    return [[Task(paint, **more) for paint in row] for row in rows]


def held(plan, pieces):
    """Every layer is done once, in its load's paint, after the one under it, and in time."""
    at = {task: load for load in plan.loads for task in load.tasks}
    assert sorted(at) == [(n, j) for n, row in enumerate(pieces) for j in range(len(row))]
    assert all(
        one.ends_min <= other.begins_min for one, other in zip(plan.loads, plan.loads[1:], strict=False)
    )
    for (n, j), load in at.items():
        assert load.paint == pieces[n][j].paint
        if j:
            waited = load.begins_min - at[n, j - 1].ends_min
            assert waited >= pieces[n][j - 1].wait_min
            most = pieces[n][j - 1].window_min
            assert most is None or waited <= most or (n, j - 1) in plan.missed


@given(ROWS)
def test_no_order_of_small_sets_has_fewer_loads(rows):
    plan = planned(tasks(rows))
    assert plan.is_best and len(plan.loads) == fewest(tuple(map(tuple, rows)))
    assert plan.saved == sum(map(len, rows)) - len(plan.loads)
    held(plan, tasks(rows))


@given(ROWS, st.integers(0, 90), st.one_of(st.none(), st.integers(90, 400)))
def test_every_piece_keeps_its_order_its_waits_and_its_windows(rows, wait, window):
    pieces = tasks(rows, wait_min=wait, window_min=window)
    plan = planned(pieces)
    held(plan, pieces)
    assert len(plan.loads) >= fewest(tuple(map(tuple, rows)))
    if window is None:
        assert plan.missed == ()


def test_like_pieces_go_together_and_take_longer_only_by_hands():
    one, seven = planned(tasks(["abc"])), planned(tasks(["abc"] * 7))
    assert len(one.loads) == len(seven.loads) == 3 and seven.saved == 18 and seven.is_best
    assert [load.tasks for load in seven.loads] == [tuple((n, j) for n in range(7)) for j in range(3)]
    assert seven.loads[-1].ends_min == 3 * (4 + 7 * 2)


def test_another_piece_is_painted_while_one_dries():
    pieces = [[Task("a", wait_min=60), Task("b", wait_min=60), Task("c")], [Task(paint) for paint in "xyz"]]
    plan = planned(pieces)
    assert plan.loads[-1].ends_min == 3 * 6 + 2 * 60  # as long as the one that dries takes by itself


def test_a_window_is_kept_at_the_price_of_a_load():
    tight = [Task("a", window_min=5), Task("b")]
    other = [Task("a"), Task("c", wait_min=600), Task("b")]
    plan = planned([tight, other])
    assert plan.missed == () and len(plan.loads) == 4 and not plan.is_best
    assert len(planned([[Task("a"), Task("b")], other]).loads) == 3


def test_a_window_that_cannot_be_kept_is_named():
    plan = planned([[Task("a", wait_min=60, window_min=10), Task("b")]])
    assert plan.missed == ((0, 0),)


def test_what_is_not_proven_is_not_called_best(monkeypatch):
    rows = ["abcab", "bcabc", "cabca"]
    monkeypatch.setattr(loads, "MOST_LOOKED", 1)
    plan = planned(tasks(rows))
    assert not plan.is_best and len(plan.loads) >= fewest(tuple(map(tuple, rows)))
    held(plan, tasks(rows))


def test_very_many_unlike_pieces_are_planned_without_a_proof():
    rows = [[f"{(7 * n + 5 * j * j) % 23}" for j in range(6)] for n in range(30)]
    plan = planned(tasks(rows))
    held(plan, tasks(rows))
    assert len(plan.loads) < 100 and plan.saved > 80


@pytest.mark.parametrize("rows", [[], [[]]])
def test_nothing_to_paint_needs_no_load(rows):
    assert planned(rows).loads == ()
