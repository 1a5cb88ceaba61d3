package dibble.presentation.channels;

import static dibble.presentation.UiText.say;

import dibble.edits.Connections;
import dibble.edits.NumberSeries;
import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.PortChart;
import dibble.session.ChannelChart.Way;
import dibble.session.Document;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/** The presenter of the Channels view. */
public final class ChannelsPresenter {

    private final Document document;
    private final Function<String, ChannelSet> heard;
    private final Set<String> unfolded = new HashSet<>();

    /** The source that is shown alone, or null. */
    private String filter;

    /** @param heard the channels on which a source was heard */
    public ChannelsPresenter(Document document, Function<String, ChannelSet> heard) {
        this.document = document;
        this.heard = heard;
    }

    /** Returns the session now. */
    public Session session() {
        return document.session();
    }

    Routing routing() {
        return document.routing();
    }

    /** Returns the id of the source whose ways are shown; null for all. */
    public String filter() {
        return filter;
    }

    /** Shows the ways of one source; null for all. */
    public void show(String source) {
        filter = source;
    }

    /** Unfolds a port, or folds it again. */
    public void fold(String port, boolean out) {
        if (out) {
            unfolded.add(port);
        } else {
            unfolded.remove(port);
        }
    }

    /** Returns true if a port is unfolded. */
    public boolean isUnfolded(String port) {
        return unfolded.contains(port);
    }

    /** The chart of the sources that are shown; one whose source has gone is a chart of all again. */
    public ChannelChart chart() {
        if (filter != null && session().source(filter).isEmpty()) {
            filter = null;
        }
        ChannelChart all = ChannelChart.of(routing(), heard, unfolded);
        if (filter == null) {
            return all;
        }
        return new ChannelChart(
                all.arrivals().stream().filter(it -> it.source().equals(filter)).toList(),
                all.ports(),
                all.ways().stream()
                        .filter(way -> way.from().source().equals(filter))
                        .toList());
    }

    /** The ids of the sources that are shown. */
    List<String> shownSources() {
        return session().sources().stream()
                .map(Source::id)
                .filter(id -> filter == null || id.equals(filter))
                .toList();
    }

    /** Returns the short name of a received channel. */
    public String arrivalName(Arrival arrival) {
        if (!arrival.name().isEmpty()) {
            return arrival.name();
        }
        if (arrival.channel() == ChannelChart.EVERY) {
            return say("words.all-channels");
        }
        SourceKind kind = session().source(arrival.source()).map(Source::kind).orElse(SourceKind.CONTROLS);
        String word = switch (kind) {
            case KEYBOARD -> say("common.keys-2");
            case PADS -> say("channels-presenter.pads");
            case PEDALS -> say("channels-presenter.pedals");
            case CONTROLS -> say("common.controllers-cc");
            case SEQUENCER -> say("channels-presenter.lane");
            case FILE -> say("common.track");
        };
        return arrival.letIn() ? word : say("channels-presenter.not-listened-to", word);
    }

    /** Returns the full name of a received channel: {@code Teasel, channel 5}. */
    public String from(Arrival arrival) {
        return say(
                "channels-presenter.all-channels-2",
                SessionFormatter.source(arrival.source(), session()),
                arrival.channel() == ChannelChart.EVERY,
                arrival.channel());
    }

    /** Returns the name of a row of a port. */
    public String placeName(Place place) {
        if (place.part() != null) {
            return session()
                    .part(place.part())
                    .map(Part::name)
                    .orElse(place.part().toString());
        }
        if (place.low() == ChannelChart.EVERY) {
            return say("channels-presenter.the-channel-it-arrives-on");
        }
        return place.low() == place.high() ? say("channels-presenter.channel-no-part", place.low()) : "";
    }

    /** Returns the origin of a part's channel: fixed or automatic. */
    public String channelWord(Place place) {
        if (place.part() == null) {
            return "";
        }
        return place.low() < 0
                ? say("channels-presenter.no-free-channel")
                : session().part(place.part()).map(Part::channel).orElse(null) == null
                        ? say("channels-presenter.auto-kept")
                        : say("channels-presenter.fixed");
    }

    /** A port's address of a row: {@code Sorrel 2}. */
    public String address(Place place) {
        String instrument =
                session().instrument(place.instrument()).map(Instrument::name).orElse(place.instrument());
        return place.low() > 0 ? instrument + " " + place.low() : instrument;
    }

    /** Returns the number of the color of a place. */
    public int colour(Place place) {
        return place.part() == null
                ? 0
                : session().part(place.part()).map(Part::colour).orElse(0);
    }

    /** Returns the label of a ribbon: its keys if they are not all, and its scene. */
    public String label(Way way) {
        List<String> words = new ArrayList<>();
        Zone zone = way.zone();
        if (!way.whole()) {
            words.add(SessionFormatter.keys(zone.keys(), session().middleC()));
        }
        if (zone.transpose() != 0) {
            words.add(SessionFormatter.transpose(zone.transpose()));
        }
        if (!zone.velocity().equals(Range.VELOCITIES)) {
            words.add(say(
                    "channels-presenter.velocity",
                    zone.velocity().low(),
                    zone.velocity().high()));
        }
        session().sceneOf(zone.id()).map(Scene::name).ifPresent(scene -> words.add(say("common.only", scene)));
        if (!zone.enabled()) {
            words.add(say("common.off"));
        }
        return String.join(" · ", words);
    }

    /** A way in words: {@code Larkspur 73, channel 1, F♯3–E7, to Celesta on Sorrel 1}. */
    public String sentence(Way way) {
        String label = label(way);
        return say(
                "channels-presenter.to-on",
                from(way.from()),
                label.isEmpty(),
                label,
                placeName(way.to()),
                address(way.to()));
    }

    /** Connects a channel to a place, in addition to its present connections. Returns the id of the new zone. */
    public String join(Arrival from, ZoneTarget to) {
        String id = Connections.freshId(session(), to);
        document.edit(say("edit.connect"), session -> Connections.join(session, id, from.source(), from.channel(), to));
        return id;
    }

    /** Returns true if an arrival is led to a target already, with all its keys. */
    public boolean isJoined(Arrival from, ZoneTarget to) {
        return Connections.isJoined(
                session(), from.source(), from.channel(), to, document.routing().zones());
    }

    /** The names of what an arrival plays already. */
    public List<String> playsAlready(ChannelChart chart, Arrival from) {
        return chart.ways().stream()
                .filter(way -> way.zone().enabled())
                .filter(way -> way.from().equals(from)
                        || way.from().source().equals(from.source())
                                && (from.channel() == ChannelChart.EVERY
                                        || way.from().channel() == ChannelChart.EVERY))
                .map(way -> placeName(way.to()))
                .distinct()
                .toList();
    }

    /**
     * Moves the start of a zone to a key, and ends the other zones of its source before it. Returns false if they
     * cannot be cut there.
     */
    public boolean beside(String zone, int at) {
        Optional<Zone> now = session().zone(zone);
        if (now.isEmpty()
                || at <= now.get().keys().low()
                || at > now.get().keys().high()) {
            return false;
        }
        document.edit(say("edit.split"), session -> Connections.beside(session, zone, at));
        return true;
    }

    /** Removes a way. */
    public void unplug(ChannelChart chart, Way way) {
        document.edit(say("edit.disconnect"), session -> Connections.unplug(session, chart, way));
    }

    /** Leads a way to another target. */
    public void lead(ChannelChart chart, Way way, ZoneTarget to) {
        String id = Connections.freshId(session(), to);
        document.edit(say("edit.move-end-of-ribbon"), session -> Connections.lead(session, chart, way, to, id));
    }

    /** Begins a way at another source or channel. */
    public void beginAt(ChannelChart chart, Way way, Arrival from) {
        String id = ZoneEdits.freshZoneId(session(), way.zone().id());
        document.edit(say("edit.move-start-of-ribbon"), session -> Connections.beginAt(session, chart, way, from, id));
    }

    /** Leads each channel of a port to the same channel. */
    public void straightAcross(ChannelChart chart, PortChart port) {
        document.edit(
                say("edit.channel-to-same-channel"),
                session -> Connections.straightAcross(session, routing(), chart.arrivals(), port));
    }

    /** Leads all channels to one target. */
    public void allToOne(ZoneTarget to) {
        document.edit(
                say("edit.all-to-one-sound"), session -> Connections.allToOne(session, routing(), shownSources(), to));
    }

    /** Removes all ways that are shown. */
    public void unplugAll() {
        document.edit(say("edit.disconnect-all"), session -> Connections.unplugAll(session, routing(), shownSources()));
    }

    /** Changes a zone as one step of undo. */
    public void change(String what, String zone, UnaryOperator<Zone> change) {
        document.edit(what, session -> ZoneEdits.changeZone(session, zone, change));
    }

    /** All parts, in the order of the session. */
    public List<PartRef> parts() {
        return session().instruments().stream()
                .flatMap(instrument -> instrument.parts().stream().map(instrument::ref))
                .toList();
    }

    /** Plans to lead the channels that are shown, from one on, to parts, from one on. */
    public NumberSeries plan(List<Arrival> arrivals, PartRef first, int step) {
        List<String> names = arrivals.stream()
                .map(it -> it.name().isEmpty() ? from(it) : it.name())
                .toList();
        List<PartRef> parts = parts();
        return Connections.plant(session(), routing(), arrivals, names, parts, Math.max(0, parts.indexOf(first)), step);
    }

    /** Numbers channels in a series. */
    public void plant(NumberSeries plant) {
        document.edit(say("edit.plant"), plant::apply);
    }

    /** A typed connection. */
    public record Typed(Arrival from, ZoneTarget to) {}

    /**
     * Parses a source (if it is not the given one), a channel or <em>all</em>, and the name of a sound or its
     * beginning.
     *
     * @param meant the source if none is typed, or null
     * @throws UserException with one line that names the expected form
     */
    public Typed read(String text, String meant) {
        String rest = text.strip();
        String source = meant;
        for (Source each : session().sources()) {
            if (startsWith(rest, each.name() + " ")) {
                source = each.id();
                rest = rest.substring(each.name().length()).strip();
                break;
            }
        }
        int space = rest.indexOf(' ');
        if (space < 0) {
            throw new UserException(say("channels-presenter.expected-a-channel-and-a", text.strip()));
        }
        if (source == null) {
            throw new UserException(say("channels-presenter.no-source-expected-its-name"));
        }
        String channel = rest.substring(0, space);
        boolean every = channel.equalsIgnoreCase("all");
        if (!every && !channel.matches("0*([1-9]|1[0-6])")) {
            throw new UserException(say("channels-presenter.channel-expected-1-to-16", channel));
        }
        int number = every ? ChannelChart.EVERY : Integer.parseInt(channel);
        return new Typed(
                new Arrival(source, number, "", true),
                target(rest.substring(space).strip()));
    }

    private static boolean startsWith(String text, String beginning) {
        return text.regionMatches(true, 0, beginning, 0, beginning.length());
    }

    private ZoneTarget target(String name) {
        List<PartRef> fitting = new ArrayList<>();
        String wanted = name.replaceFirst("^(→|->|to )\\s*", "");
        for (PartRef ref : parts()) {
            String part = session().part(ref).orElseThrow().name();
            if (part.equalsIgnoreCase(wanted)) {
                return new ZoneTarget.ToPart(ref);
            }
            String inFull = session().instrument(ref.instrument()).orElseThrow().name() + " " + part;
            if (startsWith(part, wanted) || startsWith(inFull, wanted)) {
                fitting.add(ref);
            }
        }
        if (fitting.size() != 1) {
            String several = fitting.isEmpty()
                    ? say("channels-presenter.no-sound")
                    : say("channels-presenter.sounds", fitting.size());
            throw new UserException(
                    say("channels-presenter.called-expected-the-name-of", several, wanted.toLowerCase(Locale.ROOT)));
        }
        return new ZoneTarget.ToPart(fitting.get(0));
    }
}
