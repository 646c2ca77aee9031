"""The terminal's contract: exit codes, streams, JSON."""

import io
import json
import subprocess
import sys
from pathlib import Path

import pytest

from pliant_coil.cli import main
from tests.core.recipes import AMBER_MEADOW


def test_plans_a_file_and_standard_input_alike(tmp_path: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch) -> None:
    file = tmp_path / "amber.ring.json"
    file.write_text(json.dumps(AMBER_MEADOW))
    assert main(["plan", str(file), "--json"]) == 0
    from_file = json.loads(capsys.readouterr().out)
    monkeypatch.setattr("sys.stdin", io.TextIOWrapper(io.BytesIO(file.read_bytes())))
    assert main(["plan", "-", "--json"]) == 0
    assert json.loads(capsys.readouterr().out) == from_file
    assert {"target", "start", "finished", "contributions", "schools", "wires", "beads", "steps", "warnings"} <= set(from_file)
    assert from_file["wires"][0]["moves"][0] | {"kind": "spare"} == from_file["wires"][0]["moves"][0]


def test_prints_a_card(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "amber.ring.json"
    file.write_text(json.dumps(AMBER_MEADOW))
    assert main(["plan", str(file)]) == 0
    card = capsys.readouterr().out
    for words in ("Amber meadow ring", "Start at  just short of US 7 3/4", "Cut ", "lock ×2", "eyes covered"):
        assert words in card


@pytest.mark.parametrize("text", ['{"finger": {"size": "US 99"}}', "{", ""])
def test_refuses_with_exit_2_and_the_field_on_stderr(text: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "bad.ring.json"
    file.write_text(text)
    assert main(["plan", str(file)]) == 2
    told = capsys.readouterr()
    assert told.out == ""
    assert told.err.startswith("pliant-coil: ")
    assert "Traceback" not in told.err


def test_sizes_and_styles(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["sizes", "UK", "M"]) == 0
    assert "US 6 1/4" in capsys.readouterr().out
    assert main(["sizes", "US 99"]) == 2
    assert "US 0 to US 16" in capsys.readouterr().err
    assert main(["styles"]) == 0
    told = capsys.readouterr().out
    assert "band turned" in told and "head bead-lock" in told and "from 1, to 4, usually 1" in told


def test_sizes_loads_nothing_heavy() -> None:
    code = "import sys; from pliant_coil.cli import main; main(['sizes', 'M']); print(sorted(m for m in sys.modules if '.' not in m))"
    loaded = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout
    assert not {"pydantic", "fastapi", "sqlalchemy", "numpy"} & set(loaded.replace("'", " ").replace(",", " ").split())


def test_resize_says_what_each_way_gives(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["resize", "pliant_coil/demo/01-amber-meadow.ring.json", "US", "7", "--units", "in", "--sizes", "us"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert lines[0] == "Comes off US 6 1/2, wanted US 7"
    assert [line.split()[:2] for line in lines[1:]] == [["yes", "stretch:"], ["yes", "lock-again:"], ["no", "hammer:"]]
    assert main(["resize", "pliant_coil/demo/01-amber-meadow.ring.json", "US", "99"]) == 2
