"""Vaulted rooms: the lining of a ceiling carried up under the roof at a pitch of its own, without joists."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import shapely

from ...building.diagnostics import Diagnostic
from ...building.parts import Part, part_key
from ...building.placed import Key
from ...geometry import Plane3, polygons_of, prism
from ...model import Ceiling, MakeUp, Project
from ...units import Units, format_pitch
from ..levels.place import storeys
from ..levels.placed import Level
from ..roofs.placed import ResolvedRoof, Shape, shape_of
from ..rooms.placed import RoomSpace

LEAST = 1e4
"""A slope that covers less of a room than this (mm2) does not vault it."""
CLEAR = 1.0
"""By so much a vault may pass the underside of its rafters (mm)."""


@dataclass(frozen=True, slots=True)
class Vault:
    """A piece of a vaulted room under one slope: its plan, the underside of the framing that it hangs from, the
    underside of the rafters."""

    room: str
    slot: str
    area: Shape
    plane: Plane3
    rafters: Plane3
    slope: float


def plan_vaults(
    project: Project,
    rooms: tuple[RoomSpace, ...],
    roofs: tuple[ResolvedRoof, ...],
    levels: dict[str, Level],
    found: list[Diagnostic],
) -> dict[str, tuple[Vault, ...]]:
    """Per plate, the vaults of the storey below it. A vault is the roof over it, flattened: slopes
    rise from the plates at its pitch as the roof's do at theirs."""
    vaults: dict[str, tuple[Vault, ...]] = {}
    plates = {storey.level: storey.plate for storey in storeys(project)}
    for held in rooms:
        plate, pitch = plates.get(held.level), held.room.vault
        if pitch is None or held.space is None or plate is None:
            continue
        over = tuple(roof for roof in roofs if roof.block.plate == plate)
        pieces = tuple(_pieces(held, pitch, over, levels[plate].z))
        at = (held.room.x, held.room.y)
        if not pieces:
            message = f"no roof bears on the walls around {held.room.name}, so its ceiling stays flat: put its roof on"
            found.append(Diagnostic("vault-without-roof", message, held.room.id, "vault", at=at))
            continue
        vaults[plate] = (*vaults.get(plate, ()), *pieces)
        highest = min(_highest(piece, pitch, levels[plate].z) for piece in pieces)
        if highest < pitch - 1e-6:
            message = _too_high(held.room.name, highest, project.units)
            found.append(Diagnostic("vault-above-roof", message, held.room.id, "vault", pitch, highest, at=at))
    return vaults


def _pieces(held: RoomSpace, pitch: float, roofs: tuple[ResolvedRoof, ...], z: float) -> Iterator[Vault]:
    for roof in roofs:
        share = pitch / roof.block.pitch
        for plane in roof.planes:
            area = held.space.intersection(plane.whole) if held.space else None
            if area is None or area.area < LEAST:
                continue
            a, b, c = plane.top
            flat = Plane3(a * share, b * share, z + share * (c - roof.heel.total))
            under = plane.top.lifted(-plane.plumb_depth)
            shape = shape_of(polygons_of(area))
            yield Vault(
                held.room.id,
                f"{roof.block.id}:{roof.slot_of(plane)}",
                shape,
                flat,
                under,
                math.hypot(1.0, plane.pitch * share),
            )


def _highest(piece: Vault, pitch: float, z: float) -> float:
    """The steepest pitch at which a piece of a vault stays below its rafters."""
    best = pitch
    for x, y in shapely.get_coordinates(piece.area).tolist():
        rise = piece.plane.z(x, y) - z
        over = piece.plane.z(x, y) - piece.rafters.z(x, y)
        if rise > CLEAR and over > CLEAR:
            best = min(best, pitch * (rise - over) / rise)
    return best


def _too_high(name: str, highest: float, units: Units) -> str:
    if highest <= 0:
        return f"the vault of {name} comes above its rafters at once: raise the heel of the roof"
    return f"the vault of {name} comes above the rafters of its roof: make it {format_pitch(highest, units)} or flatter"


@lru_cache(maxsize=64)
def vault_parts(ceiling: Ceiling, make_up: MakeUp, vaults: tuple[Vault, ...], level: Level) -> tuple[Part, ...]:
    """Quilt over a vault as deep as the joists would be, and the boards below; never above the underside of rafters."""
    parts = []
    for vault in vaults:
        high = vault.rafters.z(*max(shapely.get_coordinates(vault.area).tolist(), key=lambda p: vault.rafters.z(*p)))
        body = prism(vault.area, level.z - 1000.0, high + 1.0).below(vault.rafters)
        low = vault.plane
        for layer in make_up.layers:
            if layer.framing:
                if layer.framing.infill:
                    quilt = body.above(vault.plane).below(vault.plane.lifted(layer.thickness * vault.slope))
                    parts.append(_part(ceiling, "infill", layer.framing.infill, layer.id, vault, quilt, level))
                continue
            top, low = low, low.lifted(-layer.thickness * vault.slope)
            parts.append(
                _part(ceiling, layer.function, layer.material, layer.id, vault, body.below(top).above(low), level)
            )
    return tuple(part for part in parts if not part.solid.is_empty)


def _part(ceiling: Ceiling, role: str, material: str, layer: str, vault: Vault, solid: object, level: Level) -> Part:
    key = part_key(ceiling.id, role, layer, f"vault:{vault.room}:{vault.slot}")
    function = "insulation" if role == "infill" else role
    return Part(key, ceiling.id, role, material, solid, sums=(level.sum.id,), outside=False, function=function)  # type: ignore[arg-type]


VAULTS: Key[dict[str, tuple[Vault, ...]]] = Key("vaults")
