"""Presets of the voice: kept under a name, brought back, renamed, removed."""

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.edits.voice import CHAIN, chain_put
from firecrest.design.voice import Channel, Preset, StoredChain, Voice

MOST = 12


def names(voice: Voice) -> list[str]:
    """Names of all presets, the one in force among them, in their order."""
    stored = [preset.name for preset in voice.presets]
    return stored if voice.preset in stored else [voice.preset, *stored]


def stored(channel: Channel) -> StoredChain:
    """The chain of a channel as a preset keeps it."""
    return StoredChain(channel=channel.id, **{name: getattr(channel, name) for name in CHAIN})


def _put_aside(voice: Voice) -> tuple[Preset, ...]:
    """All presets with what is in force under its own name."""
    now = Preset(name=voice.preset, chains=tuple(stored(c) for c in voice.channels))
    if all(preset.name != now.name for preset in voice.presets):
        return (now, *voice.presets)
    return tuple(now if p.name == now.name else p for p in voice.presets)


def keep_as(design: Design, name: str) -> tuple[str, Design]:
    """(label, design) that goes on under a new name; what was in force is kept under its own."""
    voice, name = design.voice, name.strip()
    if not name:
        raise DesignError("A preset needs a name.")
    if name in names(voice):
        raise DesignError(f"There is a preset {name} already. Choose another name.")
    if len(names(voice)) >= MOST:
        raise DesignError(f"A design holds up to {MOST} presets.")
    aside = _put_aside(voice)
    here = Preset(name=name, chains=tuple(stored(c) for c in voice.channels))
    made = rebuilt(voice, preset=name, presets=(*aside, here))
    return f"New preset {name}", replace_at(design, ("voice",), made)


def switched(design: Design, name: str) -> tuple[str, Design]:
    """(label, design) with another preset in force."""
    return f"Preset {name}", replace_at(design, ("voice",), in_force(design.voice, name))


def in_force(voice: Voice, name: str) -> Voice:
    """The voice with a preset in force; channels that it does not know stay as they are."""
    if name == voice.preset:
        return voice
    aside = _put_aside(voice)
    chosen = next((preset for preset in aside if preset.name == name), None)
    if chosen is None:
        raise DesignError(f"There is no preset {name}.")
    chains = {chain.channel: chain for chain in chosen.chains}
    channels = tuple(chain_put(c, chains[c.id]) if c.id in chains else c for c in voice.channels)
    return rebuilt(voice, channels=channels, preset=name, presets=aside)


def renamed(design: Design, name: str) -> tuple[str, Design]:
    """(label, design) with the preset in force under another name."""
    voice, name = design.voice, name.strip()
    if not name or (name != voice.preset and name in names(voice)):
        raise DesignError("A preset needs a name of its own.")
    presets = tuple(rebuilt(p, name=name) if p.name == voice.preset else p for p in voice.presets)
    made = rebuilt(voice, preset=name, presets=presets)
    return f"Preset {voice.preset} → {name}", replace_at(design, ("voice",), made)


def removed(design: Design, name: str) -> tuple[str, Design]:
    """(label, design) without a preset; the one in force hands over to the next."""
    voice = design.voice
    others = [other for other in names(voice) if other != name]
    if not others:
        raise DesignError("The last preset stays.")
    if name == voice.preset:
        voice = in_force(voice, others[0])
    presets = tuple(p for p in voice.presets if p.name != name)
    return f"Remove preset {name}", replace_at(design, ("voice",), rebuilt(voice, presets=presets))
