"""What a wheel is built with beside the package: the pages, which ./start builds first."""

from typing import Any

from hatchling.builders.hooks.plugin.interface import BuildHookInterface


class Pages(BuildHookInterface[Any]):
    """Puts the built pages into a wheel; an editable install takes them from where they are built."""

    def initialize(self, version: str, build_data: dict[str, Any]) -> None:
        """Called before a wheel is built. `version` is `standard` or `editable`."""
        if version == "standard":
            build_data["force_include"]["web/dist"] = "pliant_coil/front_end"
