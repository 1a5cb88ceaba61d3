package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.UnknownFields;
import dibble.midi.ShortMessage;
import dibble.routing.Routing;
import dibble.text.UserException;
import dibble.time.TempoMap;
import dibble.time.TempoRemap;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;

/**
 * The played events before any routing: those of all sources in the order of their decisions, and the routings in
 * force. Its nanoseconds become ticks by the tempo of its recording, whatever the present tempo: a note that was played
 * on a bar stays on it. Immutable: its log is complete.
 *
 * @param sources the ids of the sources, by their numbers in the log
 * @param log the events, in nanoseconds since the start
 * @param marks the routings, in their order; the first at event 0
 * @param tempo the tempo and meter of the recording
 * @param length the nanoseconds from start to stop
 * @param start the start in the music, in nanoseconds of its tempo since the first bar
 * @param remaps the later changes of the tempo map, in order; its ticks are rounded like those of its prints
 * @param extras the unknown fields of its entry in the session, with those of its lines
 */
@RecordBuilder
public record Take(
        String id,
        String name,
        List<String> sources,
        EventStore log,
        List<Mark> marks,
        TempoMap tempo,
        long length,
        long start,
        List<TempoRemap> remaps,
        UnknownFields extras)
        implements TakeBuilder.With {
    /**
     * A routing that came into force.
     *
     * @param position the number of the first event that it decided
     * @param stamp when, in nanoseconds since the beginning
     */
    public record Mark(int position, long stamp, Routing routing) {}

    public Take {
        Ids.check(id);
        sources = List.copyOf(sources);
        marks = List.copyOf(marks);
        remaps = List.copyOf(remaps);
        if (start < 0) {
            throw new UserException(say("take.start-expected-0-or-more", start));
        }
    }

    /** A take of which no file says anything that this version does not know. */
    public Take(
            String id,
            String name,
            List<String> sources,
            EventStore log,
            List<Mark> marks,
            TempoMap tempo,
            long length,
            long start) {
        this(id, name, sources, log, marks, tempo, length, start, List.of(), UnknownFields.NONE);
    }

    /** The same under another id and name. */
    public Take named(String otherId, String otherName) {
        return with().id(otherId).name(otherName).build();
    }

    /**
     * Returns the same take under music that got another tempo map.
     *
     * @param exactly whether a remap that undoes the last one takes that away; otherwise ticks are rounded again, as those of
     *     tracks are
     */
    public Take remapped(TempoRemap remap, boolean exactly) {
        List<TempoRemap> next = new ArrayList<>(remaps);
        if (exactly && !next.isEmpty() && remap.undoes(next.get(next.size() - 1))) {
            next.remove(next.size() - 1);
        } else {
            next.add(remap);
        }
        return withRemaps(next);
    }

    /** The tick of the music at a time since its beginning, in nanoseconds. */
    public long tick(long nanos) {
        long tick = tempo.ticks(start + nanos);
        for (TempoRemap remap : remaps) {
            tick = remap.tick(tick);
        }
        return tick;
    }

    /** The tick of the music at which it begins. */
    public long startTick() {
        return tick(0);
    }

    /** The tick of the music at which it ends. */
    public long endTick() {
        return tick(length);
    }

    /** Returns the number of notes. */
    public int noteCount() {
        int notes = 0;
        for (int i = 0; i < log.size(); i++) {
            if (ShortMessage.startsNote(log.message(i))) {
                notes++;
            }
        }
        return notes;
    }
}
