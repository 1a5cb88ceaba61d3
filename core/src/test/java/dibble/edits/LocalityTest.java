package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.notes.TimeChanges;
import dibble.notes.Velocities;
import dibble.recording.ClipIndex;
import dibble.recording.Clips;
import dibble.recording.EventStore;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** A recording, a kept passage, an edit or an arrangement changes nothing outside its range and its tracks. */
class LocalityTest {
    private static final TempoMap TEMPO = TempoMap.of(125);
    private static final long TICK = 500_000;
    private static final long BAR = 3840;
    private static final String NOTES = "\\d+ [0-9a-f]+[89][0-9a-f] .*";
    private static final String NOTE_ONS = "\\d+ [0-9a-f]+9[0-9a-f] .*";

    /** A changed session, and which ticks of which tracks may be different. */
    private record Change(String what, Session session, Set<String> tracks, long from, long to) {
        String describe(Track track) {
            return what + ", " + track.id() + ", outside " + from + "-" + to;
        }
    }

    private static Take take(Random random, Session session, long from, long to) {
        EventStore log = new EventStore();
        Routing routing = session.routing(Performance.NEW);
        List<String> sources =
                session.sources().stream().map(source -> source.id()).toList();
        for (long at = from; at < to; at += 1 + random.nextInt(300)) {
            int key = 60 + random.nextInt(4);
            int message = switch (random.nextInt(5)) {
                case 0 -> ShortMessage.controller(0, 64, random.nextInt(128));
                case 1 -> ShortMessage.of(ShortMessage.PITCH_BEND, 0, random.nextInt(128), random.nextInt(128));
                case 2 -> ShortMessage.noteOff(0, key, random.nextInt(128));
                default -> ShortMessage.noteOn(0, key, 1 + random.nextInt(127));
            };
            log.add((at - from) * TICK, random.nextInt(sources.size()), message);
        }
        String id = TakeEdits.freshTakeId(session);
        List<Take.Mark> marks = List.of(new Take.Mark(0, 0, routing));
        return TakeEdits.closed(new Take(id, id, sources, log, marks, TEMPO, (to - from) * TICK, from * TICK));
    }

    private static Change recorded(Random random, Session session, PrintMode onto, Set<String> armed) {
        long from = random.nextInt((int) (4 * BAR));
        long to = from + 1 + random.nextInt((int) (2 * BAR));
        Take take = take(random, session, from, to);
        Printer printer = Printer.print(take, session.tracks(), armed);
        return new Change(
                "record " + onto,
                TakeEdits.keep(session, take, printer, onto),
                armed,
                from,
                onto == PrintMode.REPLACE_ALL ? Long.MAX_VALUE : to);
    }

    private static Change changed(Random random, Session session) {
        Track track = session.tracks().get(random.nextInt(session.tracks().size()));
        Set<String> one = Set.of(track.id());
        long from = random.nextInt((int) (4 * BAR));
        long to = from + 1 + random.nextInt((int) BAR);
        return switch (random.nextInt(6)) {
            case 0 -> recorded(random, session, PrintMode.REPLACE_RANGE, armed(random, session));
            case 1 -> recorded(random, session, PrintMode.OVERDUB, armed(random, session));
            case 2 -> recorded(random, session, PrintMode.REPLACE_ALL, armed(random, session));
            case 3 -> new Change("clear", Arrangement.clear(from, to).of(session, one), one, from, to);
            case 4 -> {
                long at = random.nextInt((int) (4 * BAR));
                yield new Change("copy", Arrangement.copy(from, to, at).of(session, one), one, at, at + to - from);
            }
            default -> {
                ClipIndex index = track.regions().editable().index();
                BitSet selected = new BitSet();
                long end = to;
                for (int note = 0; note < index.noteCount(); note++) {
                    boolean isIn = index.start(note) >= from && index.start(note) < to;
                    selected.set(note, isIn);
                    end = isIn ? Math.max(end, index.end(note) + 1) : end;
                }
                boolean louder = random.nextBoolean();
                Session edited = NoteEdits.change(
                                session,
                                Map.of(track.id(), selected),
                                louder ? Velocities.add(random.nextInt(40)) : TimeChanges.shift(-random.nextInt(20)))
                        .session();
                yield new Change(louder ? "louder" : "shift", edited, one, Math.max(0, from - 20), end);
            }
        };
    }

    private static Set<String> armed(Random random, Session session) {
        Set<String> armed = new HashSet<>();
        session.tracks().stream()
                .filter(track -> random.nextBoolean() || track.takesRest())
                .forEach(track -> armed.add(track.id()));
        return armed;
    }

    /** Returns the events of a stretch: notes, and what controllers are in each of its ticks where that changes. */
    private static List<String> within(Track track, long from, long to) {
        MidiTrack part = Clips.within(track.sounding(), List.of(new Clips.Stretch(from, to)));
        Map<String, Integer> held = new TreeMap<>();
        Map<String, Integer> now = new TreeMap<>();
        List<String> events = new ArrayList<>();
        for (int i = 0; i < part.size(); i++) {
            int message = part.message(i);
            String text = Integer.toHexString(message) + " " + part.destination(i);
            if (ShortMessage.isNote(message)) {
                events.add(part.tick(i) + " " + text);
            } else {
                boolean isController = ShortMessage.kind(message) == ShortMessage.CONTROLLER;
                String lane = part.destination(i) + " " + ShortMessage.status(message)
                        + (isController ? " " + ShortMessage.data1(message) : "");
                held.putIfAbsent(lane, NeutralValues.atFirst(message));
                now.put(lane, NeutralValues.isAtRest(message) ? NeutralValues.of(message) : message);
            }
            long tick = part.tick(i);
            if (i + 1 == part.size() || part.tick(i + 1) != tick) {
                now.forEach((lane, value) -> {
                    if (!value.equals(held.put(lane, value))) {
                        events.add(tick + " " + lane + " " + Integer.toHexString(value));
                    }
                });
                now.clear();
            }
        }
        // What ends together has no order.
        events.sort(Comparator.comparingLong((String event) -> Long.parseLong(event.substring(0, event.indexOf(' '))))
                .thenComparing(Comparator.naturalOrder()));
        return events;
    }

    private static List<String> matching(String pattern, List<String> events) {
        return events.stream().filter(event -> event.matches(pattern)).toList();
    }

    @Property(tries = 300)
    void nothingChangesOutside(@ForAll long seed) {
        Random random = new Random(seed);
        Session session = TrackEdits.readyToRecord(LamplightersRound.session().withTempo(TEMPO));
        Set<String> all = session.tracks().stream().map(Track::id).collect(Collectors.toSet());
        session = recorded(random, session, PrintMode.REPLACE_ALL, all).session();
        for (int i = 0; i < 6; i++) {
            Session before = session;
            Change change = changed(random, before);
            for (Track was : before.tracks()) {
                Track is = change.session().track(was.id()).orElseThrow();
                if (!change.tracks().contains(was.id())) {
                    assertThat(is).as(change.describe(was)).isEqualTo(was);
                    continue;
                }
                if (change.from() > 0) {
                    assertThat(within(is, 0, change.from()))
                            .as(change.describe(was))
                            .isEqualTo(within(was, 0, change.from()));
                }
                if (change.to() < Long.MAX_VALUE) {
                    // Overlapping takes sound like two players: the last one determines the position of a wheel, and a
                    // note that both hold lasts until both have released it, so less if one of them is replaced.
                    boolean isLayered =
                            was.regions().all().stream().anyMatch(region -> region.printed() == PrintMode.OVERDUB);
                    boolean isOver = change.what().equals("record " + PrintMode.OVERDUB);
                    String compared = isLayered ? NOTE_ONS : isOver ? NOTES : ".*";
                    assertThat(matching(compared, within(is, change.to(), Long.MAX_VALUE)))
                            .as(change.describe(was))
                            .isEqualTo(matching(compared, within(was, change.to(), Long.MAX_VALUE)));
                }
            }
            session = change.session();
        }
    }
}
