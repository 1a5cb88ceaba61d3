package dibble.presentation.takes;

import static dibble.presentation.UiText.say;

import dibble.edits.StripEdits;
import dibble.edits.TakeEdits;
import dibble.edits.TrackEdits;
import dibble.edits.TrackSorting;
import dibble.gear.Instrument;
import dibble.gear.Loudness;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.midi.GeneralMidi;
import dibble.presentation.Jobs;
import dibble.presentation.Words;
import dibble.recording.Sorting;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.ClockPlan;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.sound.Meters;
import dibble.studio.RecordOptions;
import dibble.text.UserException;
import dibble.time.TempoMap;
import dibble.transport.Click;
import dibble.transport.ServerTransport;
import dibble.work.Progress;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/** The presenter of the Takes view. */
public final class TakesPresenter {
    private final Document document;
    private String chosen;

    /** Presents a document. */
    public TakesPresenter(Document document) {
        this.document = document;
    }

    private Session session() {
        return document.session();
    }

    /** The tracks as they would be recorded now: those that are there, and those that Record would add. */
    public List<Track> tracksToCome() {
        return TrackEdits.addMissingTracks(session()).tracks();
    }

    /** Returns true if a track takes something when recording; one that Record would add does. */
    public boolean isArmed(Track track) {
        return track.takesRest()
                || !isThere(track)
                || document.performance().armed().contains(track.id());
    }

    /** {@code 2 sources → 3 tracks}, and what would fall to everything else. */
    public String plan() {
        List<Track> armedTracks = tracksToCome().stream().filter(this::isArmed).toList();
        Set<PartRef> armed = new HashSet<>();
        armedTracks.stream()
                .filter(track -> !(track.input() instanceof Track.OfKey))
                .forEach(track -> track.part().ifPresent(armed::add));
        List<Zone> zones =
                document.routing().zones().stream().filter(Zone::enabled).toList();
        Set<String> sources = new HashSet<>();
        Set<PartRef> fed = new HashSet<>();
        Set<PartRef> left = new HashSet<>();
        for (Zone zone : zones) {
            sources.add(zone.source());
            if (zone.to() instanceof ZoneTarget.ToPart to
                    && session().part(to.part()).isPresent()) {
                (armed.contains(to.part()) ? fed : left).add(to.part());
            }
        }
        if (sources.contains(Zone.ANY_SOURCE)) {
            session().sources().forEach(source -> sources.add(source.id()));
            sources.remove(Zone.ANY_SOURCE);
        }
        long ofKeys = armedTracks.stream()
                .filter(track -> track.input() instanceof Track.OfKey of
                        && (fed.contains(of.part()) || left.contains(of.part())))
                .count();
        long others = armedTracks.stream()
                .filter(track -> track.input() instanceof Track.OfSource
                        || track.input() instanceof Track.OfChannel
                        || track.input() instanceof Track.OfZone)
                .count();
        String plan = Words.recordPlan(sources.size(), fed.size() + (int) (ofKeys + others));
        return left.isEmpty() ? plan : say("takes-presenter.parts-to-everything-else", plan, left.size());
    }

    /** Returns the strip of a track: that of the part, or of a key that the track takes alone. */
    private Optional<StripRef> stripRef(Track track) {
        return track.playsOn()
                .filter(ref -> session().part(ref).isPresent())
                .map(ref -> track.input() instanceof Track.OfKey of && of.part().equals(ref)
                        ? new StripRef(ref, of.key())
                        : StripRef.of(ref));
    }

    private String scene() {
        return session().activeScene(document.performance());
    }

    /** Returns the strip that a track sounds through. */
    public Optional<Strip> strip(Track track) {
        return stripRef(track).flatMap(ref -> StripEdits.strip(session(), scene(), ref));
    }

    /** The highest level that its strip can have, in dB. */
    public double most(Track track) {
        boolean builtIn = stripRef(track)
                .flatMap(ref -> session().instrument(ref.part().instrument()))
                .map(Instrument::builtIn)
                .orElse(false);
        return builtIn ? Loudness.MAX : 0;
    }

    /** Returns the present level of its strip. */
    public Meters.Reading reading(Track track, Meters meters) {
        return stripRef(track)
                .flatMap(ref -> document.routing()
                        .destination(ref.part())
                        .map(to -> meters.strip(to.port(), to.channel(), ref.key())))
                .orElse(Meters.Reading.NOTHING);
    }

    /** Returns the edit that sets the level of a track's strip, in decibels. */
    public Edit levelEdit(Track track, double level) {
        Optional<StripRef> ref = stripRef(track);
        return new Edit(
                say("edit.level"),
                session -> ref.map(it -> StripEdits.move(session, scene(), it, level))
                        .orElse(session));
    }

    /** The take that is looked at: the one that was chosen, else the newest. */
    public Optional<Take> lastTake() {
        List<Take> takes = session().takes();
        return takes.stream()
                .filter(take -> take.id().equals(chosen))
                .findFirst()
                .or(() -> takes.isEmpty() ? Optional.empty() : Optional.of(takes.get(takes.size() - 1)));
    }

    /** Selects a take for display; null for the newest. */
    public void look(String id) {
        chosen = id;
    }

    /** The two ways to print a take again. */
    public enum Again {
        AS_HEARD,
        ROUTED
    }

    /** Returns true if the prints of a take were edited manually. */
    public boolean isEdited(Take take) {
        return session().tracks().stream().anyMatch(track -> track.regions().isEdited(take.id()));
    }

    /**
     * A preview of printing a take again.
     *
     * @param from the session that it was made from
     * @param again the resulting session
     */
    public record Comparison(Take take, Again how, Session from, Session again, List<TakeEdits.Outcome> outcomes) {
        /** Returns true if it still is what would come of it. */
        public boolean isOf(Session session) {
            return from.takes() == session.takes()
                    && from.tracks() == session.tracks()
                    && from.tempo().equals(session.tempo());
        }
    }

    /** Compares the present tracks with those after printing a take again. Any thread. */
    public static Comparison compare(Kept kept, Take take, Again how, Progress progress) {
        Session session = kept.session();
        Session again = printed(session, kept.performance(), take, how, progress);
        return new Comparison(take, how, session, again, TakeEdits.compare(session, again, take.id()));
    }

    /** Prints a take again, as one step. */
    public void print(Jobs jobs, Take take, Again how) {
        Performance performance = performance();
        jobs.edit(
                document,
                say("takes-presenter.printing", take.name()),
                name(take, how),
                (session, progress) -> printed(session, performance, take, how, progress),
                () -> {});
    }

    /** The same where it has been compared, and nothing has changed since. */
    public void print(Jobs jobs, Comparison comparison) {
        if (comparison.from == document.kept().session()) {
            document.edit(name(comparison.take, comparison.how), session -> comparison.again);
        } else {
            print(jobs, comparison.take, comparison.how);
        }
    }

    private static String name(Take take, Again how) {
        return how == Again.ROUTED
                ? say("takes-presenter.routed-again", take.name())
                : say("takes-presenter.choose", take.name());
    }

    private static Session printed(Session session, Performance performance, Take take, Again how, Progress progress) {
        return how == Again.ROUTED
                ? TakeEdits.routeAgain(session, performance, take.id(), progress)
                : TakeEdits.choose(session, take.id(), progress);
    }

    /** Deletes a take. */
    public void deleteTake(Take take) {
        document.edit(say("edit.delete", take.name()), session -> TakeEdits.delete(session, take.id()));
    }

    /** The range from the beginning of one bar to the end of another; empty where the texts are no bars in order. */
    public Optional<RecordOptions.Stretch> range(String first, String last) {
        if (!first.strip().matches("\\d{1,4}") || !last.strip().matches("\\d{1,4}")) {
            return Optional.empty();
        }
        int from = Integer.parseInt(first.strip());
        int to = Integer.parseInt(last.strip());
        TempoMap tempo = session().tempo();
        return from < 1 || to < from
                ? Optional.empty()
                : Optional.of(new RecordOptions.Stretch(tempo.barStart(from), tempo.barStart(to + 1L)));
    }

    /** The bar that begins at or before a tick: where a tempo or a meter can change. */
    public long changeAt(long tick) {
        TempoMap tempo = session().tempo();
        return tempo.barStart(tempo.place(tick).bar());
    }

    /**
     * Sets the tempo from a tick to the next change. A tempo equal to the previous one removes the change.
     *
     * @throws UserException if the tempo is out of range
     */
    public void setTempo(long tick, double bpm) {
        TempoMap now = session().tempo();
        TempoMap.Tempo change = new TempoMap.Tempo(tick, bpm);
        List<TempoMap.Tempo> tempos = new ArrayList<>(now.tempos());
        tempos.removeIf(tempo -> tempo.at() == tick);
        if (tick == 0 || before(tempos, tick).bpm() != bpm) {
            tempos.add(change);
        }
        tempos.sort(Comparator.comparingLong(TempoMap.Tempo::at));
        document.edit(say("edit.tempo"), session -> session.withTempo(new TempoMap(tempos, now.meters())));
    }

    private static TempoMap.Tempo before(List<TempoMap.Tempo> tempos, long tick) {
        TempoMap.Tempo last = tempos.get(0);
        for (TempoMap.Tempo tempo : tempos) {
            last = tempo.at() < tick ? tempo : last;
        }
        return last;
    }

    /** Sets the meter from a tick on, to the next change. */
    public void setMeter(long tick, int beats, int unit) {
        TempoMap now = session().tempo();
        List<TempoMap.Meter> meters = new ArrayList<>(now.meters());
        meters.removeIf(meter -> meter.at() == tick);
        TempoMap.Meter last = null;
        for (TempoMap.Meter meter : meters) {
            last = meter.at() < tick ? meter : last;
        }
        if (last == null || last.beats() != beats || last.unit() != unit) {
            meters.add(new TempoMap.Meter(tick, beats, unit));
        }
        meters.sort(Comparator.comparingLong(TempoMap.Meter::at));
        document.edit(say("edit.meter"), session -> session.withTempo(new TempoMap(now.tempos(), meters)));
    }

    /** Changes which clocks are sent and followed. */
    public void setClock(UnaryOperator<ClockPlan> change) {
        document.edit(say("edit.clock"), session -> session.withClock(change.apply(session.clock())));
    }

    /**
     * The ports that can be sent a clock: those that are there, and those of sources and instruments.
     *
     * @param hasTransport whether there is a transport that other programs share
     */
    public List<String> clockOutputs(List<String> there, boolean hasTransport) {
        Set<String> ports = new TreeSet<>(there);
        session().instruments().forEach(instrument -> ports.add(instrument.port()));
        session().sources().stream()
                .filter(source -> source.kind() == SourceKind.SEQUENCER)
                .forEach(source -> ports.add(source.port()));
        ports.addAll(session().clock().to());
        ports.remove(Click.PORT);
        ports.remove(ServerTransport.PORT);
        return withTransport(ports, hasTransport || session().clock().to().contains(ServerTransport.PORT));
    }

    private static List<String> withTransport(Set<String> ports, boolean hasTransport) {
        List<String> all = new ArrayList<>(ports);
        if (hasTransport) {
            all.add(ServerTransport.PORT);
        }
        return all;
    }

    /** The ports whose clock can be followed: those of sources, and the transport of other programs. */
    public List<String> clockInputs(boolean hasTransport) {
        Set<String> ports = new LinkedHashSet<>();
        session().sources().stream()
                .filter(source ->
                        source.kind() != SourceKind.FILE && !source.port().equals("any"))
                .forEach(source -> ports.add(source.port()));
        return withTransport(
                ports,
                hasTransport || ServerTransport.PORT.equals(session().clock().from()));
    }

    /**
     * Returns the state of the clock.
     *
     * @param bpm the tempo of the followed clock; 0 if not known
     */
    public String clockWords(double bpm) {
        ClockPlan plan = session().clock();
        if (plan.from() != null) {
            String tempo = bpm == 0 ? "" : ", " + Math.round(bpm * 10) / 10.0;
            return say("takes-presenter.clock-follows", SessionFormatter.port(plan.from(), session()), tempo);
        }
        return plan.to().isEmpty()
                ? say("common.clock-2")
                : say("takes-presenter.clock-to-ports", plan.to().size());
    }

    /** Returns the possible inputs of a track other than a part, with their labels. */
    public List<Map.Entry<String, Track.Input>> inputs() {
        List<Map.Entry<String, Track.Input>> inputs = new ArrayList<>();
        for (Source source : session().sources()) {
            inputs.add(Map.entry(say("takes-presenter.all-of", source.name()), new Track.OfSource(source.id())));
            source.lanes()
                    .forEach(lane -> inputs.add(Map.entry(
                            source.name() + ", " + lane.name(), new Track.OfChannel(source.id(), lane.channel()))));
            if (source.lanes().isEmpty() && !source.listen().isAll()) {
                source.listen()
                        .numbers()
                        .forEach(channel -> inputs.add(Map.entry(
                                say("common.channel", source.name(), channel),
                                new Track.OfChannel(source.id(), channel))));
            }
        }
        for (Zone zone : session().allZones()) {
            inputs.add(Map.entry(
                    say("takes-presenter.zone", SessionFormatter.zone(zone, session())), new Track.OfZone(zone.id())));
        }
        return inputs;
    }

    /** Adds a track, armed. */
    public void addTrack(String words, Track.Input input) {
        String id = TrackEdits.freshId(session(), words);
        String name = Character.toUpperCase(words.charAt(0)) + words.substring(1);
        document.edit(say("edit.new-track"), session -> TrackEdits.addTrack(session, id, name, input));
        document.perform(performance -> performance.withArmed(id, true));
    }

    /** Renames a track. */
    public void renameTrack(Track track, String name) {
        if (!name.isBlank()) {
            document.edit(
                    say("edit.rename-track"), session -> TrackEdits.renameTrack(session, track.id(), name.strip()));
        }
    }

    /** Deletes a track. */
    public void deleteTrack(Track track) {
        document.edit(say("edit.delete-track"), session -> TrackEdits.deleteTrack(session, track.id()));
    }

    /** Moves a track down by some places, or up by a negative number. */
    public void moveTrack(Track track, int by) {
        document.edit(say("edit.order-of-tracks"), session -> TrackEdits.moveTrack(session, track.id(), by));
    }

    /** Returns true if a track is in the session already, rather than one that Record would add. */
    public boolean isThere(Track track) {
        return session().track(track.id()).isPresent();
    }

    /** Returns true if a track's part is a drum kit. */
    public static boolean isDrums(Session session, Track track) {
        return track.playsOn().flatMap(session::part).filter(Part::drums).isPresent();
    }

    /**
     * Returns the likeliest criterion for sorting a track: the keys of its part, channels if there are several, hands.
     */
    public static Sorting.By likeliest(Session session, Track track) {
        if (isDrums(session, track)) {
            return Sorting.By.KEY;
        }
        int channels = TrackSorting.by(session, track, Sorting.How.by(Sorting.By.CHANNEL))
                .piles()
                .size();
        return channels > 1 ? Sorting.By.CHANNEL : Sorting.By.HAND;
    }

    /** The criteria for sorting a track. */
    public enum SortBy {
        CHANNEL(Sorting.By.CHANNEL),
        KEY(Sorting.By.KEY),
        CHANNEL_AND_KEY(Sorting.By.CHANNEL_AND_KEY),
        RANGE(Sorting.By.RANGE),
        HAND(Sorting.By.HAND),

        /** These need the takes. */
        ZONE(null),
        SOURCE(null);

        private final Sorting.By way;

        SortBy(Sorting.By way) {
            this.way = way;
        }

        /** Returns the constant that sorts the notes of a clip in this way. */
        public static SortBy of(Sorting.By way) {
            return Stream.of(values()).filter(it -> it.way == way).findFirst().orElseThrow();
        }
    }

    /**
     * The options for sorting a track.
     *
     * @param at the first key of the upper range
     * @param drums whether keys have the names of drums
     */
    public record Wish(SortBy by, int at, boolean drums) {}

    /** Returns the result of sorting a track. Any thread. */
    public static Sorting sorting(Session session, Performance performance, Track track, Wish wish) {
        if (wish.by.way == null) {
            return TrackSorting.byZone(session, performance, track, wish.by == SortBy.SOURCE);
        }
        Sorting.By way = wish.by.way;
        return TrackSorting.by(
                session,
                track,
                new Sorting.How(
                        way,
                        way == Sorting.By.RANGE ? List.of(Math.max(1, wish.at)) : List.of(),
                        wish.drums ? drumNames(session, track) : Map.of(),
                        session.middleC()));
    }

    /** Returns the names of drums of a track's part, or those of General MIDI. */
    private static Map<Integer, String> drumNames(Session session, Track track) {
        Map<Integer, String> names = new TreeMap<>(GeneralMidi.percussion());
        track.playsOn().flatMap(session::part).ifPresent(part -> names.putAll(part.noteNames()));
        return names;
    }

    /** Sorts a track: it stays, muted, with the resulting tracks behind it. */
    public void sort(Track track, Sorting sorting) {
        document.edit(say("edit.sort", track.name()), session -> TrackSorting.sort(session, track, sorting));
        document.perform(performance -> performance.withMuted(track.id(), true));
    }

    /** Arms a track for recording, or disarms it. */
    public void setArmed(Track track, boolean on) {
        document.perform(performance -> performance.withArmed(track.id(), on));
    }

    /** Mutes a track, or unmutes it. */
    public void setMuted(Track track, boolean on) {
        document.perform(performance -> performance.withMuted(track.id(), on));
    }

    /** Solos a track, or ends that. */
    public void setSoloed(Track track, boolean on) {
        document.perform(performance -> performance.withSoloed(track.id(), on));
    }

    /** Returns how the session is played now. */
    public Performance performance() {
        return document.performance();
    }

    /** Returns the length of all recordings, in nanoseconds. */
    public long length() {
        long length =
                lastTake().map(take -> session().tempo().nanos(take.endTick())).orElse(0L);
        for (Track track : session().tracks()) {
            length = Math.max(length, session().tempo().nanos(track.content().endTick()));
        }
        return length;
    }
}
