package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The events of one track in order, with absolute ticks, in flat arrays that tracks can share in pieces. Immutable;
 * made by {@link Builder}. An event is a channel message (packed), a meta event or a piece of system exclusive (bytes).
 * It can name a destination, which standard MIDI files spell as device names between the events.
 */
public final class MidiTrack {
    /** Status of a meta event in a file. */
    public static final int META = 0xFF;

    /** Any text. */
    public static final int META_TEXT = 0x01;

    /** A copyright notice. */
    public static final int META_COPYRIGHT = 0x02;

    /** The name of the track; in the first one, of the sequence. */
    public static final int META_TRACK_NAME = 0x03;

    /** The instrument that a track is for. */
    public static final int META_INSTRUMENT = 0x04;

    /** The name of the device that what follows is for. */
    public static final int META_DEVICE = 0x09;

    /** A marker: the name of a place. */
    public static final int META_MARKER = 0x06;

    /** A cue point: what happens at a place. */
    public static final int META_CUE = 0x07;

    /** The end of the track. */
    public static final int META_END = 0x2F;

    /** A tempo, in microseconds a quarter note. */
    public static final int META_TEMPO = 0x51;

    /** The time code at which the track begins. */
    public static final int META_SMPTE_OFFSET = 0x54;

    /** A time signature. */
    public static final int META_METER = 0x58;

    /** A key signature. */
    public static final int META_KEY = 0x59;

    /** The destination of an event that names none: the part of its track. */
    public static final String NO_DESTINATION = "";

    private static final byte[] NO_BYTES = {};

    /** As many events as a piece has at most: steps of undo share all of a long clip but a few. */
    private static final int PIECE = 1024;

    /** Clips that are so short are one piece. */
    private static final int MIN_PIECE = 64;

    /**
     * Consecutive events, shared by all tracks that have the same ones.
     *
     * @param bytes by event; null where no event has any
     * @param destinations by event; null where no event names one
     */
    private record Piece(long[] ticks, int[] messages, byte[][] bytes, String[] destinations) {
        Piece {
            if (destinations != null && Arrays.stream(destinations).allMatch(String::isEmpty)) {
                destinations = null;
            }
        }

        int size() {
            return ticks.length;
        }

        boolean equals(int from, Piece other, int otherFrom, int count) {
            return Arrays.equals(ticks, from, from + count, other.ticks, otherFrom, otherFrom + count)
                    && Arrays.equals(messages, from, from + count, other.messages, otherFrom, otherFrom + count)
                    && sameBytes(from, other, otherFrom, count)
                    && sameDestinations(from, other, otherFrom, count);
        }

        String destination(int i) {
            return destinations == null ? NO_DESTINATION : destinations[i];
        }

        private boolean sameDestinations(int from, Piece other, int otherFrom, int count) {
            for (int i = 0; (destinations != null || other.destinations != null) && i < count; i++) {
                if (!destination(from + i).equals(other.destination(otherFrom + i))) {
                    return false;
                }
            }
            return true;
        }

        private boolean sameBytes(int from, Piece other, int otherFrom, int count) {
            for (int i = 0; (bytes != null || other.bytes != null) && i < count; i++) {
                byte[] here = bytes == null ? null : bytes[from + i];
                byte[] there = other.bytes == null ? null : other.bytes[otherFrom + i];
                if (!Arrays.equals(here, there)) {
                    return false;
                }
            }
            return true;
        }

        Piece part(int from, int to) {
            return new Piece(
                    Arrays.copyOfRange(ticks, from, to),
                    Arrays.copyOfRange(messages, from, to),
                    bytes == null ? null : Arrays.copyOfRange(bytes, from, to),
                    destinations == null ? null : Arrays.copyOfRange(destinations, from, to));
        }
    }

    private final Piece[] pieces;

    /** The number of the first event of each piece, and behind them the number of all. */
    private final int[] firsts;

    private final long endTick;

    /** The piece that was looked into last. Threads may see each other's, or none: whatever it is, it is looked at first. */
    private int lately;

    private MidiTrack(Piece[] pieces, long endTick) {
        this.pieces = pieces;
        this.endTick = endTick;
        firsts = new int[pieces.length + 1];
        for (int i = 0; i < pieces.length; i++) {
            firsts[i + 1] = firsts[i] + pieces[i].size();
        }
    }

    /** Returns the piece of an event. */
    private int piece(int i) {
        int piece = lately;
        if (piece < pieces.length && i >= firsts[piece] && i < firsts[piece + 1]) {
            return piece;
        }
        // As a rule the next is asked for.
        if (piece + 2 < firsts.length && i >= firsts[piece + 1] && i < firsts[piece + 2]) {
            lately = piece + 1;
            return piece + 1;
        }
        int found = Arrays.binarySearch(firsts, i);
        piece = found >= 0 ? found : -found - 2;
        if (piece < 0 || piece >= pieces.length) {
            throw new ArrayIndexOutOfBoundsException(i);
        }
        lately = piece;
        return piece;
    }

    /** The number of events, the end of track not counted. */
    public int size() {
        return firsts[pieces.length];
    }

    /** The absolute tick of event {@code i}. */
    public long tick(int i) {
        int piece = piece(i);
        return pieces[piece].ticks[i - firsts[piece]];
    }

    /** The tick of the end-of-track event; at or after the last event. */
    public long endTick() {
        return endTick;
    }

    /** The first byte of event {@code i}: a channel status, 0xF0, 0xF7 or {@link #META}. */
    public int status(int i) {
        return message(i) & 0xFF;
    }

    /** Returns true if event {@code i} is a channel message. */
    public boolean isChannelMessage(int i) {
        return ShortMessage.isChannelStatus(status(i));
    }

    /** Returns true if event {@code i} is system exclusive, or a continuation of it. */
    public boolean isExclusive(int i) {
        return status(i) == Status.EXCLUSIVE || status(i) == Status.EXCLUSIVE_END;
    }

    /** Returns true if event {@code i} is a meta event of a type 0-127. */
    public boolean isMeta(int i, int type) {
        return status(i) == META && metaType(i) == type;
    }

    /** The packed message of event {@code i}, where it is a channel message. */
    public int message(int i) {
        int piece = piece(i);
        return pieces[piece].messages[i - firsts[piece]];
    }

    /** The type byte of meta event {@code i}. */
    public int metaType(int i) {
        return message(i) >>> 8 & 0xFF;
    }

    private byte[] bytes(int i) {
        int piece = piece(i);
        byte[][] bytes = pieces[piece].bytes;
        return bytes == null ? null : bytes[i - firsts[piece]];
    }

    /** The data of a meta event or of a piece of system exclusive, without status, type and length. */
    public byte[] data(int i) {
        byte[] data = bytes(i);
        return data == null ? NO_BYTES : data.clone();
    }

    /** The destination that event {@code i} names, or {@link #NO_DESTINATION}. */
    public String destination(int i) {
        int piece = piece(i);
        return pieces[piece].destination(i - firsts[piece]);
    }

    /** Returns true if any event names a destination. */
    public boolean namesDestinations() {
        return Arrays.stream(pieces).anyMatch(piece -> piece.destinations != null);
    }

    /** The text of meta event {@code i}. */
    public String text(int i) {
        return text(data(i));
    }

    /**
     * The same track, which shares with another all that both have: a change of a few notes of a long clip costs a few
     * pieces then.
     */
    public MidiTrack sharing(MidiTrack other) {
        List<Piece> shared = new ArrayList<>();
        Piece mine = pieces.length == 1 ? pieces[0] : whole();
        int at = 0;
        for (Piece piece : other.pieces) {
            if (piece.size() < MIN_PIECE || mine.size() - at < piece.size()) {
                continue;
            }
            // Equal content begins at the same tick; events before it may have been added or deleted.
            int from = first(mine.ticks, at, piece.ticks[0]);
            while (from + piece.size() <= mine.size()
                    && mine.ticks[from] == piece.ticks[0]
                    && mine.messages[from] != piece.messages[0]) {
                from++;
            }
            if (from + piece.size() <= mine.size() && piece.equals(0, mine, from, piece.size())) {
                cut(mine, at, from, shared);
                shared.add(piece);
                at = from + piece.size();
            }
        }
        cut(mine, at, mine.size(), shared);
        return new MidiTrack(shared.toArray(new Piece[0]), endTick);
    }

    private static String[] noDestinations(int count) {
        String[] destinations = new String[count];
        Arrays.fill(destinations, NO_DESTINATION);
        return destinations;
    }

    private static int first(long[] ticks, int from, long tick) {
        int low = from;
        int high = ticks.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (ticks[middle] < tick) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    private static void cut(Piece whole, int from, int to, List<Piece> pieces) {
        for (int at = from; at < to; at += PIECE) {
            pieces.add(whole.part(at, Math.min(to, at + PIECE)));
        }
    }

    private Piece whole() {
        long[] ticks = new long[size()];
        int[] messages = new int[size()];
        byte[][] bytes = null;
        String[] destinations = null;
        for (int i = 0; i < pieces.length; i++) {
            System.arraycopy(pieces[i].ticks, 0, ticks, firsts[i], pieces[i].size());
            System.arraycopy(pieces[i].messages, 0, messages, firsts[i], pieces[i].size());
            if (pieces[i].bytes != null) {
                bytes = bytes == null ? new byte[size()][] : bytes;
                System.arraycopy(pieces[i].bytes, 0, bytes, firsts[i], pieces[i].size());
            }
            if (pieces[i].destinations != null) {
                destinations = destinations == null ? noDestinations(size()) : destinations;
                System.arraycopy(pieces[i].destinations, 0, destinations, firsts[i], pieces[i].size());
            }
        }
        return new Piece(ticks, messages, bytes, destinations);
    }

    /** Returns the number of events in memory that another track does not share. */
    public int apartFrom(Set<Object> known) {
        int apart = 0;
        for (Piece piece : pieces) {
            apart += known.contains(piece) ? 0 : piece.size();
        }
        return apart;
    }

    /** Adds its arrays in memory to an identity set, for {@link #apartFrom}. */
    public void addTo(Set<Object> known) {
        known.addAll(Arrays.asList(pieces));
    }

    /** The first track name in this track. */
    public Optional<String> name() {
        for (int i = 0; i < size(); i++) {
            if (isMeta(i, META_TRACK_NAME)) {
                return Optional.of(text(data(i)));
            }
        }
        return Optional.empty();
    }

    /** Text of a meta event: UTF-8 where it is valid, else Latin-1; the standard leaves the encoding open. */
    static String text(byte[] data) {
        String utf8 = new String(data, StandardCharsets.UTF_8);
        return utf8.indexOf('\uFFFD') < 0 ? utf8 : new String(data, StandardCharsets.ISO_8859_1);
    }

    @Override
    public boolean equals(Object other) {
        return other == this
                || other instanceof MidiTrack that && endTick == that.endTick && size() == that.size() && isSame(that);
    }

    private boolean isSame(MidiTrack that) {
        int i = 0;
        while (i < size()) {
            int mine = piece(i);
            int other = that.piece(i);
            int count = Math.min(firsts[mine + 1], that.firsts[other + 1]) - i;
            boolean same = pieces[mine] == that.pieces[other] && firsts[mine] == that.firsts[other];
            if (!same && !pieces[mine].equals(i - firsts[mine], that.pieces[other], i - that.firsts[other], count)) {
                return false;
            }
            i += count;
        }
        return true;
    }

    @Override
    public int hashCode() {
        int hash = 1;
        for (Piece piece : pieces) {
            for (int i = 0; i < piece.size(); i++) {
                hash = (hash * 31 + piece.messages[i]) * 31 + Long.hashCode(piece.ticks[i]);
            }
        }
        return hash;
    }

    /** Collects events in rising ticks. Not thread-safe. */
    public static final class Builder {
        /** A file can have many tracks with little on each. */
        private static final int FIRST = 8;

        private long[] ticks = new long[FIRST];
        private int[] messages = new int[FIRST];
        private byte[][] bytes;
        private String[] destinations;
        private int size;
        private long endTick;

        /** Adds a channel message that names no destination. */
        public Builder add(long tick, int message) {
            return append(tick, message, null, NO_DESTINATION);
        }

        /** Adds a channel message for a destination. */
        public Builder add(long tick, int message, String destination) {
            return append(tick, message, null, destination);
        }

        /** Adds a meta event of a type 0-127. */
        public Builder meta(long tick, int type, byte[] data) {
            return append(tick, META | type << 8, data.clone(), NO_DESTINATION);
        }

        public Builder text(long tick, int type, String text) {
            return meta(tick, type, text.getBytes(StandardCharsets.UTF_8));
        }

        /** Adds system exclusive: status 0xF0 (a message begins) or 0xF7 (it goes on, or raw bytes). */
        public Builder exclusive(long tick, int status, byte[] data) {
            return exclusive(tick, status, data, NO_DESTINATION);
        }

        /** Adds system exclusive for a destination. */
        public Builder exclusive(long tick, int status, byte[] data, String destination) {
            return append(tick, status, data.clone(), destination);
        }

        private Builder append(long tick, int message, byte[] data, String destination) {
            if (tick < endTick) {
                throw new UserException(say("midi-track.tick-expected-or-later", tick, endTick));
            }
            if (size == ticks.length) {
                ticks = Arrays.copyOf(ticks, size * 2);
                messages = Arrays.copyOf(messages, size * 2);
            }
            if (data != null) {
                if (bytes == null) {
                    bytes = new byte[ticks.length][];
                }
                if (bytes.length < ticks.length) {
                    bytes = Arrays.copyOf(bytes, ticks.length);
                }
                bytes[size] = data;
            }
            if (!destination.isEmpty() || destinations != null) {
                name(destination);
            }
            ticks[size] = tick;
            messages[size] = message;
            size++;
            endTick = tick;
            return this;
        }

        private void name(String destination) {
            if (destinations == null) {
                destinations = noDestinations(ticks.length);
            }
            if (destinations.length < ticks.length) {
                int before = destinations.length;
                destinations = Arrays.copyOf(destinations, ticks.length);
                Arrays.fill(destinations, before, ticks.length, NO_DESTINATION);
            }
            destinations[size] = destination;
        }

        /** Copies an event of another track. */
        public Builder copy(MidiTrack from, int i) {
            return copyAt(from.tick(i), from, i);
        }

        /** Copies an event of another track to another tick. */
        public Builder copyAt(long tick, MidiTrack from, int i) {
            return append(tick, from.message(i), from.bytes(i), from.destination(i));
        }

        /** Copies an event of another track to another destination. */
        public Builder copyTo(String destination, MidiTrack from, int i) {
            return append(from.tick(i), from.message(i), from.bytes(i), destination);
        }

        public int size() {
            return size;
        }

        /** The track, ending with its last event. */
        public MidiTrack build() {
            return build(endTick);
        }

        /** The track, ending at a tick that is not before its last event. */
        public MidiTrack build(long end) {
            Piece all = new Piece(
                    Arrays.copyOf(ticks, size),
                    Arrays.copyOf(messages, size),
                    bytes == null ? null : Arrays.copyOf(bytes, size),
                    destinations == null ? null : Arrays.copyOf(destinations, size));
            List<Piece> cut = new ArrayList<>();
            if (size > 2 * PIECE) {
                cut(all, 0, size, cut);
            } else if (size > 0) {
                cut.add(all);
            }
            return new MidiTrack(cut.toArray(new Piece[0]), Math.max(end, endTick));
        }
    }
}
