"""What the server is told from outside, through the environment."""

from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

from pliant_coil.services.workshop import DEMO_SLUG

LOOPBACK = ["127.0.0.1", "localhost", "[::1]"]

_PACKED = Path(__file__).parents[1] / "front_end"
"""Where an installed wheel has the built pages."""


class Settings(BaseSettings):
    """DATABASE_URL, WORKSHOP, the folder with the built front end, and the names that the server is known by (PLIANT_COIL_HOSTS, JSON)."""

    model_config = SettingsConfigDict(extra="ignore")

    database_url: str = Field("postgresql://127.0.0.1/pliant_coil")
    workshop: str = Field(DEMO_SLUG)
    hosts: list[str] = Field(LOOPBACK, validation_alias="PLIANT_COIL_HOSTS")
    front_end: Path = Field(
        _PACKED if _PACKED.is_dir() else Path(__file__).parents[2] / "web" / "dist", validation_alias="PLIANT_COIL_FRONT_END"
    )

    @property
    def on_loopback(self) -> bool:
        """Whether nobody but this machine's own people can come."""
        return set(self.hosts) <= set(LOOPBACK)
