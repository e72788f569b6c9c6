"""The order of colours over several pieces: each colour is loaded as rarely as it can be, while every piece
keeps the order of its own layers, waits as long as it must and no longer than it may.
"""

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from heapq import heappop, heappush, nsmallest

MOST_LOOKED = 60_000
"""States that are looked at for the best order; then a good one is taken."""
BEAM = 150
"""States that are followed side by side for a good one."""
FEW, MOST_PAIRS = 6, 45
"""Of more unlike pieces than so many fewer states are looked at; and so many pairs bound what is left."""


@dataclass(frozen=True)
class Task:
    """A layer on a piece: which paint it takes, how long hands are on it and on setting up for it [min], how
    long it waits before the next layer of its piece at least and at most [min].
    """

    paint: Hashable
    setup_min: int = 4
    each_min: int = 2
    wait_min: int = 0
    window_min: int | None = None


@dataclass(frozen=True)
class Load:
    """A paint loaded once: which, the tasks done with it as (piece, layer), and from when to when at the
    earliest [min].
    """

    paint: Hashable
    tasks: tuple[tuple[int, int], ...]
    begins_min: int
    ends_min: int


@dataclass(frozen=True)
class LoadPlan:
    """The loads in order; how many fewer than piece by piece; whether none with fewer is possible; tasks
    whose longest wait cannot be kept.
    """

    loads: tuple[Load, ...]
    saved: int
    is_best: bool
    missed: tuple[tuple[int, int], ...] = ()


Pieces = Sequence[Sequence[Task]]
State = tuple[int, ...]
"""How many layers of each piece are done."""
Order = tuple[int, ...]
"""Paints in the order they are loaded, by number."""


def planned(pieces: Pieces) -> LoadPlan:
    """The order of loads for some pieces, the layers of each in their order.

    Notes: without waits this is the shortest common supersequence of the pieces' paints; like pieces go
        together. It is searched best first over how far each piece has come (A*); what is left can need no
        fewer loads than any two pieces by themselves, nor than each paint is wanted by one of them. Where the
        best order misses a longest wait, orders of as many loads and more are tried in time.
    """
    alike: dict[tuple[Task, ...], list[int]] = {}
    for n, tasks in enumerate(pieces):
        if tasks:
            alike.setdefault(tuple(tasks), []).append(n)
    search = Search(list(alike), [len(one) for one in alike.values()])
    best = search.best()
    order = best if best is not None else search.good()
    for most in range(len(order), sum(len(row) for row in search.rows) + 1):
        in_time = search.in_time(most)
        if in_time is None and most == len(order) and not search.missed(order):
            in_time = order
        if in_time is not None:
            is_best = best is not None and most == len(best)
            return _plan(search, list(alike.values()), in_time, is_best)
    return _plan(search, list(alike.values()), order, False)


@dataclass(frozen=True)
class OrderSoFar:
    """How far an order has come: layers done of each piece, when the last of each was, the time now [min]."""

    at: State
    ends: tuple[int, ...]
    clock: int
    order: Order


@dataclass(frozen=True)
class Search:
    """Unlike pieces, and how many there are of each."""

    rows: Pieces
    count: Sequence[int]

    @cached_property
    def paints(self) -> list[Hashable]:
        """All paints, by number."""
        return sorted({task.paint for row in self.rows for task in row}, key=str)

    @cached_property
    def wants(self) -> list[list[int]]:
        """The numbers of the paints that each piece wants, in its order."""
        number = {paint: n for n, paint in enumerate(self.paints)}
        return [[number[task.paint] for task in row] for row in self.rows]

    @cached_property
    def pairs(self) -> list[tuple[int, int, list[list[int]]]]:
        """Of each two pieces the fewest loads that are left, by how far each has come."""
        wants, size = self.wants, range(len(self.wants))
        pairs = [(a, b, _fewest(wants[a], wants[b])) for a in size for b in size if a < b]
        return sorted(pairs, key=lambda pair: -pair[2][0][0])[:MOST_PAIRS]

    def _scaled(self, many: int) -> int:
        """How many states are looked at: there are more, and each costs more, the more unlike pieces there
        are.
        """
        return many * FEW**2 // max(len(self.rows), FEW) ** 2

    @cached_property
    def known(self) -> dict[State, int]:
        """Loads that are left at least, of states that were looked at."""
        return {}

    def left(self, at: State) -> int:
        """Loads that are left at least."""
        if at not in self.known:
            self.known[at] = self._left(at)
        return self.known[at]

    def _left(self, at: State) -> int:
        most = max((len(row) - n for row, n in zip(self.wants, at, strict=True)), default=0)
        for a, b, fewest in self.pairs:
            most = max(most, fewest[at[a]][at[b]])
        needs: dict[int, int] = {}
        for row, n in zip(self.wants, at, strict=True):
            for paint in set(row[n:]):
                needs[paint] = max(needs.get(paint, 0), row[n:].count(paint))
        return max(most, sum(needs.values()))

    def steps(self, at: State) -> Iterator[tuple[int, State]]:
        """Each paint that can be loaded next, and how far all have come then."""
        for paint in sorted({row[n] for row, n in zip(self.wants, at, strict=True) if n < len(row)}):
            yield paint, self.on(at, paint)

    def on(self, at: State, paint: int) -> State:
        """How far all have come after a load."""
        return tuple(n + (n < len(row) and row[n] == paint) for row, n in zip(self.wants, at, strict=True))

    @property
    def start(self) -> State:
        """Nothing is done."""
        return (0,) * len(self.rows)

    @property
    def end(self) -> State:
        """All is done."""
        return tuple(len(row) for row in self.wants)

    def best(self) -> Order | None:
        """An order of fewest loads; None where it is not found within `MOST_LOOKED` states."""
        start = self.start
        came: dict[State, tuple[int, State, int]] = {start: (0, start, -1)}
        queue = [(self.left(start), 0, start)]
        while queue:
            _, less, at = heappop(queue)
            if at == self.end:
                return _back(came, at)
            if len(self.known) > self._scaled(MOST_LOOKED):
                return None
            loads = -less
            if loads > came[at][0]:
                continue
            for paint, to in self.steps(at):
                if to not in came or came[to][0] > loads + 1:
                    came[to] = (loads + 1, at, paint)
                    heappush(queue, (loads + 1 + self.left(to), -loads - 1, to))
        return ()

    def good(self) -> Order:
        """An order of few loads: the most promising states are followed side by side."""
        front: dict[State, Order] = {self.start: ()}
        while self.end not in front:
            following: dict[State, Order] = {}
            for at, order in front.items():
                for paint, to in self.steps(at):
                    following.setdefault(to, (*order, paint))
            front = {at: following[at] for at in nsmallest(self._scaled(BEAM) or 1, following, key=self.left)}
        return front[self.end]

    def in_time(self, most: int) -> Order | None:
        """An order of at most so many loads that keeps every longest wait and ends early: what can end
        soonest is followed side by side; None where none is found.
        """
        front: list[OrderSoFar] = [OrderSoFar(self.start, (0,) * len(self.rows), 0, ())]
        while front:
            following: dict[State, OrderSoFar] = {}
            for one in front:
                if one.at == self.end:
                    return one.order
                for paint, to in self.steps(one.at):
                    after = self._after(one, paint, to)
                    if after is None or len(after.order) + self.left(to) > most:
                        continue
                    if to not in following or self._ends(after) < self._ends(following[to]):
                        following[to] = after
            front = nsmallest(self._scaled(BEAM) or 1, following.values(), key=self._ends)
            done = next((one for one in front if one.at == self.end), None)
            if done is not None:
                return done.order
        return None

    def _after(self, one: "OrderSoFar", paint: int, to: State) -> "OrderSoFar | None":
        """A load more; None where a layer would wait longer than it may."""
        here = [i for i, (now, then) in enumerate(zip(one.at, to, strict=True)) if then > now]
        begins = one.clock
        for i in here:
            if one.at[i]:
                begins = max(begins, one.ends[i] + self.rows[i][one.at[i] - 1].wait_min)
        for i in here:
            window = self.rows[i][one.at[i] - 1].window_min if one.at[i] else None
            if window is not None and begins - one.ends[i] > window:
                return None
        tasks = [self.rows[i][one.at[i]] for i in here]
        hands = sum(task.each_min * self.count[i] for i, task in zip(here, tasks, strict=True))
        clock = begins + max(task.setup_min for task in tasks) + hands
        ends = tuple(clock if i in here else end for i, end in enumerate(one.ends))
        return OrderSoFar(to, ends, clock, (*one.order, paint))

    def _ends(self, one: "OrderSoFar") -> int:
        """When all can be done at the earliest [min]."""
        least = one.clock
        for row, n, end in zip(self.rows, one.at, one.ends, strict=True):
            before = row[n - 1].wait_min if 0 < n < len(row) else 0
            left = [task.setup_min + task.each_min + task.wait_min for task in row[n:]]
            least = max(least, end + before + sum(left))
        return least

    def times(self, order: Order) -> tuple[list[tuple[int, int]], list[list[int]]]:
        """From when to when each load is done at the earliest [min], and in which each layer is."""
        at, clock = list(self.start), 0
        times: list[tuple[int, int]] = []
        slots: list[list[int]] = [[] for _ in self.rows]
        for number, paint in enumerate(order):
            here = [i for i, row in enumerate(self.wants) if at[i] < len(row) and row[at[i]] == paint]
            begins = clock
            for i in here:
                if at[i]:
                    begins = max(begins, times[slots[i][-1]][1] + self.rows[i][at[i] - 1].wait_min)
            tasks = [self.rows[i][at[i]] for i in here]
            hands = sum(self.rows[i][at[i]].each_min * self.count[i] for i in here)
            clock = begins + max((task.setup_min for task in tasks), default=0) + hands
            times.append((begins, clock))
            for i in here:
                slots[i].append(number)
                at[i] += 1
        return times, slots

    def missed(self, order: Order) -> list[tuple[int, int]]:
        """Layers whose longest wait an order does not keep, as (piece, layer)."""
        if all(task.window_min is None for row in self.rows for task in row):
            return []
        times, slots = self.times(order)
        return [
            (i, j)
            for i, row in enumerate(slots)
            for j in range(len(row) - 1)
            for window in (self.rows[i][j].window_min,)
            if window is not None and times[row[j + 1]][0] - times[row[j]][1] > window
        ]


def _fewest(one: Sequence[int], other: Sequence[int]) -> list[list[int]]:
    """Length of the shortest common supersequence of what is left of two, by how far each has come."""
    fewest = [[0] * (len(other) + 1) for _ in range(len(one) + 1)]
    for a in range(len(one), -1, -1):
        for b in range(len(other), -1, -1):
            if a == len(one) or b == len(other):
                fewest[a][b] = len(one) - a + len(other) - b
            elif one[a] == other[b]:
                fewest[a][b] = 1 + fewest[a + 1][b + 1]
            else:
                fewest[a][b] = 1 + min(fewest[a + 1][b], fewest[a][b + 1])
    return fewest


def _back(came: dict[State, tuple[int, State, int]], at: State) -> Order:
    order: list[int] = []
    while came[at][2] >= 0:
        _, at, paint = came[at]
        order.append(paint)
    return tuple(reversed(order))


def _plan(search: Search, together: Sequence[Sequence[int]], order: Order, is_best: bool) -> LoadPlan:
    times, slots = search.times(order)
    loads = []
    for number, ((begins, ends), paint) in enumerate(zip(times, order, strict=True)):
        tasks = sorted(
            (piece, row.index(number))
            for i, row in enumerate(slots)
            if number in row
            for piece in together[i]
        )
        loads.append(Load(search.paints[paint], tuple(tasks), begins, ends))
    missed = sorted((piece, j) for i, j in search.missed(order) for piece in together[i])
    alone = sum(len(row) * n for row, n in zip(search.rows, search.count, strict=True))
    return LoadPlan(tuple(loads), alone - len(loads), is_best, tuple(missed))
