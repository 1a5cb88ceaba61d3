package dibble.routing;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.PartRef;
import dibble.gear.Source;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * All that decides where an event goes: what the compiler compiles, and what a take keeps of the session.
 *
 * @param always zones that hold in every scene
 * @param activeScene the id of the scene that holds, or null where there is none
 */
public record Routing(
        List<Source> sources,
        List<Instrument> instruments,
        ChannelPlan channels,
        List<Zone> always,
        List<Scene> scenes,
        String activeScene) {
    public Routing {
        sources = List.copyOf(sources);
        instruments = List.copyOf(instruments);
        always = List.copyOf(always);
        scenes = List.copyOf(scenes);
    }

    /** The zones that hold now, in their order: always zones first, then those of the active scene. */
    public List<Zone> zones() {
        List<Zone> zones = new ArrayList<>(always);
        scenes.stream()
                .filter(scene -> scene.id().equals(activeScene))
                .findFirst()
                .ifPresent(scene -> zones.addAll(scene.zones()));
        return zones;
    }

    public Optional<Source> source(String id) {
        return sources.stream().filter(source -> source.id().equals(id)).findFirst();
    }

    public Optional<Instrument> instrument(String id) {
        return instruments.stream()
                .filter(instrument -> instrument.id().equals(id))
                .findFirst();
    }

    /** The destination of a part: its instrument's port and its channel; empty where it has none. */
    public Optional<Destination> destination(PartRef part) {
        var channel = channels.channel(part);
        return channel.isEmpty()
                ? Optional.empty()
                : instrument(part.instrument()).map(i -> new Destination(i.port(), channel.getAsInt()));
    }
}
