package dibble.edits;

import dibble.gear.Effects;
import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Loudness;
import dibble.gear.Part;
import dibble.gear.Sound;
import dibble.gear.SoundFile;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.routing.SceneSound;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/** Edits of strips, as functions from a session to the changed one. */
public final class StripEdits {
    private StripEdits() {}

    /**
     * The strip that holds in a scene: the part's or the key's, with the volume and pan that the scene gives the part. Empty
     * where its part is not there.
     *
     * @param scene the id of a scene, or null for none
     */
    public static Optional<Strip> strip(Session session, String scene, StripRef ref) {
        return session.part(ref.part()).map(part -> {
            Strip strip = part.strip(ref.key());
            Sound over = sceneSound(session, scene, ref);
            strip = over.volume() == null ? strip : strip.withVolume(over.volume());
            return over.pan() == null ? strip : strip.withPan(over.pan());
        });
    }

    /** Returns the sound that a scene sets for a part; for keys and parts without one, an empty sound. */
    private static Sound sceneSound(Session session, String scene, StripRef ref) {
        return session.scene(scene).stream()
                .filter(it -> !ref.isKey())
                .flatMap(it -> it.sounds().stream())
                .filter(sound -> sound.part().equals(ref.part()))
                .findFirst()
                .map(SceneSound::sound)
                .orElse(new Sound(null, null, null, null));
    }

    /** Returns true if the scene sets the level of a strip. */
    public static boolean isOfScene(Session session, String scene, StripRef ref) {
        return sceneSound(session, scene, ref).volume() != null;
    }

    /** Changes one strip, whatever scenes make of it. */
    public static Session change(Session session, StripRef ref, UnaryOperator<Strip> change) {
        return change(session, null, ref, change);
    }

    /** Changes a strip in a scene. If the scene sets the volume or pan of the part, the change applies to the scene. */
    public static Session change(Session session, String scene, StripRef ref, UnaryOperator<Strip> change) {
        Strip before = strip(session, scene, ref).orElseThrow();
        Strip after = change.apply(before);
        Sound over = sceneSound(session, scene, ref);
        Strip own = session.part(ref.part()).orElseThrow().strip(ref.key());
        Strip next = new Strip(
                over.volume() == null ? after.level() : own.level(),
                over.pan() == null ? after.pan() : own.pan(),
                after.reverb(),
                after.chorus(),
                after.output(),
                after.group());
        Session changed = GearEdits.changePart(session, ref.part(), part -> part.withStrip(ref.key(), next));
        if (over.volume() == null && over.pan() == null) {
            return changed;
        }
        return SceneEdits.changeSound(
                changed,
                scene,
                ref.part(),
                sound -> new Sound(
                        sound.bank(),
                        sound.program(),
                        sound.volume() == null ? null : after.volume(),
                        sound.pan() == null ? null : after.pan()));
    }

    /**
     * Moves a strip to a level in dB, and all strips of its group by as much; those that come to an end stay there. What
     * Dibble sends to a module goes to 0 dB at most.
     *
     * @param scene the id of the scene that holds, or null for none
     */
    public static Session move(Session session, String scene, StripRef ref, double level) {
        Strip strip = strip(session, scene, ref).orElseThrow();
        double from = strip.levelNow();
        Session moved = set(session, scene, ref, level);
        double by = Loudness.rounded(level) - Math.max(Loudness.MIN, from);
        if (strip.group() == 0 || !Double.isFinite(by)) {
            return moved;
        }
        for (StripRef other : all(session)) {
            Strip of = strip(session, scene, other).orElseThrow();
            if (!other.equals(ref) && of.group() == strip.group() && of.levelNow() != Loudness.SILENCE) {
                moved = set(moved, scene, other, of.levelNow() + by);
            }
        }
        return moved;
    }

    private static Session set(Session session, String scene, StripRef ref, double level) {
        boolean builtIn = session.instrument(ref.part().instrument())
                .map(Instrument::builtIn)
                .orElse(false);
        return change(session, scene, ref, strip -> strip.withLevel(builtIn ? level : Math.min(0, level)));
    }

    /** Returns all strips, including those of keys that lost their track. */
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

    /** Puts all strips to 0 dB, in a scene. */
    public static Session allAtZero(Session session, String scene) {
        Session level = session;
        for (StripRef ref : all(session)) {
            level = change(level, scene, ref, strip -> strip.withLevel(0.0));
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

    /** Adds a sound file, or updates the path of one that the session has; its content identifies it. */
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
