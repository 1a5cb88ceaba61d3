package dibble.files;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.gear.SoundFile;
import dibble.gear.UnknownFields;
import dibble.recording.ManualEdits;
import dibble.recording.Region;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.AcceptedFinding;
import dibble.session.ClockPlan;
import dibble.session.Connection;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Writes {@code session.json}; unknown fields come back. */
public final class SessionWriter {
    private static final ObjectMapper JSON = new ObjectMapper();

    private SessionWriter() {}

    /** The names of the files that takes and tracks are in. */
    public interface FileNames {
        String take(Take take);

        String clip(Track track);

        String prints(Track track);
    }

    /** Named by their ids, as in a container. */
    public static final FileNames BY_ID = new FileNames() {
        @Override
        public String take(Take take) {
            return takeFile(take.id());
        }

        @Override
        public String clip(Track track) {
            return "tracks/" + track.id() + ".mid";
        }

        @Override
        public String prints(Track track) {
            return "prints/" + track.id() + ".mid";
        }
    };

    /**
     * A session whose takes and tracks' contents lie elsewhere, of which only the names are known.
     *
     * @param before what named them
     */
    public static ObjectNode bare(Session session, Performance performance, JsonNode before) {
        ObjectNode node = session(session, performance, BY_ID);
        if (before.has("takes")) {
            node.set("takes", before.get("takes"));
        }
        Map<String, JsonNode> known = new HashMap<>();
        before.path("tracks").forEach(track -> known.put(track.path("id").asText(), track));
        for (JsonNode track : node.path("tracks")) {
            JsonNode same = known.get(track.path("id").asText());
            ((ObjectNode) track).remove("file");
            for (String field : List.of("file", "prints", "regions", "byHand", "printedFrom")) {
                if (same != null && same.has(field)) {
                    ((ObjectNode) track).set(field, same.get(field));
                }
            }
        }
        return node;
    }

    /** Returns an object as the indented JSON of a file. */
    public static byte[] bytes(ObjectNode session) {
        try {
            return JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(session);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a session that JSON cannot express", e);
        }
    }

    static String takeFile(String id) {
        return "takes/" + id + ".jsonl";
    }

    /** A session with the names of its files. */
    public static ObjectNode session(Session session, Performance performance, FileNames files) {
        UnknownFields extras = session.extras();
        ObjectNode node = head(session.name());
        node.put("middleC", session.middleC().name());
        tempo(node, session.tempo(), extras);
        ArrayNode markers = node.putArray("markers");
        for (Marker marker : session.markers()) {
            ObjectNode to = markers.addObject().put("at", marker.at()).put("name", marker.name());
            Fields.putAll(to, extras.at("markers " + SessionReader.nameOf(marker)));
        }
        RoutingWriter.put(node, session.routing(performance), extras);
        performance(node, session, performance);
        ArrayNode tracks = node.putArray("tracks");
        session.tracks().forEach(track -> tracks.add(track(track, files)));
        ArrayNode takes = node.putArray("takes");
        for (Take take : session.takes()) {
            ObjectNode to = takes.addObject()
                    .put("id", take.id())
                    .put("name", take.name())
                    .put("file", files.take(take));
            Fields.putAll(to, take.extras());
        }
        settled(node, session.settled());
        clock(node, session.clock(), extras.at("clock"));
        levels(node, session, extras);
        Fields.putAll(node, extras);
        return node;
    }

    /** Names of outputs, and the files that sounds come from. */
    private static void levels(ObjectNode node, Session session, UnknownFields extras) {
        if (!session.outputs().isEmpty()) {
            ArrayNode outputs = node.putArray("outputs");
            session.outputs().forEach((number, name) -> {
                ObjectNode to = outputs.addObject().put("number", number).put("name", name);
                Fields.putAll(to, extras.at("outputs " + number));
            });
        }
        if (!session.soundFiles().isEmpty()) {
            ArrayNode files = node.putArray("soundFiles");
            for (SoundFile file : session.soundFiles()) {
                ObjectNode to = files.addObject()
                        .put("id", file.id())
                        .put("name", file.name())
                        .put("path", file.path())
                        .put("sha256", file.sha256());
                Fields.putAll(to, extras.at("soundFiles " + file.id()));
            }
        }
    }

    private static void tempo(ObjectNode node, TempoMap map, UnknownFields extras) {
        ArrayNode tempo = node.putArray("tempo");
        for (TempoMap.Tempo at : map.tempos()) {
            ObjectNode to = tempo.addObject().put("at", at.at()).put("bpm", at.bpm());
            Fields.putAll(to, extras.at("tempo " + at.at()));
        }
        ArrayNode meter = node.putArray("meter");
        for (TempoMap.Meter at : map.meters()) {
            ObjectNode to = meter.addObject()
                    .put("at", at.at())
                    .put("beats", at.beats())
                    .put("unit", at.unit());
            Fields.putAll(to, extras.at("meter " + at.at()));
        }
    }

    private static void performance(ObjectNode node, Session session, Performance performance) {
        ObjectNode player = node.putObject("performance");
        player.put("activeScene", session.activeScene(performance));
        ObjectNode hear = player.putObject("hear");
        session.sources()
                .forEach(source -> hear.put(source.id(), !performance.unheard().contains(source.id())));
        names(player.putArray("armed"), performance.armed());
        names(player.putArray("muted"), performance.muted());
        names(player.putArray("soloed"), performance.soloed());
        if (!performance.connections().isEmpty()) {
            ArrayNode cables = player.putArray("connections");
            for (Connection cable : performance.connections()) {
                ObjectNode to = cables.addObject().put("own", cable.own()).put("other", cable.other());
                Fields.putAll(
                        to, session.extras().at("performance").at("connections " + cable.own() + " " + cable.other()));
            }
        }
        if (!performance.setUp().isEmpty()) {
            names(player.putArray("setUp"), performance.setUp());
        }
        Fields.putAll(player, session.extras().at("performance"));
    }

    private static void settled(ObjectNode node, List<AcceptedFinding> checks) {
        if (!checks.isEmpty()) {
            ArrayNode settled = node.putArray("settledChecks");
            for (AcceptedFinding as : checks) {
                ObjectNode check = settled.addObject().put("code", as.code());
                as.ids().forEach(check.putArray("ids")::add);
                Fields.putAll(check, as.extras());
            }
        }
    }

    private static void clock(ObjectNode node, ClockPlan plan, UnknownFields extras) {
        if (!plan.equals(ClockPlan.NONE) || !extras.isEmpty()) {
            ObjectNode clock = node.putObject("clock");
            plan.to().forEach(clock.putArray("to")::add);
            if (plan.from() != null) {
                clock.put("from", plan.from());
            }
            Fields.putAll(clock, extras);
        }
    }

    private static ObjectNode head(String name) {
        return JSON.createObjectNode()
                .put("$schema", "session.schema.json")
                .put("format", "dibble-session")
                .put("version", SessionReader.VERSION)
                .put("name", name);
    }

    /**
     * A routing alone, in the form of a session, as takes keep it.
     *
     * @param extras those of the session in whose form it is
     */
    static ObjectNode routingAlone(Routing routing, UnknownFields extras) {
        ObjectNode node = head("routing");
        RoutingWriter.put(node, routing, extras);
        ObjectNode player = node.putObject("performance").put("activeScene", routing.activeScene());
        Fields.putAll(player, extras.at("performance"));
        Fields.putAll(node, extras);
        return node;
    }

    private static void names(ArrayNode to, Set<String> names) {
        new TreeSet<>(names).forEach(to::add);
    }

    private static ObjectNode track(Track track, FileNames files) {
        ObjectNode node = JSON.createObjectNode();
        node.put("id", track.id());
        node.put("name", track.name());
        boolean said = !(track.input() instanceof Track.Unknown unknown
                && unknown.fields().isEmpty());
        if (said) {
            input(node.putObject("takes"), track);
        }
        UnknownFields ofTo = track.extras().at("to");
        if (track.to() != null || !ofTo.isEmpty()) {
            ObjectNode to = node.putObject("to");
            if (track.to() != null) {
                to.put("part", track.to().toString());
            }
            Fields.putAll(to, ofTo);
        }
        node.put("file", files.clip(track));
        regions(node, track, files);
        byHand(node, track);
        Fields.putAll(node, track.extras());
        return node;
    }

    private static void input(ObjectNode takes, Track track) {
        if (track.input() instanceof Track.OfKey of) {
            takes.put("part", of.part().toString()).put("key", of.key());
        } else if (track.input() instanceof Track.OfPart of) {
            takes.put("part", of.part().toString());
        } else if (track.input() instanceof Track.OfSource of) {
            takes.put("source", of.source());
        } else if (track.input() instanceof Track.OfChannel of) {
            takes.put("source", of.source()).put("channel", of.channel());
        } else if (track.input() instanceof Track.OfZone of) {
            takes.put("zone", of.zone());
        } else if (track.input() instanceof Track.Unknown unknown) {
            Fields.putAll(takes, unknown.fields());
        } else if (track.takesRest()) {
            takes.put("rest", true);
        }
        Fields.putAll(takes, track.extras().at("takes"));
    }

    private static void regions(ObjectNode node, Track track, FileNames files) {
        boolean prints = !TrackFiles.keptPrints(track).isEmpty();
        if (prints) {
            node.put("prints", files.prints(track));
        }
        if (track.regions().isEmpty()) {
            return;
        }
        ArrayNode regions = node.putArray("regions");
        for (Region region : track.regions().all()) {
            ObjectNode to = regions.addObject();
            if (region.take() != null) {
                to.put("take", region.take());
            }
            to.put("from", region.from())
                    .put("to", region.to())
                    .put("printed", region.printed().word())
                    .put("edited", region.edited());
            if (prints && !region.isGone()) {
                to.put("print", track.regions().printNumber(region));
            }
            Fields.putAll(to, track.extras().at("regions " + SessionReader.nameOf(region)));
        }
    }

    private static void byHand(ObjectNode node, Track track) {
        Optional<ManualEdits> hand = track.regions().byHand();
        UnknownFields extras = track.extras().at("byHand");
        if (hand.isPresent() || !extras.isEmpty()) {
            ObjectNode to = node.putObject("byHand");
            hand.ifPresent(it -> to.put("played", it.originsOf(false).text()));
            hand.filter(it -> it.silent().size() > 0)
                    .ifPresent(it -> to.put("muted", it.originsOf(true).text())
                            .put("mutedEvents", TrackFiles.text(it.silentEvents())));
            Fields.putAll(to, extras);
        }
    }
}
