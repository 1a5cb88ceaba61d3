package dibble.edits;

import dibble.gear.Effects;
import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Loudness;
import dibble.gear.Part;
import dibble.gear.SoundFile;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/** What a player does to strips, as functions from a session to the changed one. */
public final class StripEdits {
    private StripEdits() {}

    /** The strip that somebody means; empty where its part is not there. */
    public static Optional<Strip> strip(Session session, StripRef ref) {
        return session.part(ref.part()).map(part -> part.strip(ref.key()));
    }

    /** Changes one strip. */
    public static Session change(Session session, StripRef ref, UnaryOperator<Strip> change) {
        return GearEdits.changePart(
                session, ref.part(), part -> part.withStrip(ref.key(), change.apply(part.strip(ref.key()))));
    }

    /**
     * Moves a strip to a level in dB, and all strips of its group by as much; those that come to an end stay there. What
     * Dibble sends to a module goes to 0 dB at most.
     */
    public static Session move(Session session, StripRef ref, double level) {
        Strip strip = strip(session, ref).orElseThrow();
        double from = strip.levelNow();
        Session moved = set(session, ref, level);
        double by = Loudness.rounded(level) - Math.max(Loudness.LEAST, from);
        if (strip.group() == 0 || !Double.isFinite(by)) {
            return moved;
        }
        for (StripRef other : all(session)) {
            Strip of = strip(session, other).orElseThrow();
            if (!other.equals(ref) && of.group() == strip.group() && of.levelNow() != Loudness.SILENCE) {
                moved = set(moved, other, of.levelNow() + by);
            }
        }
        return moved;
    }

    private static Session set(Session session, StripRef ref, double level) {
        boolean builtIn = session.instrument(ref.part().instrument())
                .map(Instrument::builtIn)
                .orElse(false);
        return change(session, ref, strip -> strip.withLevel(builtIn ? level : Math.min(0, level)));
    }

    /** All strips that there are, and those that keys had. */
    private static List<StripRef> all(Session session) {
        List<StripRef> all = new ArrayList<>();
        for (Instrument instrument : session.instruments()) {
            for (Part part : instrument.parts()) {
                all.add(StripRef.of(instrument.ref(part)));
                part.keyStrips().keySet().forEach(key -> all.add(new StripRef(instrument.ref(part), key)));
            }
        }
        return all;
    }

    /** Puts all strips to 0 dB. */
    public static Session allAtZero(Session session) {
        Session level = session;
        for (StripRef ref : all(session)) {
            level = change(level, ref, strip -> strip.withLevel(0.0));
        }
        return level;
    }

    /** Changes the effects of an instrument. */
    public static Session effects(Session session, String instrument, UnaryOperator<Effects> change) {
        return GearEdits.changeInstrument(session, instrument, it -> it.withEffects(change.apply(it.effects())));
    }

    /** Names an output; without a name it has its number alone. */
    public static Session nameOutput(Session session, int number, String name) {
        Map<Integer, String> names = new TreeMap<>(session.outputs());
        if (name.isBlank()) {
            names.remove(number);
        } else {
            names.put(number, name.strip());
        }
        return session.withOutputs(names);
    }

    /** Adds a file of sounds, or says where one is now that the session has already: it is known by what is in it. */
    public static Session addSoundFile(Session session, String name, String path, String sha256) {
        List<SoundFile> files = new ArrayList<>(session.soundFiles());
        for (int i = 0; i < files.size(); i++) {
            if (files.get(i).sha256().equals(sha256)) {
                files.set(i, new SoundFile(files.get(i).id(), name, path, sha256));
                return session.withSoundFiles(files);
            }
        }
        String id = Ids.fresh(name, taken -> session.soundFile(taken).isPresent());
        files.add(new SoundFile(id, name, path, sha256));
        return session.withSoundFiles(files);
    }
}
