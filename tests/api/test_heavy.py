"""Heavy work waits its turn, and what can't be served soon is told to come again."""

import threading

import anyio
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from pliant_coil.web_api.heavy import AT_ONCE, MOST_WAITING, Heavy, TooBusy


def test_a_few_at_once_and_no_endless_queue() -> None:
    queue, going, running, most = Heavy(), threading.Event(), 0, 0
    counting = threading.Lock()

    def work() -> None:
        nonlocal running, most
        with counting:
            running += 1
            most = max(most, running)
        going.wait(10)
        with counting:
            running -= 1

    async def all_of_it() -> None:
        async with anyio.create_task_group() as tasks:
            for _ in range(MOST_WAITING):
                tasks.start_soon(queue.run, work)
            while running < AT_ONCE:
                await anyio.sleep(0.001)
            with pytest.raises(TooBusy):
                await queue.run(work)
            going.set()
        assert await queue.run(lambda: "free again") == "free again"

    anyio.run(all_of_it)
    assert most == AT_ONCE


def test_a_full_queue_is_an_answer(client: TestClient, app: FastAPI, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(app.state.queues, "drawings", Heavy(most_waiting=0))
    refused = client.post("/api/plan", json={}, params={"paths": True})
    assert refused.status_code == 503 and refused.headers["retry-after"] == "1"
    assert refused.json()["errors"][0]["accepted"]
    assert client.post("/api/plan", json={}).status_code == 200, "figures alone don't wait"
