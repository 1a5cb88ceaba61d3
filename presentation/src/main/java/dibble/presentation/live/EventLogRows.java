package dibble.presentation.live;

import static dibble.presentation.UiText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.midi.ShortMessage;
import dibble.presentation.Words;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.studio.EventHistory;
import dibble.studio.Packed;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** The recent events as rows: the received event next to its output. */
public final class EventLogRows {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss.SSS", Locale.ROOT);

    /** The source of output that no source caused: playback, an edit, a reset. */
    private static final String BY_ITSELF = say("common.dibble");

    /** A sent message. */
    public record Out(int colour, String channel, String part, String what, boolean taken, int message) {}

    /**
     * A row.
     *
     * @param number the number of its first entry
     * @param sourceId the id of the source, or null
     * @param channel 1-16, or empty
     * @param message the received message, or null
     * @param note a remark if there is no output
     */
    public record Row(
            long number,
            String time,
            String sourceId,
            String source,
            String channel,
            HeardMessage message,
            String in,
            List<Out> outs,
            String note) {}

    private final SlotAllocator slots;
    private final WallTime wall = new WallTime();
    private final ZoneId zone;

    /** The kinds that are shown. */
    private final Set<EventKind> kinds = EnumSet.allOf(EventKind.class);

    private String onlySource;
    private boolean onlySilent;

    /** {@link #look} comes before the first row. */
    public EventLogRows(SlotAllocator slots, ZoneId zone) {
        this.slots = slots;
        this.zone = zone;
    }

    /** Takes the wall clock's time in milliseconds, and the system's in nanoseconds, which may come apart. */
    public void look(long wallMillis, long nanos) {
        wall.look(wallMillis, nanos);
    }

    /** Shows one source alone; null for all. */
    public void showSource(String id) {
        onlySource = id;
    }

    /** Shows events of a kind, or hides them. */
    public void showKind(EventKind kind, boolean on) {
        if (on) {
            kinds.add(kind);
        } else {
            kinds.remove(kind);
        }
    }

    /** Shows only what nothing became of. */
    public void showSilent(boolean only) {
        onlySilent = only;
    }

    /**
     * The numbers of the rows that are shown, the newest last.
     *
     * @param behind how many of those that fit are newer than the last one shown
     * @param most as many as there is room for
     */
    public List<Long> leaders(EventHistory passed, int behind, int most) {
        List<Long> leaders = new ArrayList<>();
        int toSkip = behind;
        long at = passed.count() - 1;
        while (at >= passed.first() && leaders.size() < most) {
            long leader = passed.leader(at);
            if (isShown(passed, leader)) {
                if (toSkip > 0) {
                    toSkip--;
                } else {
                    leaders.add(leader);
                }
            }
            at = leader - 1;
        }
        Collections.reverse(leaders);
        return leaders;
    }

    private boolean isShown(EventHistory passed, long leader) {
        long entry = passed.entry(leader);
        boolean played = EventHistory.isPlayed(entry);
        int message = Packed.message(entry);
        if (!kinds.contains(EventKind.of(message))) {
            return false;
        }
        if (onlySource != null
                && !(played && slots.sourceId(Packed.voice(entry)).equals(onlySource))) {
            return false;
        }
        return !onlySilent || played && !ShortMessage.endsNote(message) && isSilent(passed, leader);
    }

    private static boolean isSilent(EventHistory passed, long leader) {
        for (long at = leader + 1; at < passed.end(leader); at++) {
            if (Packed.what(passed.entry(at)) == Packed.SENT) {
                return false;
            }
        }
        return true;
    }

    /** A row as it is read now. */
    public Row row(EventHistory passed, long leader, Session session, Routing routing, Set<String> unheard) {
        long entry = passed.entry(leader);
        boolean played = EventHistory.isPlayed(entry);
        int message = played ? Packed.message(entry) : 0;
        List<Out> outs = new ArrayList<>();
        for (long at = played ? leader + 1 : leader; at < passed.end(leader); at++) {
            outs.add(out(passed, at, session, routing));
        }
        String sourceId = played ? slots.sourceId(Packed.voice(entry)) : null;
        String note = "";
        if (Packed.what(entry) == Packed.ECHO) {
            note = say("passed-rows.came-back-in-a-loop");
        } else if (outs.isEmpty() && !ShortMessage.endsNote(message)) {
            note = unheard.contains(sourceId) ? say("common.not-heard") : say("passed-rows.not-used-why");
        }
        return new Row(
                leader,
                time(passed.stamp(leader)),
                sourceId,
                played ? SessionFormatter.source(sourceId, session) : BY_ITSELF,
                played ? String.valueOf(ShortMessage.channel(message) + 1) : "",
                played ? passed.heard(leader) : null,
                played ? what(passed, leader, session) : "",
                outs,
                note);
    }

    private String time(long stamp) {
        long millis = wall.millis(stamp);
        return TIME.format(Instant.ofEpochMilli(millis).atZone(zone));
    }

    /** A message as it is read; the last of several that are one value together says that, too. */
    private static String what(EventHistory passed, long at, Session session) {
        HeardMessage heard = passed.heard(at);
        String message = Words.message(heard.message(), session.middleC());
        return Words.joined(heard, session.middleC())
                .map(value -> say("passed-rows.one-value", message, value))
                .orElse(message);
    }

    private Out out(EventHistory passed, long at, Session session, Routing routing) {
        long entry = passed.entry(at);
        int message = Packed.message(entry);
        int channel = ShortMessage.channel(message) + 1;
        String id = slots.instrumentId(Packed.instrument(entry));
        Optional<Part> part = routing.partAt(id, channel);
        String name = part.map(Part::name)
                .orElseGet(() -> session.instrument(id).map(Instrument::name).orElse(id));
        return new Out(
                part.map(Part::colour).orElse(0),
                String.valueOf(channel),
                name,
                what(passed, at, session),
                Packed.what(entry) == Packed.SENT,
                message);
    }

    /** The bytes of a message, as cables carry them: {@code 90 3C 60}. */
    public static String bytes(int message) {
        StringBuilder text = new StringBuilder();
        for (byte each : ShortMessage.bytes(message)) {
            text.append(text.isEmpty() ? "" : " ").append(String.format("%02X", each & 0xFF));
        }
        return text.toString();
    }

    /** All rows that are shown as lines of text with tabs between. */
    public String text(EventHistory passed, Session session, Routing routing, Set<String> unheard) {
        StringBuilder text = new StringBuilder(say("passed-rows.time-source-channel-event-bytes") + "\n");
        for (long leader : leaders(passed, 0, Integer.MAX_VALUE)) {
            Row row = row(passed, leader, session, routing, unheard);
            text.append(text(row));
        }
        return text.toString();
    }

    /** A row as a line of text with tabs between. */
    public static String text(Row row) {
        List<String> became = new ArrayList<>();
        for (Out out : row.outs()) {
            became.add(
                    say("passed-rows.text", out.part(), out.channel(), out.what(), bytes(out.message()), out.taken()));
        }
        return String.join(
                        "\t",
                        row.time(),
                        row.source(),
                        row.channel(),
                        row.in(),
                        row.message() == null ? "" : bytes(row.message().message()),
                        became.isEmpty() ? row.note() : String.join("; ", became))
                + "\n";
    }
}
