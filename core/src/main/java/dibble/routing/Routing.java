package dibble.routing;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * The part of a session that decides where events go: the input of the compiler, and the part that a take keeps.
 *
 * @param always zones that hold in every scene
 * @param controls control maps that hold in every scene
 * @param sceneSwitch the program changes that call scenes, or null for none
 * @param activeScene the id of the active scene, or null
 */
@RecordBuilder
public record Routing(
        List<Source> sources,
        List<Instrument> instruments,
        ChannelPlan channels,
        List<Zone> always,
        List<ControlMap> controls,
        List<Scene> scenes,
        SceneSwitch sceneSwitch,
        String activeScene)
        implements RoutingBuilder.With {
    public Routing {
        sources = List.copyOf(sources);
        instruments = List.copyOf(instruments);
        always = List.copyOf(always);
        controls = List.copyOf(controls);
        scenes = List.copyOf(scenes);
    }

    /** A routing of zones alone. */
    public static Routing of(
            List<Source> sources,
            List<Instrument> instruments,
            ChannelPlan channels,
            List<Zone> always,
            List<Scene> scenes,
            String activeScene) {
        return new Routing(sources, instruments, channels, always, List.of(), scenes, null, activeScene);
    }

    /** The same with one zone alone of those that its source plays; the very same where there is no such zone. */
    public Routing alone(String zoneId) {
        Optional<Zone> found = Stream.concat(always.stream(), scenes.stream().flatMap(scene -> scene.zones().stream()))
                .filter(zone -> zone.id().equals(zoneId))
                .findFirst();
        if (found.isEmpty()) {
            return this;
        }
        String source = found.get().source();
        UnaryOperator<List<Zone>> quiet = zones -> zones.stream()
                .map(zone -> zone.id().equals(zoneId) || !zone.isPlayedBy(source) ? zone : zone.withEnabled(false))
                .toList();
        List<Scene> quietScenes = scenes.stream()
                .map(scene -> scene.withZones(quiet.apply(scene.zones())))
                .toList();
        return new Routing(
                sources, instruments, channels, quiet.apply(always), controls, quietScenes, sceneSwitch, activeScene);
    }

    /** The same with another scene in force. */
    public Routing withScene(String id) {
        return new Routing(sources, instruments, channels, always, controls, scenes, sceneSwitch, id);
    }

    /** The zones that hold now, in their order: always zones first, then those of the active scene. */
    public List<Zone> zones() {
        return withScenes(always, Scene::zones);
    }

    /** The control maps that hold now: those that are always there first, then those of the active scene. */
    public List<ControlMap> controlMaps() {
        return withScenes(controls, Scene::controls);
    }

    private <T> List<T> withScenes(List<T> first, Function<Scene, List<T>> ofScene) {
        List<T> all = new ArrayList<>(first);
        scene(activeScene).map(ofScene).ifPresent(all::addAll);
        return all;
    }

    /** The scene with an id, if there is one. */
    public Optional<Scene> scene(String id) {
        return scenes.stream().filter(scene -> scene.id().equals(id)).findFirst();
    }

    /** The part, if it is there. */
    /** The messages that give a channel 0-15 a part's sound; none where there is no such part. */
    public int[] soundOf(PartRef ref, int channel) {
        return instrument(ref.instrument())
                .flatMap(of -> of.part(ref.part()).map(part -> of.messages(part.sound(), channel)))
                .orElse(new int[0]);
    }

    /** The part that is pointed to, if it is there. */
    public Optional<Part> part(PartRef ref) {
        return instrument(ref.instrument()).flatMap(instrument -> instrument.part(ref.part()));
    }

    /** The part of an instrument that has a channel 1-16 now. */
    public Optional<Part> partAt(String instrument, int channel) {
        return instrument(instrument)
                .flatMap(it -> it.parts().stream()
                        .filter(part -> channels.channel(it.ref(part)).orElse(0) == channel)
                        .findFirst());
    }

    /** The source with an id, if there is one. */
    public Optional<Source> source(String id) {
        return sources.stream().filter(source -> source.id().equals(id)).findFirst();
    }

    /** The instrument with an id, if there is one. */
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
