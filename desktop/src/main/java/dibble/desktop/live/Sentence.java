package dibble.desktop.live;

import dibble.desktop.ui.LiveState;
import dibble.desktop.ui.Words;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Slots;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;

/** What was just played and what became of it, as words. Imports no nodes. */
final class Sentence {
    /** One way that it took. */
    record Way(int colour, String channel, String part, String detail) {}

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

    String source() {
        return source;
    }

    String played() {
        return played;
    }

    List<Way> ways() {
        return ways;
    }

    /** Why nothing sounds; empty where something does. */
    String silence() {
        return silence;
    }

    /** All of it as plain text, for assistive technology. */
    String text() {
        StringBuilder text = new StringBuilder(source + ", " + played);
        ways.forEach(way -> text.append(" to ").append(way.part()).append(", ").append(way.detail()));
        return text.append(silence.isEmpty() ? "" : ": " + silence).toString();
    }

    static Sentence of(LiveState.Heard heard, Session session, Routing routing, Slots slots, boolean isHeard) {
        String name = session.source(heard.source()).map(Source::name).orElse(heard.source());
        int message = heard.message();
        String played = NoteNames.nameAndNumber(ShortMessage.data1(message), session.middleC()) + " · velocity "
                + ShortMessage.data2(message);
        if (!ShortMessage.startsNote(message)) {
            played = "controller " + ShortMessage.data1(message) + " · " + ShortMessage.data2(message);
        }
        List<Way> ways = new ArrayList<>();
        boolean refused = false;
        for (LiveState.Sent sent : heard.sent()) {
            if (ShortMessage.startsNote(sent.message())) {
                refused |= !sent.taken();
                if (sent.taken()) {
                    ways.add(way(sent, session, routing, slots));
                }
            }
        }
        String silence = "";
        if (ways.isEmpty() && ShortMessage.startsNote(message)) {
            silence = !isHeard
                    ? "not heard: hear is off"
                    : refused ? "its port takes nothing now" : "nothing is played by this key";
        }
        return new Sentence(name, played, ways, silence);
    }

    private static Way way(LiveState.Sent sent, Session session, Routing routing, Slots slots) {
        int channel = ShortMessage.channel(sent.message()) + 1;
        String instrumentId = slots.instrumentId(sent.instrument());
        Instrument instrument = session.instrument(instrumentId).orElse(null);
        String note = NoteNames.nameAndNumber(ShortMessage.data1(sent.message()), session.middleC());
        String address = (instrument == null ? instrumentId : instrument.name()) + " " + channel;
        if (instrument != null) {
            for (Part part : instrument.parts()) {
                var at = routing.channels().channel(instrument.ref(part));
                if (at.isPresent() && at.getAsInt() == channel) {
                    String track = session.trackOf(instrument.ref(part), ShortMessage.data1(sent.message()))
                            .map(Track::name)
                            .map(text -> " → track " + text)
                            .orElse("");
                    return new Way(
                            part.colour(), String.valueOf(channel), part.name(), note + " on " + address + track);
                }
            }
        }
        return new Way(0, String.valueOf(channel), address, note);
    }

    /** What the line says before anything was played. */
    static String empty(Session session) {
        return session.sources().isEmpty()
                ? "No source yet."
                : "Press a key: Dibble says which keyboard it is, and where it goes. "
                        + Words.count(session.sources().size(), "source") + ", "
                        + Words.count(session.allZones().size(), "zone") + ".";
    }
}
