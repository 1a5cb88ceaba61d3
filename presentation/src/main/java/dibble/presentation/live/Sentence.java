package dibble.presentation.live;

import static dibble.presentation.UiText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.presentation.LiveState;
import dibble.presentation.Words;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.routing.Trace;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The last played event and its output, in words. */
public final class Sentence {
    /** One way that it took. */
    public record Way(int colour, String channel, String part, String detail) {}

    private final String source;
    private final String played;
    private final List<Way> ways;
    private final String silence;

    private Sentence(String source, String played, List<Way> ways, String silence) {
        this.source = source;
        this.played = played;
        this.ways = List.copyOf(ways);
        this.silence = silence;
    }

    /** Returns the name of the source. */
    public String source() {
        return source;
    }

    /** Returns the played event. */
    public String played() {
        return played;
    }

    /** Returns what became of it. */
    public List<Way> ways() {
        return ways;
    }

    /** Why nothing sounds; empty where something does. */
    public String silence() {
        return silence;
    }

    /** All of it as plain text, for assistive technology. */
    public String text() {
        StringBuilder text = new StringBuilder(source + ", " + played);
        ways.forEach(way -> text.append(" to ").append(way.part()).append(", ").append(way.detail()));
        return text.append(silence.isEmpty() ? "" : ": " + silence).toString();
    }

    /** Describes an event. */
    public static Sentence of(
            LiveState.Heard heard, Session session, Routing routing, SlotAllocator slots, boolean isHeard) {
        int message = heard.message();
        boolean isKey = ShortMessage.startsNote(message);
        List<Way> ways = new ArrayList<>();
        boolean refused = false;
        List<Trace.Sent> taken = new ArrayList<>();
        for (LiveState.Sent sent : heard.sent()) {
            // A key is described by the notes that it starts, a control by everything that it moves.
            if (ShortMessage.startsNote(sent.message()) || !isKey) {
                refused |= !sent.taken();
                if (sent.taken()) {
                    taken.add(new Trace.Sent(
                            slots.instrumentId(sent.instrument()),
                            ShortMessage.channel(sent.message()) + 1,
                            sent.message()));
                }
            }
        }
        Trace.values(taken).forEach(value -> ways.add(way(value, session, routing)));
        String silence = "";
        if (ways.isEmpty()) {
            silence = !isHeard
                    ? say("sentence.not-heard-hear-is-off")
                    : refused
                            ? say("sentence.its-port-is-not-receiving")
                            : isKey ? say("sentence.no-zone-has-this-key") : say("sentence.nothing-uses-it");
        }
        return new Sentence(
                SessionFormatter.source(heard.source(), session),
                Words.heard(heard.what(), session.middleC()),
                ways,
                silence);
    }

    private static Way way(Trace.Value value, Session session, Routing routing) {
        int message = value.message().message();
        int channel = value.channel();
        String id = value.to();
        String address = session.instrument(id).map(Instrument::name).orElse(id) + " " + channel;
        boolean isKey = ShortMessage.startsNote(message);
        String what = isKey
                ? NoteNames.nameAndNumber(ShortMessage.data1(message), session.middleC())
                : Words.heard(value.message(), session.middleC());
        Optional<Part> part = routing.partAt(id, channel);
        if (part.isEmpty()) {
            return new Way(0, String.valueOf(channel), address, what);
        }
        PartRef ref = new PartRef(id, part.get().id());
        String sounds =
                isKey ? SessionFormatter.note(ShortMessage.data1(message), part.get(), session.middleC()) : what;
        String track = (isKey ? session.trackOf(ref, ShortMessage.data1(message)) : session.trackOf(ref))
                .map(Track::name)
                .orElse("");
        return new Way(
                part.get().colour(),
                String.valueOf(channel),
                part.get().name(),
                say("sentence.on", sounds, address, track.isEmpty(), track));
    }

    /** Returns the text before the first event. */
    public static String empty(Session session) {
        return session.sources().isEmpty()
                ? say("sentence.no-sources-yet")
                : say(
                        "sentence.press-a-key-to-see",
                        session.sources().size(),
                        session.allZones().size());
    }
}
