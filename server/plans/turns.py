"""Whose turn it is: everybody who waits gets one before anybody gets a second."""

from collections import OrderedDict, deque
from collections.abc import Hashable
from threading import Condition
from typing import Generic, TypeVar

T = TypeVar("T")


class Turns(Generic[T]):
    """Things that wait, each of an owner. Those of one keep their order; owners take turns."""

    def __init__(self) -> None:
        self._waiting: OrderedDict[Hashable, deque[T]] = OrderedDict()
        self._changed = Condition()

    def put(self, owner: Hashable, thing: T) -> None:
        """Queues a thing behind those of its owner, and its owner, where new, behind the others."""
        with self._changed:
            self._waiting.setdefault(owner, deque()).append(thing)
            self._changed.notify()

    def get(self) -> T:
        """The next thing; waits until there is one. Its owner goes behind the others."""
        with self._changed:
            while not self._waiting:
                self._changed.wait()
            owner, things = self._waiting.popitem(last=False)
            thing = things.popleft()
            if things:
                self._waiting[owner] = things
            return thing
