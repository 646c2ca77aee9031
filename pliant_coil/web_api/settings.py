"""What the server is told from outside, through the environment."""

from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

from pliant_coil.services.workshop import DEMO_SLUG

LOOPBACK = ["127.0.0.1", "localhost", "[::1]"]

_PACKED = Path(__file__).parents[1] / "front_end"
"""Where an installed wheel has the built pages."""
_BUILT = Path(__file__).parents[2] / "web" / "dist"


class Settings(BaseSettings):
    """DATABASE_URL, WORKSHOP, and under PLIANT_COIL_: HOSTS, the names that the server is known by (JSON); DEVICES, the
    tools at the bench by name with their `host:port` (JSON); LOG, the file to log to
    instead of stderr; FRONT_END, the folder with the built pages."""

    model_config = SettingsConfigDict(extra="ignore")

    database_url: str = Field("postgresql://127.0.0.1/pliant_coil")
    workshop: str = Field(DEMO_SLUG)
    hosts: list[str] = Field(LOOPBACK, validation_alias="PLIANT_COIL_HOSTS")
    devices: dict[str, str] = Field({}, validation_alias="PLIANT_COIL_DEVICES")
    log: Path | None = Field(None, validation_alias="PLIANT_COIL_LOG")
    front_end: Path = Field(_PACKED if _PACKED.is_dir() else _BUILT, validation_alias="PLIANT_COIL_FRONT_END")

    @property
    def on_loopback(self) -> bool:
        """Whether nobody but this machine's own people can come."""
        return set(self.hosts) <= set(LOOPBACK)
